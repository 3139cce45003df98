/** Menus: targets on the page, on other pages and outside, in the application and in the handover. */
import { expect, type Page } from '@playwright/test'
import AxeBuilder from '@axe-core/playwright'
import { readFileSync } from 'node:fs'
import { zipSync } from 'fflate'
import { liveFrame, measured, setUp, stored, task } from './support/server.ts'
import { bringIn, setId, takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'

const part = (id: string, title: string) => `<section id="${id}"><h2>${title}</h2><p style="height:600px">Words of it.</p></section>`
const files = {
  'index.html': `<!doctype html><html lang="en"><title>Harbour</title><header><nav><a href="#boats">Boats</a> <a href="#tides">Tides</a> <a href="#prices">Prices</a></nav></header><main>${part('boats', 'Boats')}<p><a href="#">Buy now</a> <a href="#boats"><svg aria-hidden="true" width="20" height="20"></svg></a> <a href="mailto:desk@ostrey.example">Write</a></p>${part('tides', 'Tides')}</main></html>`,
  'shop/things.html': `<!doctype html><html lang="en"><title>Shop</title><main>${part('ropes', 'Ropes')}<p><a href="../index.html#tides">by the tides</a></p>${part('prices', 'Prices')}</main></html>`,
}
const site = () =>
  zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [`site/${name}`, new TextEncoder().encode(text)])))

const openPage = async (page: Page, file: string) => {
  await page.getByLabel('Page', { exact: true }).selectOption(file)
  await measured(page)
}
/** By keyboard alone. */
async function lead(page: Page, item: string, query: string, steps = 0): Promise<void> {
  await page.getByLabel(`Target of ${item}`).focus()
  await page.keyboard.press('Enter')
  await page.getByLabel(`Find a target for ${item}`).fill(query)
  for (let i = 0; i < steps; i++) await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
}
const anchors = (html: string) => [...html.matchAll(/<a[^>]*>/g)].map((m) => m[0])

