/** Pages built by `waybell build`, opened in Chromium without Way Bell: arrivals, the current item, and what didn't move. */
import { expect, test, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest, coveredEdge, currentByRule, facts, pressAt, scrollTo, sweep, underWay } from './support/boxes.ts'
import { freshFolder, repository, waybellBuilt } from './support/cli.ts'

const pages = [
  'demo/ostrey/index.html',
  ...['bare-hash', 'plain-divs', 'glass', 'short-end', 'article', 'right-to-left', 'hiding-header', 'bar-below', 'rising'].map(
    (name) => `e2e/pages/${name}.html`,
  ),
]
/** Headers and parts with other motions: arrivals say all there is. */
const arrivalsOnly = /hiding-header|bar-below|rising/
const screens = [
  { name: 'laptop', width: 1280, height: 800, touch: false },
  { name: 'phone', width: 390, height: 844, touch: true },
]

/** Screens of the built site. */
const onScreens = 'laptop,phone'

interface Settings {
  sections: string[]
  toTop: string[]
  breathing: number
  bellOffset: number
}

const settingsOf = (page: Page) => page.evaluate(() => JSON.parse(document.querySelector('[data-wb="settings"]')!.textContent!) as Settings)
const headerVariable = (page: Page) =>
  page.evaluate(() => parseFloat(getComputedStyle(document.documentElement).getPropertyValue('--wb-header')))

