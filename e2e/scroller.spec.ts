/** Pages that scroll in an element: the handover, and what the application computes. */
import { expect, type Browser, type Page } from '@playwright/test'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest } from './support/boxes.ts'
import { freshFolder, repository, waybellBuilt } from './support/cli.ts'
import { bringIn, ids, setId, takeHome } from './support/sheet.ts'
import { liveFrame, measured, setUp, stored, task } from './support/server.ts'
import { test } from './support/test.ts'

const sourceOf = (name: string) => join(repository, 'e2e/pages/field', name, 'index.html')
const screens = [
  { name: 'laptop', width: 1280, height: 800 },
  { name: 'phone', width: 390, height: 844 },
]
/** The scroller of each page, and what covers its top, by screen. */
const pages = [
  { name: 'panes', box: { laptop: '.pane', phone: 'html' }, cover: { laptop: null, phone: '.rail' } },
  { name: 'over-pane', box: { laptop: 'body', phone: 'body' }, cover: { laptop: 'header', phone: 'header' } },
  { name: 'inner', box: { laptop: '.app', phone: '.app' }, cover: { laptop: '.hd', phone: '.hd' } },
  { name: 'pane-bare', box: { laptop: '.scroll', phone: '.scroll' }, cover: { laptop: '[data-wb="menu"]', phone: '[data-wb="menu"]' } },
] as const

interface Stand {
  scroll: number
  furthest: number
  /** Distance of each section below the visible top, without the cover. */
  gaps: Record<string, number>
  current: string[]
}

const standing = (page: Page, box: string, cover: string | null): Promise<Stand> =>
  page.evaluate(
    ([boxes, covers]) => {
      const el = document.querySelector(boxes)!
      const view = el === document.documentElement ? 0 : el.getBoundingClientRect().top + el.clientTop
      const edge = covers === null ? view : Math.max(view, document.querySelector(covers)!.getBoundingClientRect().bottom)
      const { sections } = JSON.parse(document.querySelector('[data-wb="settings"]')!.textContent!) as { sections: string[] }
      return {
        scroll: el.scrollTop,
        furthest: el.scrollHeight - el.clientHeight,
        gaps: Object.fromEntries(sections.map((id) => [id, document.getElementById(id)!.getBoundingClientRect().top - edge])),
        current: [...document.querySelectorAll('[aria-current]')].map((a) => a.getAttribute('href')!.slice(1)),
      }
    },
    [box, cover] as const,
  )

/** Until it's still; polled from outside, because a page without script has no timers. */
async function still(page: Page, box: string): Promise<void> {
  const where = () => page.evaluate((selector) => document.querySelector(selector)!.scrollTop, box)
  for (let last = NaN, same = 0; same < 8;) {
    const now = await where()
    same = now === last ? same + 1 : 0
    last = now
    await page.waitForTimeout(60)
  }
}

for (const { name, box, cover } of pages)
  test(`“${name}” is travelled where it scrolls, with and without script`, async ({ browser }) => {
    const out = freshFolder()
    // One of them shows that tries work there.
    const run = await waybellBuilt('build', sourceOf(name), '--out', out, '--format', 'json', ...(name === 'panes' ? [] : ['--no-try']))
    const { links: tried } = JSON.parse(run.stdout) as { links: { fault: string | null }[] | null }
    if (name === 'panes') expect(tried!.map((l) => l.fault)).toEqual(Array(20).fill(null))
    const file = pathToFileURL(join(out, 'index.html')).href
    for (const screen of screens) {
      const key = screen.name as 'laptop' | 'phone'
      for (const javaScriptEnabled of [true, false]) {
        const context = await browser.newContext({ viewport: screen, javaScriptEnabled })
        const page = await context.newPage()
        await page.goto(file)
        if (javaScriptEnabled) await atRest(page)
        const links = page.locator('[data-wb-menu] a[href^="#"]')
        const n = await links.count()
        for (const i of javaScriptEnabled ? Array(n).keys() : [1, n - 1]) {
          const id = (await links.nth(i).getAttribute('href'))!.slice(1)
          await links.nth(i).click()
          await still(page, box[key])
          const { scroll, furthest, gaps, current } = await standing(page, box[key], cover[key])
          const isFirst = i === 0 && name === 'pane-bare'
          const where = `#${id} on ${key}, script ${javaScriptEnabled}: ${gaps[id]} px below what covers, at ${scroll} of ${furthest}`
          if (isFirst) expect(scroll, where).toBe(0)
          else if (furthest - scroll > 1) expect(Math.abs(gaps[id]! - 24), where).toBeLessThanOrEqual(1)
          else expect(gaps[id], where).toBeGreaterThan(23)
          if (javaScriptEnabled) expect(current, where).toEqual([id])
        }
        await context.close()
      }
    }
  })

