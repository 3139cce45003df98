/** Synced screens: the one in view large, the others small beside it, at the same place. */
import AxeBuilder from '@axe-core/playwright'
import { expect, type Browser, type Page } from '@playwright/test'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest } from './support/boxes.ts'
import { repository } from './support/cli.ts'
import { liveFrame, measured, openDemo, setUp, task } from './support/server.ts'
import { bringIn, styled, takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'

test.describe('synced screens', () => {
  const at = (page: Page, screen: string) =>
    liveFrame(page, screen)
      .locator('html')
      .evaluate(() => Math.round(scrollY))
  const land = async (page: Page, section: string, screen: string) =>
    Number(await page.locator(`[data-arrival-row="${section}"] [data-screen="${screen}"][data-land]`).getAttribute('data-land'))
  /** A script that scrolls isn't a visitor: the page's own would go on to the followed link. */
  const wheeled = (page: Page, y: number) =>
    liveFrame(page)
      .locator('html')
      .evaluate((html, to) => {
        html.dispatchEvent(new WheelEvent('wheel', { bubbles: true }))
        scrollTo({ top: to, behavior: 'instant' })
      }, y)
  const width = async (page: Page, screen: string) => (await page.locator(`iframe[data-screen="${screen}"]`).boundingBox())!.width

  test('a link followed once is followed on all screens, and scrolling one scrolls all', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    const beside = page.locator('[data-beside="phone"]')

    await test.step('by a link of the page', async () => {
      await liveFrame(page).locator('header a', { hasText: 'Beds' }).first().dispatchEvent('click')
      for (const screen of ['laptop', 'phone']) await expect.poll(() => at(page, screen)).toBe(await land(page, 'beds', screen))
      await expect(beside).toHaveText(/^Phone 24 px$/)
      await expect(liveFrame(page, 'phone').locator('header a[aria-current]')).toHaveText('Beds')
    })

    await test.step('by a row of the sheet, to a section that can’t arrive', async () => {
      await page.locator('[data-arrival-row="contact"] th button').first().click()
      for (const screen of ['laptop', 'phone']) await expect.poll(() => at(page, screen)).toBe(await land(page, 'contact', screen))
      await expect(liveFrame(page, 'phone').locator('header a[aria-current]')).toHaveText('Contact')
    })

    await test.step('by scrolling, at the same fraction between two arrivals', async () => {
      const [from, to] = [await land(page, 'beds', 'laptop'), await land(page, 'tickets', 'laptop')]
      await wheeled(page, (from + to) / 2)
      const [there, next] = [await land(page, 'beds', 'phone'), await land(page, 'tickets', 'phone')]
      await expect.poll(async () => Math.abs((await at(page, 'phone')) - (there + next) / 2)).toBeLessThan(3)
      await wheeled(page, 0)
      await expect.poll(() => at(page, 'phone')).toBe(0)
    })

    await test.step('by scrolling right after an arrival, while another screen may still move', async () => {
      await page.locator('[data-arrival-row="contact"] th button').first().click()
      const to = await land(page, 'contact', 'laptop')
      await liveFrame(page)
        .locator('html')
        .evaluate(async (html, y) => {
          while (Math.abs(scrollY - y) > 1) await new Promise(requestAnimationFrame)
          html.dispatchEvent(new WheelEvent('wheel', { bubbles: true }))
          scrollTo({ top: 0, behavior: 'instant' })
        }, to)
      for (const screen of ['laptop', 'phone']) await expect.poll(() => at(page, screen)).toBe(0)
    })

    await test.step('pressed, it comes into view, and the other stands beside it', async () => {
      expect(await width(page, 'phone')).toBeLessThan(200)
      await beside.click()
      await expect(page.getByRole('radio', { name: /^Phone/ })).toBeChecked()
      await expect(page.locator('[data-beside="laptop"]')).toBeVisible()
      expect(await width(page, 'phone')).toBeGreaterThan(250)
      const [large, small] = [
        (await page.locator('iframe[data-screen="phone"]').boundingBox())!,
        (await page.locator('iframe[data-screen="laptop"]').boundingBox())!,
      ]
      expect(small.x).toBeGreaterThanOrEqual(large.x + large.width)
    })

    await test.step('hidden, it stays hidden, also after a reload', async () => {
      await page.getByRole('checkbox', { name: 'Sync screens' }).uncheck()
      await expect(page.locator('[data-beside]')).toHaveCount(0)
      await page.getByRole('radio', { name: /^Laptop/ }).click()
      await liveFrame(page)
        .locator('html')
        .evaluate(() => scrollTo({ top: 900, behavior: 'instant' }))
      // The header shrinks, and the page with it.
      await expect.poll(() => at(page, 'laptop')).toBeGreaterThan(800)
      expect(await at(page, 'phone')).toBe(0)
      await page.reload()
      await expect(page.getByRole('checkbox', { name: 'Sync screens' })).not.toBeChecked()
    })
  })

  test('are added, changed, ordered and removed, and each is measured', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    const names = () => page.getByRole('radiogroup', { name: 'Screen' }).getByRole('radio').allInnerTexts()
    const dialog = page.getByRole('dialog')
    const open = () => page.getByRole('button', { name: 'Screens', exact: true }).click()
    const done = () => dialog.getByRole('button', { name: 'Done' }).click()

    await test.step('an added one is in view, and its links arrive', async () => {
      await open()
      await dialog.getByRole('button', { name: 'Add Tablet 820×1180' }).click()
      await dialog.getByRole('button', { name: 'Add Phone, landscape 844×390' }).click()
      await expect((await new AxeBuilder({ page }).include('[role="dialog"]').analyze()).violations).toEqual([])
      await done()
      await expect(page.getByRole('radio', { name: 'Phone, landscape 844×390' })).toBeChecked()
      await measured(page)
      for (const screen of ['tablet', 'phone-lying', 'laptop']) {
        const to = await land(page, 'beds', screen)
        const name = { tablet: 'Tablet', 'phone-lying': 'Phone, landscape', laptop: 'Laptop' }[screen]!
        await page.getByRole('button', { name: `Beds, ${name}: 24 px between header and section` }).click()
        await expect(page.getByRole('radio', { name: new RegExp(`^${name}`) })).toBeChecked()
        await expect.poll(() => at(page, screen)).toBe(to)
        const gap = () =>
          liveFrame(page, screen)
            .locator('#beds')
            .evaluate((el) => el.getBoundingClientRect().top - document.querySelector('header')!.getBoundingClientRect().bottom)
        await expect.poll(async () => Math.abs((await gap()) - 24)).toBeLessThanOrEqual(1)
      }
    })

    await test.step('a changed one is measured again; an invalid one stays in its field with the reason', async () => {
      const before = await land(page, 'beds', 'tablet')
      await open()
      const size = dialog.getByLabel('Size of Tablet')
      for (const [typed, why] of [
        ['390x844', '“Phone” is 390×844 already'],
        ['9', 'Enter width × height, such as 390×844'],
        ['100 x 900', 'from 200 to 8000 px'],
      ] as const) {
        await size.fill(typed)
        await expect(dialog.getByRole('alert')).toContainText(why)
      }
      await size.fill('600 x 960')
      await size.press('Enter')
      await dialog.getByLabel('Name of screen 3').fill('Reader')
      await dialog.getByLabel('Name of screen 3').press('Enter')
      await done()
      await measured(page)
      await expect.poll(() => land(page, 'beds', 'tablet')).toBeGreaterThan(before)
      expect(
        await liveFrame(page, 'tablet')
          .locator('html')
          .evaluate(() => [innerWidth, innerHeight]),
      ).toEqual([600, 960])
      await page.getByRole('button', { name: /^Beds, Reader:/ }).click()
      await expect.poll(async () => (await at(page, 'tablet')) - (await land(page, 'beds', 'tablet'))).toBe(0)
    })

    await test.step('are ordered and removed, and restored by undo', async () => {
      await open()
      await dialog.getByRole('button', { name: 'Move Reader up' }).click()
      await dialog.getByRole('button', { name: 'Remove Phone, landscape' }).click()
      await done()
      expect(await names()).toEqual(['Laptop 1280×800', 'Reader 600×960', 'Phone 390×844'])
      await page.keyboard.press('Control+z')
      await measured(page)
      await expect(page.locator('[data-arrival-row="beds"] [data-screen="phone-lying"]')).toHaveText('24')
      await page.keyboard.press('Control+Shift+Z')
      await page.reload()
      await measured(page)
      await expect.poll(names).toEqual(['Laptop 1280×800', 'Reader 600×960', 'Phone 390×844'])
    })

    await test.step('with a window each, the one in view may go', async () => {
      await page.getByRole('radio', { name: /^Phone/ }).click()
      await open()
      for (const name of ['Phone', 'Laptop']) await dialog.getByRole('button', { name: `Remove ${name}` }).click()
      await expect(dialog.getByRole('button', { name: 'Remove Reader' })).toBeDisabled()
      await done()
      await measured(page)
      await expect(page.getByRole('checkbox', { name: 'Sync screens' })).toHaveCount(0)
      await expect(page.locator('[data-arrival-row="beds"] td').first()).toHaveText('24')
    })
  })

  test('added while links are tried, it’s measured like any other', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    const cells = () => page.locator('[data-arrival-row="tickets"] [data-land]').allInnerTexts()
    await expect.poll(cells).toEqual(['24', '24'])
    // In the frame in which the new screen is measured, a link holds its place.
    await page.waitForTimeout(1500)
    await page.getByRole('button', { name: 'Screens', exact: true }).click()
    await page.getByRole('dialog').getByRole('button', { name: 'Add Laptop, large text' }).click()
    await page.getByRole('dialog').getByRole('button', { name: 'Done' }).click()
    await measured(page)
    await expect.poll(cells).toEqual(['24', '24', '24'])
    const covers = await page
      .getByRole('row', { name: /^Header height/ })
      .getByRole('cell')
      .allInnerTexts()
    // It shrank after scrolling, as on the others.
    expect(covers[2]).toBe(covers[0])
  })

  test('changed while links are tried, it’s measured with the header at rest', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    const covers = () =>
      page
        .getByRole('row', { name: /^Header height/ })
        .getByRole('cell')
        .allInnerTexts()
    await expect.poll(async () => (await covers()).slice(0, 2)).toEqual(['56', '84'])
    const field = page.getByLabel('Breathing space between header and section')
    for (let by = 25; by < 30; by++) {
      // The link was followed by then, and the page is further down.
      await page.waitForTimeout(1300 + by * 10)
      await field.fill(String(by))
      await field.press('Enter')
      await expect(page.locator('[data-arrival-row="tickets"] [data-screen="phone"]')).toHaveText(String(by))
      await measured(page)
      expect([by, (await covers()).slice(0, 2)]).toEqual([by, ['56', '84']])
    }
  })

  /** A visitor's browser with another text size. */
  async function visitSet(browser: Browser, url: string, text: number, visit: (visitor: Page) => Promise<void>): Promise<void> {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' })
    const visitor = await context.newPage()
    await (await context.newCDPSession(visitor)).send('Page.setFontSizes', { fontSizes: { standard: (16 * text) / 100 } })
    await visitor.goto(url)
    await atRest(visitor)
    await visit(visitor)
    await context.close()
  }

  for (const [said, css, grows] of [
    ['in percent', '', true],
    ['in px', 'html { font-size: 18px }', false],
  ] as const) {
    test(`have larger text as a visitor may have it, where the page says its own ${said}, and arrivals there are a visitor’s`, async ({
      page,
      browser,
      server,
    }) => {
      await bringIn(page, server, styled(join(repository, 'e2e/pages/letters/index.html'), css))
      await setUp(page)
      await measured(page)
      await task(page, 'Travel')
      const dialog = page.getByRole('dialog')
      const heightOf = (screen: string) =>
        liveFrame(page, screen)
          .locator('header')
          .evaluate((el) => el.getBoundingClientRect().height)
      const usual = await heightOf('laptop')
      await page.getByRole('button', { name: 'Screens', exact: true }).click()
      await dialog.getByRole('button', { name: 'Add Laptop, large text' }).click()
      const text = dialog.getByLabel('Text of Laptop, large text')
      for (const [typed, why] of [
        ['100', '“Laptop” is 1280×800 already'],
        ['210%', 'from 100 to 200%'],
        ['large', 'Enter a percentage'],
      ] as const) {
        await text.fill(typed)
        await expect(dialog.getByRole('alert')).toContainText(why)
      }
      await text.fill('175')
      await text.press('Enter')
      // Screens that larger text depends on can't be removed.
      for (const name of ['Phone', 'Laptop']) await expect(dialog.getByLabel(`Text of ${name}`, { exact: true })).toHaveValue('100%')
      await dialog.getByRole('button', { name: 'Done' }).click()
      await expect(page.getByRole('radio', { name: 'Laptop, large text 1280×800, text 175%' })).toBeChecked()
      await measured(page)
      const key = (await page.locator('[data-arrival-row="loaves"] [data-land]').last().getAttribute('data-screen'))!
      await expect.poll(() => heightOf(key)).toBeCloseTo(grows ? (usual - 1) * 1.75 + 1 : usual, -1)
      // Decisions are for screens with default text.
      await page.getByText('Exceptions by screen').click()
      await expect(page.getByLabel('On Laptop, large text')).toHaveCount(0)

      await page.getByRole('button', { name: /^Loaves, Laptop, large text: 24 px/ }).click()
      await expect.poll(() => at(page, key)).toBe(await land(page, 'loaves', key))
      const lands = Object.fromEntries(
        await Promise.all(['oven', 'loaves', 'mornings', 'visit'].map(async (id) => [id, await land(page, id, key)] as const)),
      )
      const url = pathToFileURL(await takeHome(page)).href
      await visitSet(browser, url, 175, async (visitor) => {
        for (const [id, to] of Object.entries(lands)) {
          await visitor.locator(`header a[href="#${id}"]`).click()
          await atRest(visitor)
          expect([id, Math.abs((await visitor.evaluate(() => scrollY)) - to) <= 1]).toEqual([id, true])
        }
      })
      await page.reload()
      await task(page, 'Travel')
      await measured(page)
      expect(await land(page, 'loaves', key)).toBe(lands['loaves'])
    })
  }
})
