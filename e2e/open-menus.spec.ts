/** Menus that open on a small screen: tried like a visitor, reported if they stay open, and closed after a press. */
import { expect, type Page } from '@playwright/test'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest } from './support/boxes.ts'
import { repository } from './support/cli.ts'
import { measured, setUp, task, type Server } from './support/server.ts'
import { bringIn, takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'

test.describe('menus that open', () => {
  const set = async (page: Page, server: Server, name: string) => {
    await bringIn(page, server, join(repository, `e2e/pages/${name}`))
    await setUp(page)
    await measured(page)
    await expect(page.getByTestId('tried')).toContainText('links tried')
    await page.getByRole('button', { name: /^(\d+|No) findings?/ }).click()
  }

  /** True when the target's first text is visible at its centre. */
  const isSeen = (page: Page, id: string) =>
    page.evaluate((at) => {
      const heading = document.getElementById(at)!.querySelector('h2')!
      const range = document.createRange()
      range.selectNodeContents(heading)
      const box = range.getBoundingClientRect()
      return heading.contains(document.elementFromPoint(box.left + box.width / 2, box.top + box.height / 2))
    }, id)

  for (const { name, opener, ids } of [
    // One button opens it, another closes it; a press leaves it open.
    { name: 'open-menus/overlay.html', opener: '.opens', ids: ['nets', 'lines', 'floats', 'visit'] },
    // A different menu than on wide screens, in a dialog over the page.
    { name: 'open-menus/dialog.html', opener: '[aria-label="Open menu"]', ids: ['nets', 'lines', 'floats'] },
    // Its opener is a link to nowhere; pressing it must not go to the top.
    { name: 'open-menus/hash.html', opener: '.opens', ids: ['nets', 'lines', 'floats'] },
    // It pushes the page aside, and a press moves the page over it.
    { name: 'field/pushes/index.html', opener: '.opens', ids: ['flours', 'bread', 'miller'] },
    // A page script handles presses and leaves the menu open.
    { name: 'field/gym/index.html', opener: '.navbar-toggle', ids: ['about', 'classes', 'trainers'] },
  ])
    test(`one that stays open over what its links lead to is told, and shut behind them: ${name}`, async ({ page, browser, server }) => {
      await set(page, server, name)
      const told = page.getByText(/The menu “.*” stays open after pressing \d links .* \(on “Phone”\)/)
      await expect(told).toBeVisible()
      await page.getByRole('button', { name: /^Close “.*” after each press$/ }).click()
      await expect(told).toHaveCount(0)
      await expect(page.getByTestId('tried')).toContainText('all arrive')
      await page.keyboard.press('Escape')

      const url = pathToFileURL(await takeHome(page)).href
      const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true })
      const visitor = await context.newPage()
      const link = (id: string) => visitor.locator(`nav a[href="#${id}"]:not(:empty)`).locator('visible=true').last()
      const current = visitor.locator('nav [aria-current]:not(:empty)').first()
      await visitor.goto(url)
      for (const id of ids) {
        await visitor.locator(opener).tap()
        await link(id).tap()
        await expect.poll(() => isSeen(visitor, id)).toBe(true)
        await expect(current).toHaveAttribute('href', `#${id}`)
      }
      await test.step('opening it moves nothing', async () => {
        // Where the page's script stops is corrected first.
        await visitor.waitForTimeout(1500)
        await atRest(visitor)
        const before = await visitor.evaluate(() => scrollY)
        await visitor.locator(opener).tap()
        // Longer than the wait for a script that handles a press.
        await visitor.waitForTimeout(2500)
        expect(await visitor.evaluate(() => scrollY)).toBe(before)
        await expect(current).toHaveAttribute('href', `#${ids.at(-1)}`)
        await link(ids[0]!).tap()
        await expect.poll(() => isSeen(visitor, ids[0]!)).toBe(true)
      })
      // By keys alone.
      await visitor.locator(opener).focus()
      await visitor.keyboard.press('Enter')
      // An element under transition takes no focus before it's there.
      const second = link(ids[1]!)
      await expect(async () => {
        await second.focus()
        await expect(second).toBeFocused({ timeout: 100 })
      }).toPass()
      await visitor.keyboard.press('Enter')
      await expect.poll(() => isSeen(visitor, ids[1]!)).toBe(true)
      // Where it doesn't open, nothing is pressed.
      await visitor.setViewportSize({ width: 1280, height: 800 })
      await link(ids[2]!).click()
      await expect.poll(() => isSeen(visitor, ids[2]!)).toBe(true)
      await expect(link(ids[0]!)).toBeVisible()

      await test.step('it can be left open again', async () => {
        await task(page, 'Menus')
        await page.getByRole('button', { name: 'Leave it open' }).click()
        await page.getByRole('button', { name: /^(\d+|No) findings?/ }).click()
        await expect(told).toBeVisible()
      })
    })

  for (const name of ['shuts', 'ticked'])
    test(`one that shuts itself, or moves the page along with it, is left as it is: ${name}`, async ({ page, server }) => {
      await set(page, server, `open-menus/${name}.html`)
      await expect(page.getByTestId('tried')).toContainText(name === 'shuts' ? 'all arrive' : 'links tried')
      await expect(page.getByText(/stays open after pressing \d links/)).toHaveCount(0)
    })
})
