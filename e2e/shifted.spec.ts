/** Empty targets that a page moves up by its header give their IDs to their blocks. */
import { expect, type Browser, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest, coveredEdge, pressAt } from './support/boxes.ts'
import { repository } from './support/cli.ts'
import { measured, setUp, task } from './support/server.ts'
import { bringIn, ids, takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'

const source = join(repository, 'e2e/pages/shifted.html')

async function visit<T>(browser: Browser, file: string, width: number, javaScriptEnabled: boolean, look: (there: Page) => Promise<T>) {
  const context = await browser.newContext({ viewport: { width, height: 800 }, javaScriptEnabled })
  const there = await context.newPage()
  await there.goto(pathToFileURL(file).href)
  await atRest(there, javaScriptEnabled)
  const seen = await look(there)
  await context.close()
  return seen
}

const boxes = (there: Page) =>
  there.evaluate(() =>
    [...document.querySelectorAll('main, main *')].map((el) => {
      const { left, top, width, height } = el.getBoundingClientRect()
      return [left, top + scrollY, width, height]
    }),
  )

test('shifted targets are removed, and links arrive at their blocks', async ({ page, browser, server }) => {
  await bringIn(page, server, source)
  await setUp(page)
  await measured(page)
  const before = await ids(page)
  await task(page, 'Travel')
  // The page's own targets are its offsets: they stay until the offset is set here.
  const setHere = page.getByRole('button', { name: 'Set the offset here instead' })
  if (await setHere.isVisible()) await setHere.click()
  await measured(page)
  await page.getByRole('button', { name: /^\d+ findings?/ }).click()
  // Not the one that the page's style uses.
  const press = page.getByRole('button', { name: 'Remove the 3 shifted targets' })
  await expect(page.getByText(/^3 targets are empty elements placed up to 110 px above/)).toBeVisible()
  await press.click()
  await expect(press).toHaveCount(0)
  await page.getByRole('button', { name: /^Undo: / }).click()
  await expect(press).toBeVisible()
  await press.click()
  await page.keyboard.press('Escape')
  await measured(page)
  const lands = await page
    .locator('tr[data-arrival-row] td[data-screen="laptop"]')
    .evaluateAll((cells) =>
      Object.fromEntries(cells.map((c) => [c.parentElement!.getAttribute('data-arrival-row')!, Number(c.getAttribute('data-land'))])),
    )
  const home = await takeHome(page)
  const text = readFileSync(home, 'utf8')
  expect(text).toMatch(/<span class="up"><\/span><div id="flour" class="part">/)
  expect(text).toMatch(/<a class="out"><\/a><div id="rye" class="part">/)
  expect(text).toMatch(/<div id="oats"><\/div><div class="part">/)

  for (const width of [1280, 390, 700])
    expect(await visit(browser, home, width, true, boxes), `at ${width}`).toEqual(await visit(browser, source, width, true, boxes))
  for (const js of [true, false])
    await visit(browser, home, 1280, js, async (there) => {
      for (const start of [0, 1e6])
        for (const id of ['flour', 'rye', 'oats', 'visit']) {
          await there.evaluate((y) => window.scrollTo({ top: y, behavior: 'instant' }), start)
          await atRest(there, js)
          await pressAt(there, there.locator(`header a[href="#${id}"]`))
          await there.waitForTimeout(1500)
          const seen = await there
            .locator(id === 'oats' ? '#oats + .part' : `#${id}`)
            .evaluate((el) => [el.getBoundingClientRect().top, scrollY])
          expect(Math.abs(seen[0]! - (await coveredEdge(there)) - 24), `${id} from ${start}, script ${js}`).toBeLessThanOrEqual(1)
          expect(Math.abs(seen[1]! - lands[id]!), `${id} from ${start}, script ${js}`).toBeLessThanOrEqual(1)
        }
    })

  await bringIn(page, server, home)
  await setUp(page)
  expect(await ids(page)).toEqual(before)
})
