/** Parts that are laid out late: estimated heights make links over them stop in the right place. */
import { expect } from '@playwright/test'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest, pressAt } from './support/boxes.ts'
import { freshFolder, repository, waybellBuilt } from './support/cli.ts'
import { measured, setUp, task } from './support/server.ts'
import { bringIn, styled, takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'

const SCREENS = { laptop: { width: 1280, height: 800 }, phone: { width: 390, height: 844 } }
const source = join(repository, 'e2e/pages/laid-out-late.html')

test('links over late parts stop where they were computed, without script too', async ({ page, browser, server }) => {
  await bringIn(page, server, source)
  await setUp(page)
  await measured(page)
  await task(page, 'Travel')
  const late = page.getByRole('region', { name: 'Parts laid out late' })
  await expect(late).toContainText('Until then the measured heights are set.')
  const lands = Object.fromEntries(
    await Promise.all(
      ['laptop', 'phone'].map(async (screen) => {
        const cell = page.locator(`[data-arrival-row="visit"] [data-screen="${screen}"][data-land]`)
        return [screen, Number(await cell.getAttribute('data-land'))] as const
      }),
    ),
  )
  const home = await takeHome(page)
  const glides = join(freshFolder(), 'index.html')
  writeFileSync(glides, styled(source, 'html { scroll-behavior: smooth; }')[0]!.buffer)

  /** Where a visitor stops who hasn't scrolled yet. */
  const stops = async (file: string, screen: keyof typeof SCREENS, javaScriptEnabled: boolean) => {
    const context = await browser.newContext({ javaScriptEnabled, viewport: SCREENS[screen] })
    const visitor = await context.newPage()
    await visitor.goto(pathToFileURL(file).href)
    await pressAt(visitor, visitor.locator('header a[href="#visit"]'))
    await atRest(visitor, javaScriptEnabled && file === home)
    const scroll = await visitor.evaluate(() => scrollY)
    await context.close()
    return scroll
  }
  for (const screen of ['laptop', 'phone'] as const) {
    for (const js of [true, false]) {
      expect(Math.abs((await stops(home, screen, js)) - lands[screen]!), `${screen}, script ${js}`).toBeLessThanOrEqual(1)
    }
    // As it came, a smooth scroll goes by the page's estimate.
    expect(Math.abs((await stops(glides, screen, false)) - lands[screen]!)).toBeGreaterThan(200)
  }

  await task(page, 'Travel')
  await late.getByRole('button', { name: 'Let the page guess' }).click()
  await page.getByRole('button', { name: /^\d+ finding/ }).click()
  const press = page.getByRole('button', { name: /^Set the heights? of \d+ parts?$/ })
  await expect(press).toBeVisible()
  await press.click()
  await expect(press).toHaveCount(0)
})

test('late parts keep their containment while they are measured, so margins in them stay inside', async () => {
  const parts = ['Sand', 'Lime', 'Clay', 'Slate'].map(
    (name, i) =>
      `<article id="${name}" style="content-visibility: auto; contain-intrinsic-height: ${i * 100}px"><h2 style="margin: 40px 0">${name}</h2><p style="margin: 0 0 30px; height: 700px">${name} in a bucket.</p></article>`,
  )
  const links = ['Sand', 'Lime', 'Clay', 'Slate'].map((name) => `<li><a href="#${name}">${name}</a></li>`)
  const file = join(freshFolder(), 'index.html')
  writeFileSync(file, `<!doctype html><title>Plaster</title><nav><ul>${links.join('')}</ul></nav>${parts.join('')}`)
  const run = await waybellBuilt('build', file, '--out', freshFolder(), '--screens', 'laptop', '--format', 'json')
  const { links: tried, arrivals } = JSON.parse(run.stdout) as {
    links: { label: string; fault: string | null }[]
    arrivals: { id: string; target: number; land: number }[]
  }
  expect(tried.map((l) => [l.label, l.fault])).toEqual(['Sand', 'Lime', 'Clay', 'Slate'].map((name) => [name, null]))
  // The parts are 40 + 700 + 30 px and a heading's line apart: no margin reaches over their edges.
  const tops = arrivals.map((a) => a.land + a.target)
  const [sand, lime, clay] = tops
  expect(lime! - sand!).toBe(clay! - lime!)
  expect(lime! - sand!).toBeGreaterThanOrEqual(40 + 700 + 30 + 20)
})
