/** Motion, address and history of links: chosen in the application, and for a visitor. */
import { expect, type Browser, type BrowserContextOptions, type Page } from '@playwright/test'
import { copyFileSync, cpSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest, scrollTo } from './support/boxes.ts'
import { repository } from './support/cli.ts'
import { liveFrame, measured, openDemo, setUp, task, type Server } from './support/server.ts'
import { takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'

const LONG = 1900

test.describe('motion', () => {
  async function begin(page: Page, server: Server): Promise<void> {
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
  }

  /** The handed-over page, with its files. */
  async function home(page: Page): Promise<string> {
    const file = await takeHome(page)
    for (const name of ['sky-week.css', 'sky-week.js']) copyFileSync(join(repository, 'demo/ostrey', name), join(dirname(file), name))
    cpSync(join(repository, 'demo/ostrey/img'), join(dirname(file), 'img'), { recursive: true })
    return pathToFileURL(file).href
  }

  async function visitor<T>(browser: Browser, url: string, options: BrowserContextOptions, look: (page: Page) => Promise<T>): Promise<T> {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, ...options })
    const page = await context.newPage()
    await page.goto(url)
    await atRest(page, options.javaScriptEnabled !== false)
    const result = await look(page)
    await context.close()
    return result
  }

  /** Follows a menu link by mouse. @returns every drawn position, and the time from press to last movement in ms */
  async function press(page: Page, id: string, meanwhile?: () => Promise<void>): Promise<{ places: number[]; took: number }> {
    await page.evaluate(() => {
      const seen: [number, number][] = [[NaN, scrollY]]
      Object.assign(window, { seen })
      // A busy machine may draw the first step late: its time counts from the press.
      addEventListener('click', () => (seen[0]![0] = performance.now()), { capture: true, once: true })
      const look = () => {
        if (seen.at(-1)![1] !== scrollY) seen.push([performance.now(), scrollY])
        requestAnimationFrame(look)
      }
      look()
    })
    // Playwright's press would first scroll to where a sticky header would be without sticking.
    const { x, y, width, height } = (await page.locator(`header a[href="#${id}"]`).boundingBox())!
    await page.mouse.click(x + width / 2, y + height / 2)
    if (meanwhile) await meanwhile()
    await page.waitForTimeout(400)
    await atRest(page)
    await page.waitForTimeout(400)
    const seen = await page.evaluate(() => (window as unknown as { seen: [number, number][] }).seen)
    return { places: seen.map(([, y]) => y), took: seen.at(-1)![0] - seen[0]![0] }
  }

  const gap = (page: Page, id: string) =>
    page.evaluate(
      (at) => document.getElementById(at)!.getBoundingClientRect().top - document.querySelector('header')!.getBoundingClientRect().bottom,
      id,
    )

  test('a duration for all links, and a jump for one', async ({ page, browser, server }) => {
    await begin(page, server)
    await page.getByRole('radio', { name: 'Timed' }).check()
    const takes = page.getByLabel('Takes', { exact: true })
    await takes.fill('5000')
    await expect(page.getByRole('alert')).toContainText('A number from 100 to 2000')
    await takes.fill(String(LONG))
    await takes.press('Enter')
    await expect(page.getByText(`The longest way takes 1.9 s`)).toBeVisible()

    await test.step('tried in the live page', async () => {
      await measured(page)
      const root = liveFrame(page).locator('html')
      await root.evaluate((el) => {
        const said: string[] = []
        Object.assign(window, { said })
        new MutationObserver(() => said.push((el as HTMLElement).style.scrollBehavior)).observe(el, { attributeFilter: ['style'] })
      })
      await page.getByRole('button', { name: 'Try it down' }).click()
      await expect.poll(() => root.evaluate(() => scrollY >= document.documentElement.scrollHeight - innerHeight - 1)).toBe(true)
      await expect.poll(() => root.evaluate((el) => (el as HTMLElement).style.scrollBehavior)).toBe('')
      expect(await root.evaluate(() => (window as unknown as { said: string[] }).said)).toContain('smooth')
    })

    await task(page, 'Menus')
    await page.getByRole('button', { name: 'More of item Beds' }).first().click()
    await page.getByLabel('Motion of item Beds').first().selectOption('jump')
    const url = await home(page)

    await test.step('by the mouse, from above and below', () =>
      visitor(browser, url, {}, async (there) => {
        for (const [id, from] of [
          ['tickets', 0],
          ['programme', 5000],
        ] as const) {
          await scrollTo(there, from)
          await atRest(there)
          const { places, took } = await press(there, id)
          expect(took, id).toBeGreaterThan(LONG - 200)
          // Scroll anchoring compensates while the header shrinks by 32 px.
          const steps = places.slice(1).map((y, i) => (y - places[i]!) * (from ? -1 : 1))
          expect(Math.min(...steps), 'goes one way all along').toBeGreaterThanOrEqual(-32)
          expect(Math.abs((await gap(there, id)) - 24)).toBeLessThanOrEqual(1)
          expect(await there.evaluate(() => document.querySelector(':target')?.id)).toBe(id)
          await there.keyboard.press('Tab')
          expect(await there.evaluate((at) => document.getElementById(at)!.compareDocumentPosition(document.activeElement!) & 4, id)).toBe(
            4,
          )
        }
      }))

    await test.step('the one that jumps is there at once', () =>
      visitor(browser, url, {}, async (there) => {
        const { places } = await press(there, 'beds')
        const [first, last] = [places[0]!, places.at(-1)!]
        // A shrinking header may move a page at rest.
        expect(places.filter((y) => Math.abs(y - first) > 60 && Math.abs(y - last) > 60)).toEqual([])
        expect(Math.abs((await gap(there, 'beds')) - 24)).toBeLessThanOrEqual(1)
      }))

    await test.step('back restores the visitor’s position, and forward the link’s', () =>
      visitor(browser, url, {}, async (there) => {
        await scrollTo(there, 1500)
        await atRest(there)
        const left = await there.evaluate(() => scrollY)
        await press(there, 'tickets')
        const arrived = await there.evaluate(() => scrollY)
        await there.goBack()
        await there.waitForTimeout(2500)
        expect(await there.evaluate(() => [location.hash, scrollY])).toEqual(['', left])
        await there.goForward()
        await there.waitForTimeout(2500)
        expect(await there.evaluate(() => [location.hash, scrollY])).toEqual(['#tickets', arrived])
      }))

    const stopped: Record<string, [at: number, y: number]> = {}
    await test.step('the visitor’s wheel and key stop it', async () => {
      for (const [kind, stop] of [
        ['wheel', (there: Page) => there.mouse.wheel(0, 1)],
        ['keydown', (there: Page) => there.keyboard.press('Shift')],
      ] as const)
        // A busy machine may deliver the input after the arrival: that try is repeated.
        await expect(async () => {
          const { at, y, furthest } = await visitor(browser, url, {}, async (there) => {
            await there.evaluate((type) => {
              addEventListener(type, () => Object.assign(window, { at: scrollY }), { capture: true, once: true, passive: true })
            }, kind)
            // From where the header is small already: scroll anchoring would move the page too.
            await scrollTo(there, 600)
            await atRest(there)
            await press(there, 'contact', async () => {
              await there.waitForFunction(() => scrollY > 900)
              await stop(there)
            })
            return there.evaluate(() => ({
              at: (window as unknown as { at: number }).at,
              y: scrollY,
              furthest: document.documentElement.scrollHeight - innerHeight,
            }))
          })
          stopped[kind] = [at, y]
          expect(at).toBeLessThan(furthest - 200)
        }).toPass()
      // The wheel's own pixel is added.
      for (const [at, y] of Object.values(stopped)) expect(Math.abs(y - at)).toBeLessThanOrEqual(1)
    })

    await test.step('reduced motion has none', () =>
      visitor(browser, url, { reducedMotion: 'reduce' }, async (there) => {
        const { places } = await press(there, 'tickets')
        expect(places.filter((y) => Math.abs(y - places[0]!) > 60 && Math.abs(y - places.at(-1)!) > 60)).toEqual([])
        expect(Math.abs((await gap(there, 'tickets')) - 24)).toBeLessThanOrEqual(1)
      }))

    await test.step('without script it’s the browser’s own, and the one jumps', () =>
      visitor(browser, url, { javaScriptEnabled: false }, async (there) => {
        expect(await there.evaluate(() => getComputedStyle(document.documentElement).scrollBehavior)).toBe('smooth')
        const places = async (id: string) => {
          const seen: number[] = []
          await there.locator(`header a[href="#${id}"]`).click()
          for (let still = 0; still < 4; await there.waitForTimeout(60)) {
            const y = await there.evaluate(() => scrollY)
            still = y > 0 && y === seen.at(-1) ? still + 1 : 0
            seen.push(y)
          }
          return new Set(seen.filter((y) => y > 0))
        }
        expect((await places('beds')).size).toBe(1)
        await there.goto(url)
        expect((await places('tickets')).size).toBeGreaterThan(2)
      }))
  })

  test('writes the chosen address', async ({ page, browser, server }) => {
    await begin(page, server)
    const rule = page.getByLabel('A link’s hash')

    const visits = async (url: string, look: (there: Page, entries: () => Promise<number>) => Promise<void>) =>
      visitor(browser, url, {}, (there) => look(there, () => there.evaluate(() => history.length)))

    await test.step('replaces the entry before', async () => {
      await rule.selectOption('Replaces the history entry')
      await visits(await home(page), async (there, entries) => {
        const before = await entries()
        for (const id of ['tickets', 'beds']) {
          await press(there, id)
          expect(Math.abs((await gap(there, id)) - 24)).toBeLessThanOrEqual(1)
          expect(await there.evaluate(() => [location.hash, document.querySelector(':target')?.id])).toEqual([`#${id}`, id])
        }
        // A link to the top keeps its address, and nothing is reloaded.
        await there.evaluate(() => Object.assign(window, { isSame: true }))
        await there
          .locator('footer a[href="#"], footer a[href="#top"], a[href="#top"], a[href="#"]')
          .first()
          .evaluate((a: HTMLElement) => a.click())
        await expect.poll(() => there.evaluate(() => scrollY)).toBeLessThan(40)
        expect(await there.evaluate(() => [location.hash, 'isSame' in window])).toEqual([expect.stringMatching(/^(#top)?$/), true])
        expect(await entries()).toBe(before)
      })
    })

    await test.step('not at all, and tab order still goes on from there', async () => {
      await task(page, 'Travel')
      await rule.selectOption('Isn’t written')
      await visits(await home(page), async (there, entries) => {
        const before = await entries()
        await press(there, 'tickets')
        expect(Math.abs((await gap(there, 'tickets')) - 24)).toBeLessThanOrEqual(1)
        expect(await there.evaluate(() => location.hash)).toBe('')
        expect(await entries()).toBe(before)
        await expect(there.locator('header [aria-current="true"]')).toHaveText('Tickets')
        await there.keyboard.press('Tab')
        expect(await there.evaluate(() => document.getElementById('tickets')!.compareDocumentPosition(document.activeElement!) & 4)).toBe(4)
      })
    })

    await test.step('the current section, while the page scrolls', async () => {
      await task(page, 'Travel')
      await rule.selectOption('Adds a history entry')
      await page.getByLabel('The address follows the scroll').check()
      await visits(await home(page), async (there, entries) => {
        const before = await entries()
        expect(await there.evaluate(() => location.hash)).toBe('')
        for (const id of ['getting-here', 'beds']) {
          const top = await there.evaluate((at) => document.getElementById(at)!.getBoundingClientRect().top + scrollY, id)
          await scrollTo(there, top)
          await expect.poll(() => there.evaluate(() => location.hash)).toBe(`#${id}`)
        }
        expect(await entries()).toBe(before)
        await scrollTo(there, 0)
        await expect.poll(() => there.evaluate(() => location.hash)).not.toBe('#beds')
      })
    })
  })
})
