/** Headers that shrink by themselves: with their space kept, nothing moves. */
import { expect, type Browser, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest, coveredEdge, pressAt, scrollTo } from './support/boxes.ts'
import { freshFolder, repository, waybellBuilt } from './support/cli.ts'
import { measured, setUp, task } from './support/server.ts'
import { bringIn, takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'

const from = (name: string) => join(repository, `e2e/pages/shrinking/${name}.html`)

async function visit<T>(browser: Browser, file: string, width: number, look: (there: Page) => Promise<T>): Promise<T> {
  const context = await browser.newContext({ viewport: { width, height: 800 } })
  const there = await context.newPage()
  await there.goto(pathToFileURL(file).href)
  await atRest(there)
  const seen = await look(there)
  await context.close()
  return seen
}

/**
 * Tops and bottoms of all sections and the page's length, in each frame in which the header resizes, on the way down and up in small
 * steps.
 */
const wayDown = (there: Page) =>
  there.evaluate(async () => {
    const look = () => [
      ...[...document.querySelectorAll('section')].flatMap((el) => {
        const { top, bottom } = el.getBoundingClientRect()
        return [top + scrollY, bottom + scrollY]
      }),
      document.documentElement.scrollHeight,
    ]
    const rest = look()
    let most = 0
    const compare = () => (most = Math.max(most, ...look().map((px, i) => Math.abs(px - rest[i]!))))
    // Called after the page's own observers, last before a frame is drawn.
    const watcher = new ResizeObserver(compare)
    watcher.observe(document.querySelector('header')!, { box: 'border-box' })
    for (const y of [20, 45, 62, 101, 104, 240, 101, 61, 40, 0]) {
      window.scrollTo({ top: y, behavior: 'instant' })
      await new Promise((done) => setTimeout(done, 400))
      compare()
    }
    watcher.disconnect()
    return { rest, most }
  })

for (const [name, by] of [
  ['padding', 40],
  ['logo', 44],
  ['column', 60],
  ['two-rows', 40],
] as const)
  test(`a header that shrinks keeps its place: ${name}`, async ({ page, browser, server }) => {
    await bringIn(page, server, from(name))
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    await page.getByRole('button', { name: /^\d+ findings?/ }).click()
    const press = page.getByRole('button', { name: /^Keep its place of \d+ px/ })
    expect(Number(/\d+/.exec(await press.innerText())![0])).toBeGreaterThanOrEqual(by)
    await press.click()
    await expect(press).toHaveCount(0)
    await measured(page)
    const land = Number(await page.locator('tr[data-arrival-row="prices"] td[data-screen="laptop"]').getAttribute('data-land'))
    const home = await takeHome(page)

    // Measured widths, and one that wasn't measured.
    for (const width of [1280, 390, 700]) {
      const before = await visit(browser, from(name), width, wayDown)
      const after = await visit(browser, home, width, wayDown)
      expect(before.most, `as it came at ${width}`).toBeGreaterThan(20)
      expect(after.most, `at ${width}`).toBeLessThan(1)
      expect(Math.max(...after.rest.map((px, i) => Math.abs(px - before.rest[i]!))), `at rest at ${width}`).toBeLessThan(1 / 32)
    }

    await visit(browser, home, 1280, async (there) => {
      for (const start of [0, 1e6]) {
        await scrollTo(there, start)
        await atRest(there)
        await pressAt(there, there.locator('header a[href="#prices"]'))
        await there.waitForTimeout(300)
        await atRest(there)
        const top = await there.evaluate(() => document.getElementById('prices')!.getBoundingClientRect().top)
        expect(Math.abs(top - (await coveredEdge(there)) - 24), `from ${start}`).toBeLessThanOrEqual(1)
        expect(Math.abs((await there.evaluate(() => scrollY)) - land), `from ${start}`).toBeLessThanOrEqual(1)
      }
      // After a reload, the visitor's position is restored.
      const was = await there.evaluate(() => scrollY)
      await there.reload()
      await atRest(there)
      await there.waitForTimeout(1200)
      expect(Math.abs((await there.evaluate(() => scrollY)) - was)).toBeLessThanOrEqual(1)
    })

    // Built again by the command line, it's measured with the header's space kept, once.
    const built = await waybellBuilt('build', home, '--out', freshFolder(), '--screens', 'laptop,phone', '--format', 'json')
    expect(built.code, built.stderr).toBe(0)
    const { arrivals } = JSON.parse(built.stdout) as { arrivals: { screen: string; id: string; land: number; gap: number }[] }
    const there = arrivals.find((a) => a.screen === 'laptop' && a.id === 'prices')!
    expect([Math.round(there.gap), Math.abs(there.land - land) <= 1]).toEqual([24, true])

    expect(readFileSync(home, 'utf8')).toMatch(/<header[^>]* data-wb-steady/)
    await bringIn(page, server, home)
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    await expect(page.getByLabel('keeps its place while it shrinks')).toBeChecked()
  })

test('one over the page takes no space', async ({ page, server }) => {
  await bringIn(page, server, from('over'))
  await setUp(page)
  await measured(page)
  await task(page, 'Travel')
  await expect(page.getByText(/fixed, 96 px, 56 px after scrolling/)).toBeVisible()
  await expect(page.getByLabel('keeps its place while it shrinks')).toHaveCount(0)
})

test('closable parts and bars at the bottom are measured', async ({ page, browser, server }) => {
  await bringIn(page, server, from('notice'))
  await setUp(page)
  await measured(page)
  await task(page, 'Travel')
  // As drawn, without anything of ours.
  const seen = await visit(browser, from('notice'), 1280, async (there) => {
    const open = await coveredEdge(there)
    const order = await there.locator('.order').evaluate((el: HTMLElement) => el.offsetHeight)
    await there.getByRole('button', { name: 'Close this notice' }).click()
    return { open, order, closed: await coveredEdge(there) }
  })
  expect(seen.open - seen.closed).toBeGreaterThan(30)
  await expect(
    page.getByText(`sticky, ${Math.round(seen.open)} px; ${Math.round(seen.closed)} px after the script closes it`),
  ).toBeVisible()
  const row = (name: string) => page.getByRole('row', { name }).getByRole('cell').first()
  await expect(row('Header height')).toHaveText(String(Math.round(seen.open)))
  await expect(row('Bottom bar height')).toHaveText(String(seen.order))

  const home = await takeHome(page)
  await visit(browser, home, 1280, async (there) => {
    for (const isClosed of [false, true]) {
      if (isClosed) await there.getByRole('button', { name: 'Close this notice' }).click()
      await pressAt(there, there.locator('header a[href="#people"]'))
      await there.waitForTimeout(300)
      await atRest(there)
      const top = await there.evaluate(() => document.getElementById('people')!.getBoundingClientRect().top)
      expect(Math.abs(top - (await coveredEdge(there)) - 24), `closed: ${isClosed}`).toBeLessThanOrEqual(1)
      await scrollTo(there, 0)
    }
  })
})