test.describe('menus', () => {
  test('an item leads to a section, another page, its section, or outside; never to nothing', async ({ page, server }) => {
    await bringIn(page, server, [{ name: 'site.zip', mimeType: 'application/zip', buffer: Buffer.from(site()) }])
    await setUp(page)
    await openPage(page, 'shop/things.html')
    await setUp(page)
    await openPage(page, 'index.html')
    await task(page, 'Menus')
    const link = (n: number) => liveFrame(page).locator('nav a').nth(n)

    await test.step('a hash of another page leads there after one press', async () => {
      await page.getByRole('button', { name: /findings?/ }).click()
      await page.getByRole('button', { name: 'Link to “shop/things.html#prices”', exact: true }).click()
      await expect(link(2)).toHaveAttribute('href', 'shop/things.html#prices')
      await page.keyboard.press('Escape')
    })

    await test.step('chosen by part of a name, an ID or a number', async () => {
      await lead(page, 'item Boats', 'ropes')
      await expect(link(0)).toHaveAttribute('href', 'shop/things.html#ropes')
      await lead(page, 'item Tides', 'things.html')
      await expect(link(1)).toHaveAttribute('href', 'shop/things.html')
      await expect(page.getByLabel('Target of item Tides')).toBeFocused()
      await lead(page, 'item Boats', '2')
      await expect(link(0)).toHaveAttribute('href', '#tides')
      await lead(page, 'item Boats', 'ropes')
    })

    await test.step('a thread’s end is dragged to a band', async () => {
      const centre = async (of: string) => {
        const box = (await page.locator(of).boundingBox())!
        return [box.x + box.width / 2, box.y + box.height / 2] as const
      }
      const row = page.locator('[data-item]').first()
      const end = `[data-thread-end="${await row.getAttribute('data-item')}"]`
      await page.mouse.move(...(await centre(end)))
      await page.mouse.down()
      await page.mouse.move(...(await centre('[data-band][title="Tides"]')), { steps: 5 })
      await page.keyboard.press('Escape')
      await page.mouse.up()
      await expect(link(0)).toHaveAttribute('href', 'shop/things.html#ropes')
      await page.mouse.move(...(await centre(end)))
      await page.mouse.down()
      await page.mouse.move(...(await centre('[data-band][title="Tides"]')), { steps: 5 })
      await page.mouse.up()
      await expect(link(0)).toHaveAttribute('href', '#tides')
      await lead(page, 'item Boats', 'ropes')
    })

    await test.step('an address is understood, and a bad one isn’t taken', async () => {
      await lead(page, 'item Tides', 'www.ostrey.example/tides')
      await expect(link(1)).toHaveAttribute('href', 'https://www.ostrey.example/tides')
      await page.getByLabel('new tab').check()
      await expect(link(1)).toHaveAttribute('target', '_blank')
      await expect(link(1)).toHaveAttribute('rel', 'noopener')
      await page.getByLabel('Target of item Tides').click()
      const find = page.getByLabel('Find a target for item Tides')
      await find.fill('javascript:alert(1)')
      await expect(page.getByRole('option')).toContainText(['isn’t allowed'])
      const axe = await new AxeBuilder({ page }).exclude('iframe').analyze()
      expect(axe.violations.map((v) => v.id)).toEqual([])
      await find.press('Enter')
      await expect(find).toBeVisible()
      await find.press('Escape')
      await expect(link(1)).toHaveAttribute('href', 'https://www.ostrey.example/tides')
    })

    await test.step('a link to another page opens it in the live page, at its target', async () => {
      await link(2).dispatchEvent('click')
      await expect(page.getByLabel('Page', { exact: true }).locator('option:checked')).toHaveText('shop/things.html')
      const top = () =>
        liveFrame(page)
          .locator('#prices')
          .evaluate((el) => [Math.round(scrollY) > 0, el.getBoundingClientRect().top < innerHeight / 2])
      await expect.poll(top).toEqual([true, true])
      await openPage(page, 'index.html')
    })

    await test.step('an item’s properties are on its link, and can be removed', async () => {
      await page.getByRole('button', { name: 'More of item Boats' }).click()
      const say = async (what: string, text: string) => {
        await page.getByLabel(`${what} of item Boats`).fill(text)
        await page.keyboard.press('Enter')
      }
      await say('Tooltip', 'All that "float" & sail')
      await expect(link(0)).toHaveAttribute('title', 'All that "float" & sail')
      await say('Language', 'english, please')
      await expect(page.getByText('Enter a language tag')).toBeVisible()
      await say('Language', 'en-GB')
      await expect(link(0)).toHaveAttribute('lang', 'en-GB')
      await say('Tooltip', '')
      await say('Language', '')
      await expect(link(0)).not.toHaveAttribute('title')
      await expect(link(0)).not.toHaveAttribute('lang')
    })

    await test.step('links on the page get sections, and show them', async () => {
      const links = page.getByRole('region', { name: 'Links on the page' })
      const shown = links.locator('[data-link]')
      await expect(shown).toHaveCount(3)
      await page.getByLabel('Show links').selectOption('Broken (1)')
      await expect(shown).toHaveText([/Buy now.*by 1 Boats/])
      await lead(page, 'link Buy now', 'tides')
      await expect(links.getByText('None of this kind.')).toBeVisible()
      await expect(liveFrame(page).locator('main a').first()).toHaveAttribute('href', '#tides')
      await page.getByLabel('Show links').selectOption('To sections (2)')
      await lead(page, 'link a link without words', 'prices')
      await page.getByLabel('Show links').selectOption('Elsewhere (2)')
      await shown.first().getByRole('button', { name: 'a link without words', exact: true }).click()
      await expect(page.getByLabel('Target of link a link without words')).toHaveText('shop/things.html: Prices')
    })

    await test.step('coverage shows all links by section, and leads to the rows', async () => {
      await page.getByRole('button', { name: 'Coverage' }).click()
      const dialog = page.getByRole('dialog', { name: 'Coverage' })
      await expect(dialog).toContainText('1 section is not linked from anywhere: Boats.')
      await dialog.getByRole('columnheader', { name: 'shop/things.html' }).waitFor()
      expect(await dialog.getByRole('row').allInnerTexts()).toEqual([
        expect.stringMatching(/^Section\s+Header menu\s+Links on the page\s+shop\/things.html\s+All$/),
        expect.stringMatching(/^Top of the page\s+0$/),
        expect.stringMatching(/^1\s*Boats\s+nowhere$/),
        expect.stringMatching(/^2\s*Tides\s+1\s+1\s+2$/),
      ])
      const axe = await new AxeBuilder({ page }).exclude('iframe').analyze()
      expect(axe.violations.map((v) => v.id)).toEqual([])
      const [file] = await Promise.all([page.waitForEvent('download'), dialog.getByRole('button', { name: 'Download as CSV' }).click()])
      expect(readFileSync(await file.path(), 'utf8').split('\n')).toContain('2,Tides,tides,0,1,1,2')
      await dialog.getByRole('button', { name: '1 from Links on the page to Tides: go to it' }).click()
      await expect(page.getByLabel('Target of link Buy now')).toBeFocused()
      await page.getByRole('button', { name: 'Coverage' }).click()
      await dialog.getByRole('button', { name: '1 from shop/things.html to Tides: go to it' }).click()
      await expect(page.getByLabel('Target of link by the tides')).toBeFocused()
      await openPage(page, 'index.html')
    })

    await test.step('everything is handed over, and follows changes of the other page', async () => {
      const handed = () => takeHome(page).then((path) => anchors(readFileSync(path, 'utf8')))
      const rest = ['<a target="_blank" rel="noopener" href="https://www.ostrey.example/tides">', '<a href="shop/things.html#prices">']
      const loose = ['<a href="#tides">', '<a href="shop/things.html#prices">', '<a href="mailto:desk@ostrey.example">']
      expect(await handed()).toEqual(['<a href="shop/things.html#ropes">', ...rest, ...loose])
      await openPage(page, 'shop/things.html')
      await task(page, 'Sections')
      await setId(page, 1, 'lines')
      await stored(page)
      await page.getByRole('button', { name: 'More for section Prices' }).click()
      await page.getByRole('menuitem', { name: 'Remove section Prices' }).click()
      const question = page.getByRole('dialog', { name: 'Remove “Prices”' })
      await expect(question).toContainText('3 links lead there: “Prices” on index.html, a link on the page on index.html, “Prices”.')
      await question.getByRole('radio', { name: 'They lead to the top of the page' }).check()
      await question.getByRole('button', { name: 'Remove it' }).click()
      await stored(page)
      await openPage(page, 'index.html')
      expect((await handed()).filter((tag) => tag.includes('"shop/things.html"'))).toHaveLength(2)
      await page.keyboard.press('Control+z')
      await stored(page)
      expect(await handed()).toContain(rest[1])
      await openPage(page, 'shop/things.html')
      await task(page, 'Sections')
      await page.getByRole('button', { name: 'More for section Prices' }).click()
      await page.getByRole('menuitem', { name: 'Remove section Prices' }).click()
      await page.keyboard.press('Enter')
      await stored(page)
      await openPage(page, 'index.html')
      expect(await handed()).toEqual([
        '<a href="shop/things.html#lines">',
        rest[0],
        '<a href="#prices">',
        loose[0],
        '<a href="#boats">',
        loose[2],
      ])
      await page.keyboard.press('Control+z')
      await stored(page)
      expect(await handed()).toEqual(['<a href="shop/things.html#lines">', ...rest, ...loose])
    })
  })

  test('links broken in the same way are fixed in one step, and can use the site’s full address', async ({ page, server }) => {
    const broken = {
      ...files,
      'index.html': files['index.html'].replace('<a href="#tides">Tides</a>', '<a href="#ropes">Ropes</a>'),
    }
    const zip = zipSync(Object.fromEntries(Object.entries(broken).map(([name, text]) => [`site/${name}`, new TextEncoder().encode(text)])))
    await bringIn(page, server, [{ name: 'site.zip', mimeType: 'application/zip', buffer: Buffer.from(zip) }])
    await setUp(page)
    await openPage(page, 'shop/things.html')
    await setUp(page)
    await openPage(page, 'index.html')
    await page.getByRole('button', { name: /findings?/ }).click()
    await page.getByRole('button', { name: 'All 2 of this kind' }).click()
    const hrefs = () =>
      liveFrame(page)
        .locator('nav a')
        .evaluateAll((all) => all.map((a) => a.getAttribute('href')))
    await expect.poll(hrefs).toEqual(['#boats', 'shop/things.html#ropes', 'shop/things.html#prices'])
    await page.keyboard.press('Escape')
    await task(page, 'Menus')
    const pick = async (what: string) => {
      await page.getByRole('button', { name: 'Pick on the page' }).click()
      await liveFrame(page).locator(what).first().dispatchEvent('click')
    }
    // The pressed element is inside the link.
    await pick('p svg')
    await expect(page.getByLabel(/^Target of link a link without words/)).toBeFocused()
    await pick('nav a:nth-child(2)')
    await expect(page.getByLabel(/^Target of item Ropes/)).toBeFocused()
    await test.step('other elements can become links, or are refused with the reason', async () => {
      const part = page.getByRole('group', { name: 'Picked part' })
      const lead = async (what: string) => {
        await part.getByRole('button', { name: /^Target of link/ }).click()
        await page.getByLabel(/^Find a target/).fill(what)
        await page.keyboard.press('Enter')
        await expect(part).toBeHidden()
      }
      await pick('main')
      await expect(part).toContainText('which a link can’t wrap')
      await page.getByRole('button', { name: 'Stop picking' }).click()
      await liveFrame(page)
        .locator('#boats p')
        .first()
        .evaluate((p) => p.append(' written late'))
      await pick('#boats p')
      await part.getByLabel('Words', { exact: true }).fill('no such')
      await expect(part).toContainText('These words aren’t in one piece')
      await part.getByLabel('Words', { exact: true }).fill('of')
      await expect(part.getByRole('button', { name: /^Target of link/ })).toBeVisible()
      await part.getByLabel('Words', { exact: true }).fill('written late')
      await expect(part).toContainText('A page script writes these words')
      await expect(part.getByRole('button', { name: /^Target of link/ })).toBeHidden()
      await part.getByLabel('Words', { exact: true }).fill('of')
      await lead('boats')
      await expect(liveFrame(page).locator('#boats p a[href="#boats"]').first()).toHaveText('of')
      await pick('#boats h2')
      await lead('top')
      await expect(liveFrame(page).locator('#boats a:has(> h2)')).toHaveAttribute('href', '#')
      await page.getByRole('button', { name: 'No link: of' }).click()
      await expect(liveFrame(page).locator('#boats p a[href="#boats"]')).toHaveCount(0)
    })
    await test.step('states of a found menu are styled, and the rest stays the page’s', async () => {
      await page.getByRole('button', { name: 'Look of Header menu' }).click()
      const look = page.getByRole('group', { name: 'Look of Header menu' })
      await expect(look.getByLabel('Background of Header menu')).toHaveCount(0)
      await look.getByRole('radio', { name: /^Current/ }).click()
      await look.getByLabel('Weight of an item current').selectOption('Bold')
      await look.getByLabel('Mark of an item current').selectOption('Half dome')
      await liveFrame(page)
        .locator('nav a')
        .first()
        .evaluate((a) => a.ownerDocument.defaultView!.scrollTo(0, 300))
      const current = liveFrame(page).locator('nav a[aria-current="true"]')
      await expect(current).toHaveCSS('font-weight', '700')
      await expect(current).toHaveCSS('text-decoration-line', 'underline')
      await expect(liveFrame(page).locator('nav a:not([aria-current])').first()).toHaveCSS('font-weight', '400')
    })
    await task(page, 'Handover')
    const field = page.getByLabel('Address of the site')
    await field.fill('ostrey.example')
    await page.keyboard.press('Enter')
    await expect(page.getByText('Type a full address')).toBeVisible()
    await field.fill('https://ostrey.example/week/index.html')
    await page.keyboard.press('Enter')
    await expect(field).toHaveValue('https://ostrey.example/week/')
    await page.getByLabel('Full addresses between pages').check()
    const home = readFileSync(await takeHome(page), 'utf8')
    expect(anchors(home).slice(0, 3)).toEqual([
      '<a href="#boats">',
      '<a href="https://ostrey.example/week/shop/things.html#ropes">',
      '<a href="https://ostrey.example/week/shop/things.html#prices">',
    ])
  })
})