for (const source of pages) {
  test.describe(basename(source) === 'index.html' ? 'the demo' : basename(source), () => {
    test.describe.configure({ mode: 'serial' })
    const file = join(repository, source)
    let built = ''

    test.beforeAll(async () => {
      const out = freshFolder()
      // Arrivals are tested below; pages with moving headers are also tried by the build.
      const tries = arrivalsOnly.test(source) ? [] : ['--no-try']
      const run = await waybellBuilt('build', file, '--out', out, '--screens', onScreens, ...tries)
      expect(run.stderr).not.toContain('not measured')
      expect(run.code).toBe(0)
      built = join(out, basename(file))
    })

    for (const screen of screens) {
      const { width, height } = screen
      const open = async (page: Page, path = built) => {
        await page.setViewportSize({ width, height })
        await page.goto(pathToFileURL(path).href)
        await atRest(page)
      }

      test(`every item arrives in its place and is marked, ${screen.name}`, async ({ page }) => {
        await open(page)
        const settings = await settingsOf(page)
        const menu = page.locator('[data-wb-menu]')
        const links = menu.locator('a[href*="#"]')
        expect(await menu.count()).toBe(1)
        const n = await links.count()
        expect(n).toBeGreaterThan(1)
        // Both ways if the header depends on the direction; else one per screen.
        const ways = arrivalsOnly.test(source) || source.startsWith('demo') ? ['above', 'below'] : [screen.touch ? 'below' : 'above']
        for (const from of ways)
          for (let i = 0; i < n; i++) {
            const href = (await links.nth(i).getAttribute('href'))!
            const id = await page.evaluate((h) => document.getElementById(decodeURIComponent(h.slice(1)))?.id ?? null, href)
            await scrollTo(page, from === 'above' ? 0 : 1e6)
            await atRest(page)
            if (!(await inView(links.nth(i)))) continue
            // A sideways menu scrolls to its mark: pressing a moving link would miss it.
            await atRest(page)
            // A header that hides counts as visible, because it returns on the way up.
            const meant = async () => {
              const now = await facts(page)
              const covered = Math.max(await coveredEdge(page), await headerVariable(page))
              const top = id === null || settings.toTop.includes(id) ? 0 : now.tops[id]! - covered - settings.breathing
              return { ...now, place: Math.min(Math.max(top, 0), now.furthest) }
            }
            const before = await meant()
            await pressAt(page, links.nth(i))
            // A link to the present position moves nothing.
            if (Math.abs(before.scroll - before.place) > 1) await underWay(page, before.scroll, 15_000)
            await atRest(page)
            const { scroll, current, place } = await meant()
            expect(Math.abs(scroll - place), `${href} from ${from}: at ${scroll}, meant ${place}`).toBeLessThanOrEqual(1)
            expect(
              current.map((c) => c.href),
              `${href} from ${from} is current`,
            ).toEqual([href])
          }
      })

      test(`nothing moves but for the made menu's own room, ${screen.name}`, async ({ page }) => {
        const boxes = () =>
          page.evaluate(() =>
            [...document.body.querySelectorAll('section, article, h1, h2, h3, p, div, main')]
              .filter((el) => !el.closest('[data-wb]'))
              .map((el) => el.getBoundingClientRect())
              .map((b) => [b.left, b.top + scrollY, b.width, b.height].map((n) => Math.round(n * 10) / 10)),
          )
        await open(page, file)
        const before = await boxes()
        await open(page)
        const after = await boxes()
        expect(after.length).toBe(before.length)
        const bar = await page.locator('[data-wb="menu"]').count()
        const room = after[after.length - 1]![1]! - before[before.length - 1]![1]!
        expect([0, bar * 48]).toContain(Math.round(room))
        // Above the menu nothing moves; below it everything by its height.
        after.forEach((box, i) => {
          const shift = box[1]! - before[i]![1]!
          expect([box[0], box[2], box[3]]).toEqual([before[i]![0], before[i]![2], before[i]![3]])
          expect(
            [0, room].some((r) => Math.abs(shift - r) <= 0.2),
            `box ${i} moved by ${shift}`,
          ).toBe(true)
        })
      })

      if (arrivalsOnly.test(source)) continue

      test(`at every scroll position the rule's item is current, ${screen.name}`, async ({ page }) => {
        await open(page)
        const settings = await settingsOf(page)
        const targets = await page
          .locator('[data-wb-menu] a[href*="#"]')
          .evaluateAll((els) => els.map((el) => decodeURIComponent(el.getAttribute('href')!.slice(1))))
        const { furthest } = await facts(page)
        // Scrolls down once, so that late parts load and the header has its scrolled state.
        await scrollTo(page, furthest)
        await atRest(page)
        for (const now of await sweep(page, 24)) {
          const meant = currentByRule(settings.sections, now.tops, now.header + settings.bellOffset, now.furthest, now.scroll)
          const shown = now.current.map((c) => decodeURIComponent(c.href.slice(1)))
          const byTop = meant !== null && settings.toTop.includes(meant) && !targets.includes(meant) ? '' : meant
          expect(shown, `at ${now.scroll} px`).toEqual(byTop !== null && targets.includes(byTop) ? [byTop] : [])
        }
      })

      // Neither depends on the screen: once per page, on the smaller one.
      if (screen !== screens[screens.length - 1]) continue

      test(`one wheel notch after a click the rule decides again, ${screen.name}`, async ({ page }) => {
        await open(page)
        const settings = await settingsOf(page)
        const links = page.locator('[data-wb-menu] a[href*="#"]')
        await links.last().click()
        await atRest(page)
        await page.mouse.move(width / 2, height * 0.7)
        await page.mouse.wheel(0, -100)
        await atRest(page)
        await page.waitForTimeout(200)
        const now = await facts(page)
        const meant = currentByRule(
          settings.sections,
          now.tops,
          (await headerVariable(page)) + settings.bellOffset,
          now.furthest,
          now.scroll,
        )
        const href = await page.evaluate(
          (id) =>
            [...document.querySelectorAll('[data-wb-menu] a[href*="#"]')]
              .map((a) => a.getAttribute('href'))
              .find((h) => decodeURIComponent(h!.slice(1)) === id),
          meant,
        )
        expect(now.current.map((c) => c.href)).toEqual(href ? [href] : [])
      })

      test(`links, offsets and smooth scrolling work without script, ${screen.name}`, async ({ browser }) => {
        const context = await browser.newContext({ javaScriptEnabled: false, viewport: { width, height } })
        const page = await context.newPage()
        await page.goto(pathToFileURL(built).href)
        // Playwright's scripts still run, the page's don't.
        const settings = await settingsOf(page)
        expect(await page.evaluate(() => getComputedStyle(document.documentElement).scrollBehavior)).toBe('smooth')
        const links = page.locator('[data-wb-menu] a[href*="#"]')
        for (let i = 0; i < (await links.count()); i++) {
          if (!(await inView(links.nth(i)))) continue
          const id = decodeURIComponent((await links.nth(i).getAttribute('href'))!.slice(1))
          await atRest(page, false)
          await pressAt(page, links.nth(i))
          await atRest(page, false)
          const { scroll, furthest, tops } = await facts(page)
          const covered = await coveredEdge(page)
          const place =
            id === '' || settings.toTop.includes(id) ? 0 : Math.min(Math.max(tops[id]! - covered - settings.breathing, 0), furthest)
          expect(Math.abs(scroll - place), `#${id} at ${scroll}, meant ${place}`).toBeLessThanOrEqual(1)
        }
        await context.close()
      })
    }

    test('only the edits change in the file, and building again gives the same', async () => {
      const before = readFileSync(file, 'utf8')
      const after = readFileSync(built, 'utf8')
      // Removing the insertions from the built page must give the original.
      let at = 0
      for (const char of after) if (char === before[at]) at++
      if (!/href="#[^"]*"/.test(before)) expect(at).toBe(before.length)
      const out = freshFolder()
      expect((await waybellBuilt('build', built, '--out', out, '--screens', onScreens, '--no-try')).code).toBe(0)
      expect(readFileSync(join(out, basename(file)), 'utf8')).toBe(after)
      expect(after.match(/data-wb="script"/g)).toHaveLength(1)
    })
  })
}

/** Scrolls a sideways menu like a visitor; false if the link can't be seen. */
async function inView(link: ReturnType<Page['locator']>): Promise<boolean> {
  if (!(await link.isVisible())) return false
  await link.evaluate((el) => {
    for (let e = el.parentElement; e && e !== document.body; e = e.parentElement) {
      if (e.scrollWidth <= e.clientWidth) continue
      const [outer, inner] = [e.getBoundingClientRect(), el.getBoundingClientRect()]
      e.scrollLeft += inner.left - outer.left - 20
    }
  })
  return link.evaluate((el) => {
    const b = el.getBoundingClientRect()
    return b.bottom > 0 && b.top < innerHeight && b.right > 0 && b.left < innerWidth
  })
}
