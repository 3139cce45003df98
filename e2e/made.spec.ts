/** Made menus in the application and for visitors, with and without script, on wide and narrow screens. */
import { expect, type Browser, type Page } from '@playwright/test'
import AxeBuilder from '@axe-core/playwright'
import { readFileSync } from 'node:fs'
import { pathToFileURL } from 'node:url'
import { zipSync } from 'fflate'
import { atRest, scrollTo } from './support/boxes.ts'
import { liveFrame, measured, Server, setUp, task } from './support/server.ts'
import { freshFolder } from './support/cli.ts'
import { bringIn, takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'

const part = (id: string, title: string) => `<section id="${id}"><h2>${title}</h2><p style="height:900px">Words of it.</p></section>`
const head = (title: string) =>
  `<!doctype html><html lang="en"><meta name=viewport content="width=device-width"><title>${title}</title><style>body{margin:0;font:16px/1.5 sans-serif}section{padding:20px}nav li::before{content:"> "}ul{margin:30px}a{color:red}</style>`
const files = {
  'index.html': `${head('Walk')}<header><h1>Walk</h1></header><main>${part('gate', 'Gate')}${part('pond', 'Pond')}${part('mill', 'Mill')}${part('inn', 'Inn')}</main></html>`,
  'more/maps.html': `${head('Maps')}<main>${part('north', 'North')}${part('south', 'South')}</main></html>`,
}
const site = () =>
  zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [`site/${name}`, new TextEncoder().encode(text)])))

const openPage = async (page: Page, file: string) => {
  await page.getByRole('banner').getByLabel('Page', { exact: true }).selectOption(file)
  await measured(page)
}
const make = async (page: Page, form: string, items?: string) => {
  await page.getByRole('button', { name: 'Make a menu' }).click()
  if (items) await page.getByLabel('Items', { exact: true }).selectOption({ label: items })
  await page.getByRole('button', { name: form }).click()
}
const choose = (page: Page, menu: string, name: string, option: string) =>
  page
    .getByRole('group', { name: `Form of ${menu}` })
    .getByLabel(name, { exact: true })
    .selectOption({ label: option })
const nav = (page: Page, name: string) => liveFrame(page).locator(`nav[aria-label="${name}"]`)