test('the item of the visible section is current at every position of the pane', async ({ page }) => {
  const out = freshFolder()
  await waybellBuilt('build', sourceOf('panes'), '--out', out, '--no-try')
  await page.goto(pathToFileURL(join(out, 'index.html')).href)
  await atRest(page)
  const { bellOffset } = await page.evaluate(
    () => JSON.parse(document.querySelector('[data-wb="settings"]')!.textContent!) as { bellOffset: number },
  )
  const seen = new Set<string>()
  const { furthest } = await standing(page, '.pane', null)
  // Before the end, where sections are pulled in.
  for (let y = 0; y < furthest - 200; y += 90) {
    await page.evaluate(async (top) => {
      document.querySelector('.pane')!.scrollTo({ top, behavior: 'instant' })
      await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(() => setTimeout(done))))
    }, y)
    const { gaps, current } = await standing(page, '.pane', null)
    const begun = Object.entries(gaps).filter(([, gap]) => gap <= bellOffset)
    const last = begun.at(-1)?.[0]
    const meant = last && (await page.locator(`nav a[href="#${last}"]`).count()) ? [last] : []
    expect(current, `at ${y}`).toEqual(meant)
    for (const id of meant) seen.add(id)
  }
  expect(seen.size).toBeGreaterThan(1)
})

test.describe('in the application', () => {
  test('a page that scrolls elsewhere on another screen is tried where it scrolls, after an edit too', async ({ page, server }) => {
    await bringIn(page, server, sourceOf('panes'))
    await setUp(page)
    await task(page, 'Menus')
    await page.getByRole('button', { name: 'Make a menu' }).click()
    await page.getByRole('button', { name: 'Contents' }).click()
    await stored(page)
    await measured(page)
    await expect(page.getByTestId('tried')).toHaveText(/^\d+ links tried on 2 screens, all arrive$/)
    const all = page.getByRole('region', { name: 'Findings' })
    await all.getByRole('button', { name: /finding/i }).click()
    await expect(all).not.toContainText('arrives, but')
  })

  test('a page that scrolls in its body is computed, tried and handed over with former IDs and a point', async ({
    page,
    browser,
    server,
  }) => {
    await bringIn(page, server, sourceOf('over-pane'))
    await setUp(page)
    const before = await ids(page)
    for (const [i, id] of ['crossing', 'times', 'prices', 'bags', 'wind'].entries()) await setId(page, i + 1, id)
    await page.getByRole('button', { name: 'More for section Luggage' }).click()
    await page.getByRole('menuitem', { name: 'Put a point before this element' }).click()
    await setId(page, 4, 'quay')
    await stored(page)
    await measured(page)
    await task(page, 'Travel')
    await measured(page)
    const where = () =>
      liveFrame(page)
        .locator('body')
        .evaluate((body) => body.scrollTop)
    const row = page.locator('[data-arrival-row="prices"]')
    const land = Number(await row.locator('[data-screen="laptop"][data-land]').getAttribute('data-land'))
    expect(land).toBeGreaterThan(300)
    await row.getByRole('rowheader').getByRole('button').first().click()
    await expect.poll(async () => Math.abs((await where()) - land)).toBeLessThanOrEqual(1)
    const file = await takeHome(page)
    for (const viewport of screens)
      for (const script of [true, false]) {
        const present = await arrival(browser, file, 'prices', script, viewport)
        const former = await arrival(browser, file, before[2]!, script, viewport)
        expect(present).toBeGreaterThan(200)
        expect(Math.abs(present - former), `#${before[2]} at ${former}, #prices at ${present}`).toBeLessThanOrEqual(1)
        const bags = await arrival(browser, file, 'bags', script, viewport)
        if (script) expect(Math.abs((await arrival(browser, file, 'quay', true, viewport)) - bags)).toBeLessThanOrEqual(1)
      }
  })
})

async function arrival(browser: Browser, file: string, id: string, javaScriptEnabled: boolean, viewport: (typeof screens)[number]) {
  const context = await browser.newContext({ javaScriptEnabled, viewport })
  const page = await context.newPage()
  await page.goto(`${pathToFileURL(file).href}#${id}`)
  await still(page, 'body')
  const y = await page.evaluate(() => document.body.scrollTop)
  await context.close()
  return y
}
