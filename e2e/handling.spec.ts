/** Focus, keys, invalid input, and small windows. */
import { expect, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { repository } from './support/cli.ts'
import { measured, openDemo, setUp, stored, task } from './support/server.ts'
import { bringIn, ids } from './support/sheet.ts'
import { test } from './support/test.ts'

const field = (name: string) => [
  { name: 'index.html', mimeType: 'text/html', buffer: readFileSync(join(repository, 'e2e/pages/field', name, 'index.html')) },
]
/** The focused element, by role and name. */
const focused = (page: Page) =>
  page.evaluate(() => {
    const el = document.activeElement
    return `${el?.getAttribute('role') ?? el?.localName} ${el?.getAttribute('aria-label') ?? el?.textContent?.trim() ?? ''}`
  })

test.describe('handling', () => {
  test('the focus stays with the work', async ({ page, server }) => {
    await page.goto(server.address)
    await page.getByTestId('files').setInputFiles(field('bakery'))
    await measured(page)
    await expect.poll(() => focused(page)).toBe('h1 Oven and Peel')
    // The list shows the result of the press: each part once, with number and ID.
    const before = page.getByRole('list', { name: 'Parts found' }).getByRole('listitem')
    await expect(before.first()).toContainText('1Bread by seven#bread-by-seven (new)')
    const count = await before.count()
    await setUp(page)
    await expect(page.getByLabel(/^ID of section/)).toHaveCount(count)
    await expect.poll(() => focused(page)).toBe('treeitem 1 Bread by seven')

    await page.keyboard.press('Enter')
    await page.keyboard.type('Bread at seven')
    await page.keyboard.press('Enter')
    await expect.poll(() => focused(page)).toBe('treeitem 1 Bread at seven')
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('ArrowDown')
    const third = await focused(page)
    await page.keyboard.press('ArrowUp')
    await page.keyboard.press('Delete')
    // Links lead there: a dialog asks, and Enter takes the suggestion.
    await page.getByRole('dialog').waitFor()
    await page.keyboard.press('Enter')
    await expect(page.getByLabel(/^ID of section/)).toHaveCount(count - 1)
    await expect.poll(() => focused(page)).toBe(third.replace('3 ', '2 '))

    await task(page, 'Menus')
    const items = page.locator('[data-item]')
    await expect(items).toHaveCount(5)
    await page.getByRole('button', { name: 'Remove item Our story' }).press('Enter')
    await expect(items).toHaveCount(4)
    await expect.poll(() => focused(page)).toBe('button Remove item Order')
  })

  test('menus open, screens change and items move by keys, with announcements', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    await page.getByRole('treeitem').nth(2).focus()
    await page.keyboard.press('Shift+F10')
    await expect(page.getByRole('menuitem', { name: /^Remove section/ })).toBeVisible()
    await page.keyboard.press('Escape')
    await page.getByRole('radio', { name: /^Laptop/ }).focus()
    await page.keyboard.press('ArrowRight')
    await expect(page.getByRole('radio', { name: /^Phone/ })).toBeChecked()
    await task(page, 'Menus')
    await page.getByRole('button', { name: 'Move item Contact', exact: true }).focus()
    await page.keyboard.press('Space')
    await expect(page.getByRole('status').filter({ hasText: /^“Contact” (taken up; it stands at|over place) / })).toHaveCount(1)
    await page.keyboard.press('Escape')
    await stored(page)
    await task(page, 'Handover')
    await page.getByRole('radio', { name: /^Readable/ }).focus()
    await page.keyboard.press('ArrowRight')
    const small = page.getByRole('radio', { name: /^Minified/ })
    await expect(small).toBeChecked()
    // The result is computed again, and the focus stays.
    await expect(page.getByText('Writing the page…')).toHaveCount(0)
    await expect(small).toBeFocused()
    const asked = page.waitForRequest((request) => request.url().includes('/handover/page'))
    await page.getByRole('button', { name: /^Download .*html$/ }).click()
    expect((await asked).url()).toMatch(/script=small$/)
  })

  test('invalid input stays in its field, with the reason and a way back', async ({ page, server }) => {
    await bringIn(page, server, field('bakery'))
    await setUp(page)
    const title = page.getByLabel('Title of section 1')
    await title.fill('')
    await title.blur()
    await expect(title).toHaveValue('')
    await expect(page.getByText('Nothing stands here.')).toBeVisible()
    await page.getByRole('button', { name: 'Back to Bread by seven' }).click()
    await expect(title).toHaveValue('Bread by seven')
    await task(page, 'Travel')
    const space = page.getByRole('spinbutton', { name: 'Breathing space' })
    await space.fill('-1000')
    await space.press('Enter')
    await expect(space).toHaveValue('-1000')
    await expect(
      page.getByRole('alert').filter({ hasText: /^A number from -\d+ to 400: less would put a heading under the header/ }),
    ).toBeVisible()
    await page.getByRole('button', { name: 'Back to 24 px' }).click()
    await space.fill('-4')
    await space.press('Enter')
    await expect(page.getByRole('button', { name: 'Undo: change the breathing space' })).toBeVisible()
  })

  test('a second press changes nothing, and says so', async ({ page, server }) => {
    for (const name of ['bakery', 'tall-header', 'long-titles', 'active', 'works']) {
      await bringIn(page, server, field(name))
      await setUp(page)
      await measured(page)
      await page.getByRole('button', { name: 'Set everything up again' }).click()
      await expect(page.getByText('Everything is already set'), name).toBeVisible()
      await expect(page.getByRole('button', { name: /^Undo: set everything up/ }), name).toBeVisible()
      await expect(page.getByRole('button', { name: 'Redo' }), name).toBeDisabled()
    }
    // The last of them works already.
    await expect(page.getByText('This works already')).toBeVisible()
    await expect(page.getByTestId('tried')).toHaveText('4 links tried on 2 screens, all arrive')
    await task(page, 'Handover')
    await expect(page.getByText('0 changes')).toBeVisible()
  })

  test('at half the width, work, list and findings fit, and the page is a press away', async ({ page, server }) => {
    await page.setViewportSize({ width: 640, height: 400 })
    await bringIn(page, server, field('hash-mix'))
    await setUp(page)
    await expect(page.getByTestId('tried')).toContainText('tried on 2 screens', { timeout: 120_000 })
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(640)
    for (const name of ['Sections', 'Menus', 'Travel', 'Highlight', 'Walk', 'Handover']) {
      await task(page, name)
      const main = (await page.getByRole('main').boundingBox())!
      expect(main.width, name).toBeGreaterThan(400)
      expect(await page.getByRole('main').evaluate((el) => el.scrollWidth - el.clientWidth), name).toBeLessThanOrEqual(1)
    }
    await page.getByRole('region', { name: 'Findings' }).getByRole('button').first().click()
    await expect(page.locator('[data-finding]').first()).toBeInViewport()
    await page.getByRole('button', { name: 'Show the page' }).click()
    await expect(page.getByRole('radio', { name: /^Laptop/ })).toBeInViewport()
    await page.getByRole('button', { name: 'Back to the work' }).click()
  })

  test('page scripts can be off from the start, and the site remembers', async ({ page, server }) => {
    await page.goto(server.address)
    await page.getByLabel('Run the pages’ scripts').uncheck()
    await page.getByTestId('files').setInputFiles(field('scripted'))
    await measured(page)
    await expect(page.getByLabel('Page’s own scripts')).not.toBeChecked()
    expect(page.frames().some((f) => f.url().includes('.localhost') && !f.url().includes('--still'))).toBe(false)
    await stored(page)
    await page.reload()
    await measured(page)
    await expect(page.getByLabel('Page’s own scripts')).not.toBeChecked()
    await page.getByLabel('Page’s own scripts').check()
    await measured(page)
    await stored(page)
    await page.reload()
    await expect(page.getByLabel('Page’s own scripts')).toBeChecked()
  })

  test('a script-built menu on wide screens only is tried there before any set-up', async ({ page, server }) => {
    const parts = ['One', 'Two', 'Three'].map(
      (t) => `<section id="${t.toLowerCase()}" style="height: 900px"><h2>${t}</h2><p>words</p></section>`,
    )
    const html = `<!doctype html><title>Wide</title><div id="bar"></div>${parts.join('')}<script>if (innerWidth > 1000)
document.getElementById('bar').innerHTML = '<nav><a href="#one">One</a> <a href="#two">Two</a> <a href="#three">Three</a></nav>'</script>`
    await page.goto(server.address)
    await page.getByTestId('files').setInputFiles({ name: 'index.html', mimeType: 'text/html', buffer: Buffer.from(html) })
    await measured(page)
    await expect(page.getByTestId('tried')).toContainText(/\d+ links tried on \d screens?/)
  })

  test('a site is removed after asking, and a found menu says what stays', async ({ page, emptyServer: server }) => {
    await bringIn(page, server, field('bakery'))
    await setUp(page)
    expect((await ids(page)).length).toBeGreaterThan(3)
    await task(page, 'Menus')
    await page.getByRole('button', { name: 'Remove menu Header menu' }).click()
    await expect(page.getByText('stays on the page unchanged')).toBeVisible()
    await stored(page)
    await page.goto(server.address)
    await page.getByRole('button', { name: 'Remove Oven and Peel' }).click()
    await page.getByRole('button', { name: 'Keep it' }).click()
    await page.getByRole('button', { name: 'Remove Oven and Peel' }).click()
    await page.getByRole('button', { name: 'Remove the site' }).click()
    await expect(page.getByRole('link', { name: /Oven and Peel/ })).toHaveCount(0)
  })
})