test.describe('made menus', () => {
  test('are made in a form, nested, synced, and put on other pages', async ({ page, browser, server }) => {
    await bringIn(page, server, [{ name: 'site.zip', mimeType: 'application/zip', buffer: Buffer.from(site()) }])
    await page.getByRole('button', { name: 'Set up all 2 pages' }).click()
    await openPage(page, 'more/maps.html')
    await expect(page.getByLabel(/^Title of section/)).toHaveCount(2)
    await openPage(page, 'index.html')
    await task(page, 'Menus')

    await test.step('a group opens its nested items', async () => {
      await page.getByRole('button', { name: 'Add a group' }).click()
      const label = page.getByLabel('Label of item New group')
      await label.press('Alt+ArrowUp')
      await expect(nav(page, 'Sections').locator('li')).toHaveText(['Gate', 'Pond', 'Mill', 'Inn'])
      await page.getByLabel('Label of item Inn').press('Alt+ArrowRight')
      const group = nav(page, 'Sections').locator('details.wb-group')
      await expect(group.locator('summary')).toHaveText('New group')
      await expect(group.locator('li a')).toHaveAttribute('href', '#inn')
      await label.fill('Rest <&> "food"')
      await label.press('Enter')
      await expect(group.locator('summary')).toHaveText('Rest <&> "food"')
    })

    await test.step('a second menu has the same items, in its own form and with its own labels', async () => {
      await make(page, 'Marks at a side', 'Synced with “Sections”')
      await page.getByRole('button', { name: 'Form of Sections 2' }).click()
      await choose(page, 'Sections 2', 'Visible from', '2 Pond')
      await choose(page, 'Sections 2', 'Labels', 'All, on hover or focus')
      await choose(page, 'Sections 2', 'Items not reached', 'Disabled until reached, per visit')
      const marks = nav(page, 'Sections 2')
      await expect(marks.locator('a')).toHaveText(['Gate', 'Pond', 'Mill', 'Inn'])
      const own = page.getByRole('list', { name: 'Items of Sections 2' }).getByLabel('Label of item Mill')
      await own.fill('The mill')
      await own.press('Enter')
      await expect(marks.locator('a').nth(2)).toHaveText('The mill')
      const first = page.getByRole('list', { name: 'Items of Sections', exact: true })
      await first.getByLabel('Label of item Gate').press('Alt+ArrowDown')
      await expect(marks.locator('a')).toHaveText(['Pond', 'Gate', 'The mill', 'Inn'])
      await page.getByRole('button', { name: /^Undo/ }).click()
      await expect(marks.locator('a')).toHaveText(['Gate', 'Pond', 'The mill', 'Inn'])
      const axe = await new AxeBuilder({ page }).exclude('iframe').analyze()
      expect(axe.violations.map((v) => v.id)).toEqual([])
    })

    await test.step('a rail has its place, and goes to other pages with its targets', async () => {
      await make(page, 'Rail at a side')
      await page.getByRole('button', { name: 'Form of Sections 3' }).click()
      const form = page.getByRole('group', { name: 'Form of Sections 3' })
      await form.getByLabel('Name of menu Sections 3').fill('Stations')
      await page.keyboard.press('Enter')
      const room = () =>
        liveFrame(page)
          .locator('body')
          .evaluate((body) => getComputedStyle(body).paddingLeft)
      await expect.poll(room).toBe('232px')
      await choose(page, 'Stations', 'Stands', 'Over the page')
      await expect.poll(room).toBe('0px')
      await page.getByRole('group', { name: 'Form of Stations' }).getByRole('button', { name: 'Take it to other pages' }).click()
      await page.getByLabel('more/maps.html').check()
      await page.getByRole('button', { name: 'Take it there' }).click()
      await openPage(page, 'more/maps.html')
      await expect(nav(page, 'Stations').locator('a').nth(1)).toHaveAttribute('href', '../index.html#pond')
      await page.getByRole('button', { name: 'Stop syncing' }).click()
      await expect(page.getByLabel('Label of item Pond')).toBeVisible()
      await openPage(page, 'index.html')
    })

    await test.step('step links are under sections, and a corner link leads back to the top', async () => {
      await make(page, 'Steps under sections', 'Synced with “Sections”')
      await expect(liveFrame(page).locator('#pond > p:last-child a')).toHaveAttribute('href', '#mill')
      await make(page, 'Pinned in a corner')
      await expect(nav(page, 'Back to top').locator('a')).toHaveAttribute('href', '#')
      const notIn = page.getByRole('region', { name: 'Back to top' }).getByText('Not in this menu')
      await expect(notIn).toHaveCount(0)
      await page.getByRole('button', { name: 'Form of Back to top' }).click()
      await choose(page, 'Back to top', 'Visible from', 'Top of the page')
      const after = page.getByLabel('Visible after scrolling')
      await after.fill('1500')
      await after.press('Enter')
      for (const [y, isSeen] of [
        [1400, false],
        [1600, true],
        [1480, false],
        [1500, true],
        [0, false],
      ] as const) {
        await liveFrame(page)
          .locator('html')
          .evaluate((_, y) => window.scrollTo({ top: y, behavior: 'instant' }), y)
        await expect(nav(page, 'Back to top')).toBeVisible({ visible: isSeen })
      }
      await page.getByRole('button', { name: 'Form of Back to top' }).click()
    })

    await test.step('every menu link is tried: a rail over headings is reported, and fixed by one press', async () => {
      await page
        .getByTestId('tried')
        .getByText(/links tried on/)
        .waitFor()
      await page
        .getByRole('button', { name: /finding/ })
        .first()
        .click()
      await page.getByText(/The menu “Stations” covers the targets of .* \(on “Laptop”\)/).waitFor()
      await page.getByRole('button', { name: 'Put it beside the page' }).click()
      await page.keyboard.press('Escape')
      await expect(page.getByTestId('tried')).toHaveText(/^\d+ links tried on 2 screens, all arrive$/)
      // In five menus: the step links without the first.
      const links = await liveFrame(page).locator('[data-wb-made] a[href^="#"]').count()
      await expect(page.getByTestId('tried')).toHaveText(new RegExp(`^${links} links tried`))
    })

    await test.step('nothing remains of a removed one', async () => {
      await page.getByRole('button', { name: 'Remove menu Stations' }).click()
      await expect(nav(page, 'Stations')).toHaveCount(0)
    })

    const home = await takeHome(page)
    await test.step('a visitor has them with the script', () => withScript(browser, home))
    await test.step('and without', () => withoutScript(browser, home))
    await test.step('brought in again they’re the same', async () => {
      await bringIn(page, server, home)
      await setUp(page)
      await task(page, 'Menus')
      await expect(page.getByRole('button', { name: 'Form of Sections', exact: true })).toBeVisible()
      const again = readFileSync(await takeHome(page), 'utf8')
      const navs = (html: string) => html.match(/<nav[^]*?<\/nav>/g)
      expect(navs(again)).toEqual(navs(readFileSync(home, 'utf8')))
    })
  })

  test('looks apply in the live page, and their contrast matches the pixels over ten backgrounds', async ({ page, browser, server }) => {
    const grounds = [
      '#ffffff',
      'linear-gradient(#303040, #101020 5%)',
      '#7a7a7a',
      '#ffe9c9',
      '#204060',
      '#c04040',
      '#e0ffe0',
      '#556b2f',
      '#800080',
      '#f4f0e8',
    ]
    const sections = grounds.map(
      (g, n) => `<section id="s${n}" style="background:${g}"><h2>Ground ${n}</h2><p style="height:900px"></p></section>`,
    )
    const html = `${head('Grounds')}<style>body{color:#222}header{position:fixed;top:0;left:0;right:0;height:40px;background:#ddd}</style><header>Grounds</header><main>${sections.join('')}</main></html>`
    await bringIn(page, server, [{ name: 'index.html', mimeType: 'text/html', buffer: Buffer.from(html) }])
    await setUp(page)
    await task(page, 'Menus')
    await page.getByRole('button', { name: 'Remove menu Sections' }).click()
    await make(page, 'Rail at a side')
    await page.getByRole('button', { name: 'Form of Sections' }).click()
    await choose(page, 'Sections', 'Stands', 'Over the page')
    await page.getByRole('button', { name: 'Look of Sections' }).click()
    const look = page.getByRole('group', { name: 'Look of Sections' })
    await look.getByRole('button', { name: 'Domed' }).click()
    await look.getByLabel('Text of Sections').fill('#102040')
    await look.getByLabel('Background of Sections').fill('#f0f0ff')
    const opacity = async (percent: string) => {
      await look.getByRole('spinbutton', { name: 'Opacity' }).first().fill(percent)
      await page.keyboard.press('Enter')
    }
    await opacity('35')
    const styleOf = (property: string) =>
      nav(page, 'Sections').evaluate((el, name) => getComputedStyle(el).getPropertyValue(name), property)
    await expect.poll(() => styleOf('background-color')).toBe('rgba(240, 240, 255, 0.35)')
    const current = nav(page, 'Sections').locator('a[aria-current="true"]')
    await expect.poll(() => current.evaluate((el) => getComputedStyle(el).backgroundImage)).toContain('radial-gradient')
    const said = async () => {
      const name = await look.getByRole('radio', { name: /^Normal/ }).getAttribute('aria-label')
      return Number(/contrast ([\d.]+) to 1/.exec(name!)![1])
    }
    // The strip agrees, and a state is shown in the live page.
    await expect(look.getByRole('img', { name: /^Contrast of an item current over the page/ })).toBeVisible()
    await look.getByText('As a table').click()
    await expect(look.getByRole('row', { name: /Ground 1/ })).toContainText(/\d\.\d\d/)
    await expect(page.locator('[data-contrast]')).not.toHaveCount(0)
    await look.getByLabel('show in live page').check()
    const other = nav(page, 'Sections').locator('a:not([aria-current])').first()
    await expect.poll(() => other.evaluate((el) => getComputedStyle(el).backgroundImage)).toContain('radial-gradient')
    await look.getByLabel('show in live page').uncheck()
    await expect.poll(() => other.evaluate((el) => getComputedStyle(el).backgroundImage)).toBe('none')
    const axe = await new AxeBuilder({ page }).exclude('iframe').analyze()
    expect(axe.violations.map((v) => v.id)).toEqual([])
    // Chosen by keys.
    await look.getByRole('radio', { name: /^Current/ }).focus()
    await page.keyboard.press('ArrowRight')
    await expect(look.getByRole('radio', { name: /^Hovered/ })).toBeChecked()
    const measuredOf = async () => leastRatio(browser, await takeHome(page), grounds.length, [16, 32, 64])
    const least = await said()
    expect(Math.abs(least - (await measuredOf()))).toBeLessThanOrEqual(0.1)
    expect(least).toBeLessThan(4.5)
    // The lowest readable opacity is one press away, and the pixels confirm it.
    await page
      .getByRole('button', { name: /finding/ })
      .first()
      .click()
    await page
      .getByRole('button', { name: /^Make (its )?background \d+ % opaque$/ })
      .first()
      .click()
    await page.keyboard.press('Escape')
    await task(page, 'Menus')
    expect(await measuredOf()).toBeGreaterThan(4.45)

    // Behind a button on small screens only.
    await task(page, 'Menus')
    await page.getByRole('button', { name: 'Form of Sections' }).click()
    await choose(page, 'Sections', 'Form', 'Bar at the top')
    await choose(page, 'Sections', 'Small screens', 'Folds behind a button')
    const home = await takeHome(page)
    for (const javaScriptEnabled of [true, false])
      for (const width of [1280, 390]) {
        const context = await browser.newContext({ viewport: { width, height: 800 }, javaScriptEnabled })
        const visitor = await context.newPage()
        await visitor.goto(pathToFileURL(home).href)
        const [link, button] = [visitor.getByRole('link', { name: 'Ground 3' }), visitor.locator('summary')]
        if (width > 640) await expect(button).toBeHidden()
        else {
          await expect(link).toBeHidden()
          await button.click()
        }
        await link.click()
        await expect(visitor).toHaveURL(/#s3$/)
        await context.close()
      }

    // On a screen without it, it covers nothing.
    await task(page, 'Menus')
    await page.getByRole('button', { name: 'Form of Sections' }).click()
    await page.getByRole('group', { name: 'Screens of Sections' }).getByLabel('Phone').uncheck()
    const off = await takeHome(page)
    for (const [width, covered] of [
      [1280, '88px'],
      [390, '40px'],
    ] as const) {
      const context = await browser.newContext({ viewport: { width, height: 800 } })
      const visitor = await context.newPage()
      await visitor.goto(pathToFileURL(off).href)
      const said = () => visitor.evaluate(() => getComputedStyle(document.documentElement).getPropertyValue('--wb-header').trim())
      await expect.poll(said).toBe(covered)
      await context.close()
    }
  })

  test('the demo’s are there from the first run, and lead where they should', async ({ page }) => {
    const first = await new Server(freshFolder(), true).start()
    try {
      await page.goto(first.address)
      await page.getByRole('link', { name: /Ostrey Sky Week/ }).click()
      await measured(page)
      await task(page, 'Menus')
      await expect(nav(page, 'Foot of the page').locator('a')).toHaveText(await liveFrame(page).locator('.bar nav a').allTextContents())
      await expect(liveFrame(page, 'phone').locator('[data-wb="step"] a').first()).toHaveAttribute('href', '#programme')

      await openPage(page, 'travel.html')
      await expect(nav(page, 'Foot of the page').locator('a').first()).toHaveAttribute('href', 'index.html#programme')

      await openPage(page, 'lantern-walk.html')
      await expect(page.getByTestId('tried')).toHaveText(/^\d+ links tried on 5 screens, all arrive$/)
      await expect(page.getByText('No findings')).toBeVisible()
      const open = nav(page, 'Stations').locator('a:not([aria-disabled])')
      expect(await open.count()).toBeLessThan(8)
      await liveFrame(page)
        .locator('html')
        .evaluate((html) => (html.scrollTop = 1e6))
      await expect(open).toHaveCount(8)
    } finally {
      await first.stop()
    }
  })
})

async function withScript(browser: Browser, home: string): Promise<void> {
  for (const viewport of [
    { width: 1280, height: 800 },
    { width: 390, height: 844 },
  ]) {
    const context = await browser.newContext({ viewport })
    const page = await context.newPage()
    // Chromium 156 may lose session storage of a reloaded file page on a busy machine; over HTTP it doesn't.
    await page.route('http://visit.test/', (route) => route.fulfill({ path: home }))
    await page.goto('http://visit.test/')
    const marks = page.locator('nav[aria-label="Sections 2"]')
    await expect(marks).toBeHidden()
    await scrollTo(page, 1300)
    await expect(marks).toBeVisible()
    await expect(marks.getByRole('link', { name: 'Pond' })).toHaveAttribute('aria-current', 'true')
    const mill = marks.locator('a').nth(2)
    await expect(mill).toHaveAttribute('aria-disabled', 'true')
    await expect(mill).toHaveAttribute('tabindex', '-1')
    await mill.click({ force: true })
    await atRest(page)
    expect(new URL(page.url()).hash).toBe('')
    await scrollTo(page, 2400)
    await scrollTo(page, 1300)
    await expect(mill).not.toHaveAttribute('aria-disabled')
    await page.reload()
    await expect(mill).not.toHaveAttribute('tabindex')
    await expect(marks.locator('a').nth(3)).toHaveAttribute('aria-disabled', 'true')
    await page.locator('#pond > p[data-wb="step"] a').click()
    await atRest(page)
    expect(new URL(page.url()).hash).toBe('#mill')
    await page.locator('nav[aria-label="Back to top"] a').click()
    await atRest(page)
    expect(await page.evaluate(() => scrollY)).toBe(0)
    await expect(page.locator('nav[aria-label="Back to top"]')).toBeHidden()
    await scrollTo(page, 1300)
    const opener = page.locator('summary')
    const inn = page.locator('nav[aria-label="Sections"]').getByRole('link', { name: 'Inn' })
    await opener.focus()
    await expect(inn).toBeHidden()
    await page.keyboard.press('Enter')
    await expect(inn).toBeVisible()
    expect((await new AxeBuilder({ page }).analyze()).violations.map((v) => v.id)).toEqual([])
    await page.keyboard.press('Tab')
    await expect(inn).toBeFocused()
    await page.keyboard.press('Escape')
    await expect(inn).toBeHidden()
    await expect(opener).toBeFocused()
    await opener.click()
    await page.mouse.click(viewport.width / 2, 600)
    await expect(inn).toBeHidden()
    await opener.click()
    await inn.click()
    await atRest(page)
    await expect(inn).toBeHidden()
    expect(new URL(page.url()).hash).toBe('#inn')
    // The opener of the current item's list is marked.
    await expect(opener).toHaveAttribute('data-wb-within')
    // The page's list and link styles are kept out.
    const entry = page.locator('nav[aria-label="Sections"] li').first()
    expect(await entry.evaluate((li) => getComputedStyle(li, '::before').content)).toBe('none')
    await page.emulateMedia({ media: 'print' })
    await expect(marks).toBeHidden()
    await context.close()
  }
}

async function withoutScript(browser: Browser, home: string): Promise<void> {
  const context = await browser.newContext({ javaScriptEnabled: false, viewport: { width: 1280, height: 800 } })
  const page = await context.newPage()
  await page.goto(pathToFileURL(home).href)
  await expect(page.locator('nav[aria-label="Sections 2"]')).toBeVisible()
  await expect(page.locator('[aria-disabled]')).toHaveCount(0)
  await page.locator('summary').click()
  await page.locator('nav[aria-label="Sections"]').getByRole('link', { name: 'Inn' }).click()
  await expect(page).toHaveURL(/#inn$/)
  await context.close()
}

/** The lowest contrast of text in this colour with the pixels behind a rail's edge, over each section. @see WCAG 2.2, relative luminance */
async function leastRatio(browser: Browser, home: string, sections: number, ink: readonly number[]): Promise<number> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.goto(pathToFileURL(home).href)
  const luminance = (c: readonly number[]) =>
    c.reduce(
      (sum, v, i) => sum + (v / 255 <= 0.04045 ? v / 255 / 12.92 : ((v / 255 + 0.055) / 1.055) ** 2.4) * [0.2126, 0.7152, 0.0722][i]!,
      0,
    )
  let least = Infinity
  for (let n = 0; n < sections; n++) {
    const box = (await page.locator('nav[aria-label="Sections"]').boundingBox())!
    // Inside the border, beside the text.
    await page.evaluate((id) => document.getElementById(id)!.scrollIntoView({ behavior: 'instant' }), `s${n}`)
    const png = (await page.screenshot({ clip: { x: box.x + 3, y: box.y + 3, width: 2, height: 2 } })).toString('base64')
    const behind = await page.evaluate(async (data) => {
      const bytes = Uint8Array.from(atob(data), (c) => c.charCodeAt(0))
      const canvas = new OffscreenCanvas(2, 2).getContext('2d')!
      canvas.drawImage(await createImageBitmap(new Blob([bytes], { type: 'image/png' })), 0, 0)
      return [...canvas.getImageData(0, 0, 1, 1).data].slice(0, 3)
    }, png)
    const [dark, light] = [luminance(ink), luminance(behind)].sort((a, b) => a - b) as [number, number]
    least = Math.min(least, (light + 0.05) / (dark + 0.05))
  }
  await page.close()
  return least
}
