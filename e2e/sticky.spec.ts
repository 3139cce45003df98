/** Sticky sections that cover each other: browsers measure them where they are stuck. */
import { expect, test, type Page } from '@playwright/test'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest, scrollTo } from './support/boxes.ts'
import { freshFolder, repository, waybellBuilt } from './support/cli.ts'

const links = (page: Page) => page.locator('header nav a')
const current = (page: Page) => page.locator('header [aria-current]').evaluateAll((all) => all.map((a) => a.getAttribute('href')))

/** Where sections start when nothing is stuck: with the page at its top. */
async function placesOf(page: Page): Promise<Record<string, number>> {
  await scrollTo(page, 0)
  return page.evaluate(() =>
    Object.fromEntries([...document.querySelectorAll('section')].map((s) => [`#${s.id}`, s.getBoundingClientRect().top])),
  )
}

/** Sections stuck below it also lie over the top, but cover nothing that comes later. */
const coveredEdge = (page: Page) => page.evaluate(() => document.querySelector('header')!.getBoundingClientRect().bottom)

/** True when the target's heading is on top and clear of the cover. */
async function isSeen(page: Page, href: string): Promise<boolean> {
  const covered = await coveredEdge(page)
  return page.evaluate(
    ([to, edge]) => {
      const heading = document.querySelector(`${to} h2`)!
      const { top, left, height } = heading.getBoundingClientRect()
      return top >= edge && document.elementFromPoint(left + 5, top + height / 2) === heading
    },
    [href, covered] as const,
  )
}

for (const { name, viewport, reducedMotion } of [
  { name: 'laptop', viewport: { width: 1280, height: 800 }, reducedMotion: 'no-preference' },
  { name: 'phone, less motion', viewport: { width: 390, height: 844 }, reducedMotion: 'reduce' },
  { name: 'no screen that was measured', viewport: { width: 1000, height: 700 }, reducedMotion: 'no-preference' },
] as const)
  test(`links to what sticks arrive from above and from below, and so it stays: ${name}`, async ({ browser }) => {
    const out = freshFolder()
    const run = await waybellBuilt('build', join(repository, 'e2e/pages/stacked.html'), '--out', out)
    expect([run.code, run.stderr.match(/tried, 0 not right/g)?.length, run.stderr.includes('all arrive')]).toEqual([0, 5, true])
    const context = await browser.newContext({ viewport, reducedMotion })
    const page = await context.newPage()
    await page.goto(pathToFileURL(join(out, 'stacked.html')).href)
    await atRest(page)
    const places = await placesOf(page)
    const breathing = await page.evaluate(
      () => (JSON.parse(document.querySelector('[data-wb="settings"]')!.textContent!) as { breathing: number }).breathing,
    )
    const furthest = await page.evaluate(() => document.documentElement.scrollHeight - innerHeight)
    const hrefs = await links(page).evaluateAll((all) => all.map((a) => a.getAttribute('href')!))
    expect(hrefs.length).toBe(5)
    for (const href of hrefs)
      for (const from of [0, 1e6]) {
        await scrollTo(page, from)
        await atRest(page)
        await page.locator(`header nav a[href="${href}"]`).focus()
        await page.keyboard.press('Enter')
        await expect.poll(() => page.evaluate(() => location.hash)).toBe(href)
        await atRest(page)
        const place = Math.min(places[href]! - (await coveredEdge(page)) - breathing, furthest)
        await expect.poll(() => page.evaluate(() => scrollY)).toBeGreaterThan(place - 1.01)
        expect(Math.abs((await page.evaluate(() => scrollY)) - place), `${href} from ${from}`).toBeLessThanOrEqual(1.01)
        expect([await isSeen(page, href), await current(page)], `${href} from ${from}`).toEqual([true, [href]])
      }
    // After a reload further down, stuck sections don't count as starting there.
    await scrollTo(page, places['#oven']! + 100)
    await atRest(page)
    await page.reload()
    await atRest(page)
    expect(await current(page)).toEqual(['#oven'])
    await page.locator('header nav a[href="#bread"]').click()
    await atRest(page)
    expect([await isSeen(page, '#bread'), await current(page)]).toEqual([true, ['#bread']])
    await page.goBack()
    await atRest(page)
    expect(Math.abs((await page.evaluate(() => scrollY)) - (places['#oven']! + 100))).toBeLessThanOrEqual(1)
    await context.close()
  })
