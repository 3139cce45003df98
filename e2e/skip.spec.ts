/** The skip link: offered if a page has none, first in tab order, and in nobody's way. */
import AxeBuilder from '@axe-core/playwright'
import { expect } from '@playwright/test'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest } from './support/boxes.ts'
import { freshFolder, repository } from './support/cli.ts'
import { liveFrame, measured, setUp, task } from './support/server.ts'
import { bringIn, takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'
import { readFileSync, writeFileSync } from 'node:fs'

test.describe('the skip link', () => {
  const source = join(repository, 'e2e/pages/open-menus/ticked.html')

  test('leads past the menu by keyboard, with and without script, and moves nothing', async ({ page, browser, server }) => {
    await bringIn(page, server, source)
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    await page.getByLabel('The first Tab offers a link past the menu').check()
    const says = page.getByLabel('It says')
    await expect(says).toHaveValue('Skip to content')
    await says.fill('Past the menu')
    await says.press('Enter')
    await expect(liveFrame(page, 'laptop').locator('body > a').first()).toHaveText('Past the menu')
    const url = pathToFileURL(await takeHome(page)).href

    const tops = (hasScript: boolean, of: string) => async () => {
      const context = await browser.newContext({ javaScriptEnabled: hasScript, viewport: { width: 1280, height: 800 } })
      const visitor = await context.newPage()
      await visitor.goto(of)
      await atRest(visitor, hasScript)
      const found = await visitor.evaluate(() =>
        [...document.querySelectorAll('header, nav a, section')].map((e) => e.getBoundingClientRect().top),
      )
      await context.close()
      return found
    }
    expect(await tops(false, url)()).toEqual(await tops(false, pathToFileURL(source).href)())

    for (const javaScriptEnabled of [true, false]) {
      const context = await browser.newContext({ javaScriptEnabled, viewport: { width: 1280, height: 800 } })
      const visitor = await context.newPage()
      await visitor.goto(url)
      await atRest(visitor, javaScriptEnabled)
      const skip = visitor.getByRole('link', { name: 'Past the menu' })
      const paint = () => skip.evaluate((el) => getComputedStyle(el).clipPath)
      expect(await paint()).toBe('inset(50%)')
      await visitor.keyboard.press('Tab')
      await expect(skip).toBeFocused()
      expect(await paint()).toBe('none')
      if (javaScriptEnabled) expect((await new AxeBuilder({ page: visitor }).include('a[data-wb]').analyze()).violations).toEqual([])
      await visitor.keyboard.press('Enter')
      await expect.poll(() => visitor.evaluate(() => location.hash)).toMatch(/^#.+/)
      await atRest(visitor, javaScriptEnabled)
      const first = await visitor.evaluate(() => document.querySelector(':target')!.getBoundingClientRect().top)
      expect(first).toBeGreaterThanOrEqual(0)
      // The next tab stop isn't a menu link.
      await visitor.keyboard.press('Tab')
      expect(await visitor.evaluate(() => !!document.activeElement!.closest('nav'))).toBe(false)
      await context.close()
    }
    await task(page, 'Travel')
    await page.getByRole('button', { name: /^Undo: / }).click()
    await expect(says).toHaveValue('Skip to content')
  })

  test('isn’t offered if the page has one', async ({ page, server }) => {
    const file = join(freshFolder(), 'index.html')
    writeFileSync(file, readFileSync(source, 'utf8').replace('<header>', '<a href="#nets">Skip to content</a>\n<header>'))
    await bringIn(page, server, file)
    await setUp(page)
    await task(page, 'Travel')
    await expect(page.getByText('The page has one of its own: “Skip to content”.')).toBeVisible()
    await expect(page.getByLabel('The first Tab offers a link past the menu')).toHaveCount(0)
  })
})
