/** Offsets of single sections: computed, in the live page, and for a visitor, with and without script. */
import AxeBuilder from '@axe-core/playwright'
import { expect, type Browser, type Page } from '@playwright/test'
import { copyFileSync, cpSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest } from './support/boxes.ts'
import { freshFolder, repository } from './support/cli.ts'
import { liveFrame, measured, openDemo, setUp, task } from './support/server.ts'
import { bringIn, takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'

const SCREENS = { laptop: { width: 1280, height: 800 }, phone: { width: 390, height: 844 } }
type ScreenKey = keyof typeof SCREENS

test.describe('offsets', () => {
  const gapOf = (selector: string) =>
    Math.round(
      document.querySelector(selector)!.getBoundingClientRect().top - document.querySelector('header')!.getBoundingClientRect().bottom,
    )
  const figure = (page: Page, section: string, screen: string) => page.locator(`[data-arrival-row="${section}"] [data-screen="${screen}"]`)

  /** The section's distance below the header for a visitor who comes with its hash. */
  async function visited(browser: Browser, file: string, section: string, screen: ScreenKey, javaScriptEnabled: boolean) {
    const context = await browser.newContext({ javaScriptEnabled, viewport: SCREENS[screen] })
    const page = await context.newPage()
    await page.goto(`${pathToFileURL(file).href}#${section}`)
    await atRest(page, javaScriptEnabled)
    const gap = await page.evaluate(gapOf, `#${section}`)
    await context.close()
    // Avoids −0.
    return gap + 0
  }

  test('of one section differ from the others’, on their screens', async ({ page, browser, server }) => {
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    const room = page.getByLabel('Extra offset')

    await test.step('typed, with figures and live page updated', async () => {
      await page.getByRole('button', { name: 'Room above Beds' }).click()
      await room.fill('40')
      await room.press('Enter')
      for (const screen of ['laptop', 'phone']) await expect(figure(page, 'beds', screen)).toHaveText('64')
      await measured(page)
      await page.getByRole('button', { name: 'Beds, Laptop: 64 px between header and section' }).click()
      for (const screen of ['laptop', 'phone'])
        await expect
          .poll(() =>
            liveFrame(page, screen)
              .locator('html')
              .evaluate((_, gap) => (0, eval)(gap)('#beds'), `(${gapOf})`),
          )
          .toBe(64)
    })

    await test.step('by the arrow keys, and not on every screen', async () => {
      await room.press('ArrowUp')
      await room.press('ArrowUp')
      await expect(figure(page, 'beds', 'phone')).toHaveText('66')
      await page.getByRole('group', { name: 'Screens of Beds' }).getByLabel('Phone').uncheck()
      await expect(figure(page, 'beds', 'phone')).toHaveText('24')
      await expect(figure(page, 'beds', 'laptop')).toHaveText('66')
    })

    await test.step('dragged on the spine, or moved by keys, with the number updated', async () => {
      const pennant = page.getByRole('slider', { name: 'Room above Tickets' })
      const scale = Number(await page.getByTestId('spine').getAttribute('data-scale'))
      const { x, y, width } = (await pennant.boundingBox())!
      await page.mouse.move(x + width - 4, y + 6)
      await page.mouse.down()
      await page.mouse.move(x + width - 4, y, { steps: 3 })
      const by = Math.round(6 / scale)
      await expect(pennant.locator('output')).toHaveText(`${24 + by} px`)
      await page.mouse.up()
      await expect(figure(page, 'tickets', 'laptop')).toHaveText(String(24 + by))
      await pennant.press('ArrowDown')
      await pennant.press('Shift+ArrowDown')
      await expect(figure(page, 'tickets', 'phone')).toHaveText(String(24 + by - 11))
      await expect(pennant).toHaveAttribute('aria-valuetext', `${24 + by - 11} px between header and section`)
      for (let n = 0; n < 3; n++) await page.keyboard.press('Control+z')
      await expect(figure(page, 'tickets', 'laptop')).toHaveText('24')
      // The first section goes to the very top and can't be dragged.
      await expect(page.getByRole('slider', { name: /^Room above Seven nights/ })).toHaveCount(0)
    })

    await test.step('never so small that the heading is covered', async () => {
      await room.fill('-300')
      await expect(page.getByRole('alert').filter({ hasText: 'would put its heading under the header' })).toBeVisible()
      await page.getByRole('button', { name: 'Back to 42 px' }).click()
    })

    await test.step('the first section goes to the very top, or not', async () => {
      const first = figure(page, 'seven-nights', 'laptop')
      await expect(first).toHaveText('top')
      await page.getByRole('button', { name: /^Room above Seven nights/ }).click()
      await page.getByRole('checkbox', { name: 'Goes to the very top' }).uncheck()
      await expect(first).not.toHaveText('top')
      await page.keyboard.press('Control+z')
      await expect(first).toHaveText('top')
    })

    await test.step('a visitor arrives that way, also without script', async () => {
      await measured(page)
      // With its files.
      const folder = freshFolder()
      cpSync(join(repository, 'demo/ostrey'), folder, { recursive: true })
      const file = join(folder, 'index.html')
      copyFileSync(await takeHome(page), file)
      for (const [screen, gap] of [
        ['laptop', 66],
        ['phone', 24],
      ] as const) {
        expect(await visited(browser, file, 'beds', screen, true)).toBe(gap)
        // Without it the header is as the page's script has it, and the written height is the one at rest.
        expect(await visited(browser, file, 'tickets', screen, true)).toBe(24)
        const [beds, tickets] = [
          await visited(browser, file, 'beds', screen, false),
          await visited(browser, file, 'tickets', screen, false),
        ]
        expect(beds - tickets).toBe(gap - 24)
      }
    })
  })

  test('of all sections differ on one screen, typed or by keys, and are kept in the handover', async ({ page, browser, server }) => {
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    await page.getByText('Exceptions by screen').click()
    const phone = page.getByLabel('On Phone', { exact: true })
    await phone.focus()
    await page.keyboard.press('Control+a')
    await page.keyboard.type('0')
    await page.keyboard.press('Enter')
    await measured(page)
    await expect(figure(page, 'beds', 'phone')).toHaveText('0')
    await expect(figure(page, 'beds', 'laptop')).toHaveText('24')
    // Less would cover its heading, and is refused with the limit.
    await phone.fill('-300')
    await expect(page.getByText('less would put a heading under the header')).toBeVisible()
    await page.keyboard.press('Escape')
    const file = await takeHome(page)
    copyFileSync(join(repository, 'demo/ostrey/sky-week.css'), join(file, '../sky-week.css'))
    for (const script of [true, false]) {
      expect(await visited(browser, file, 'beds', 'phone', script)).toBe(0)
      expect(await visited(browser, file, 'beds', 'laptop', script)).toBe(24)
    }
    await task(page, 'Travel')
    await phone.fill('24')
    await phone.press('Enter')
    await measured(page)
    await expect(figure(page, 'beds', 'phone')).toHaveText('24')
    await page.reload()
    await measured(page)
    await expect(phone).toBeHidden()
    await page.getByRole('button', { name: 'Undo: change the breathing space' }).click()
    await expect(figure(page, 'beds', 'phone')).toHaveText('0')
  })

  test('adds space at the end if the last section can’t arrive, as padding or minimum height', async ({ page, browser, server }) => {
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    const room = page.getByRole('region', { name: 'Space at the end' })
    const contact = { laptop: figure(page, 'contact', 'laptop'), phone: figure(page, 'contact', 'phone') }
    const home = async () => {
      const file = await takeHome(page)
      copyFileSync(join(repository, 'demo/ostrey/sky-week.css'), join(file, '../sky-week.css'))
      cpSync(join(repository, 'demo/ostrey/img'), join(file, '../img'), { recursive: true })
      await task(page, 'Travel')
      return file
    }
    await expect(page.getByTestId('missing-room')).toBeVisible()
    for (const screen of ['laptop', 'phone'] as const) await expect(contact[screen]).toContainText('too short')

    for (const as of ['as padding of', 'as min-height of']) {
      await test.step(as, async () => {
        await room.getByLabel('How it is added').selectOption({ label: `${as} “Contact”` })
        await room.getByRole('button', { name: /^Add \d+ px at the end$/ }).click()
        await measured(page)
        for (const screen of ['laptop', 'phone'] as const) await expect(contact[screen]).toHaveText('24')
        await expect(page.getByTestId('missing-room')).toHaveCount(0)
        const file = await home()
        // Without its script the header keeps the style's height.
        for (const screen of ['laptop', 'phone'] as const) expect(await visited(browser, file, 'contact', screen, false)).toBe(24)
        await room.getByRole('button', { name: 'Remove the space' }).click()
        await measured(page)
        for (const screen of ['laptop', 'phone'] as const) await expect(contact[screen]).toContainText('too short')
      })
    }
    await page.getByRole('button', { name: 'Undo: change the space at the end' }).click()
    await expect(room).toContainText('Space added, as min-height of “Contact”')
  })
  test('a section fills the window, with and without script, and a covered heading is reported', async ({ page, browser, server }) => {
    await bringIn(page, server, join(repository, 'e2e/pages/open-menus/ticked.html'))
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    await page.getByRole('button', { name: 'Room above Lines' }).click()
    const fills = page.getByLabel('Fills the window: starts right below the header')
    await fills.check()
    const row = page.locator('[data-arrival-row="lines"]')
    await expect(row).toContainText('fills the window')
    await expect(page.getByLabel('Extra offset')).toHaveCount(0)
    // Its heading starts where the header ends, so it's cut on screens with a taller header.
    const covered = /heading (are|is) covered/
    await expect(row.getByRole('button', { name: covered })).not.toHaveCount(0)
    await page.getByRole('group', { name: 'Screens of Lines' }).getByLabel('Phone', { exact: true }).uncheck()
    const file = pathToFileURL(await takeHome(page)).href
    for (const [javaScriptEnabled, viewport, top] of [
      [true, SCREENS.laptop, 0],
      [false, SCREENS.laptop, 0],
      [true, SCREENS.phone, 'below the header'],
    ] as const) {
      const context = await browser.newContext({ javaScriptEnabled, viewport })
      const visitor = await context.newPage()
      for (const from of ['', '#visit']) {
        await visitor.goto(file + from)
        await atRest(visitor, javaScriptEnabled)
        await visitor.evaluate(() => (location.hash = '#lines'))
        await atRest(visitor, javaScriptEnabled)
        const seen = await visitor.evaluate(() => {
          const box = (of: string) => document.querySelector(of)!.getBoundingClientRect()
          return { top: box('#lines').top, gap: box('#lines').top - box('header').bottom }
        })
        if (top === 0) expect(Math.abs(seen.top)).toBeLessThanOrEqual(1)
        else expect(Math.abs(seen.gap - 24)).toBeLessThanOrEqual(1)
        if (javaScriptEnabled) await expect(visitor.locator('nav a[aria-current]')).toHaveText('Lines')
      }
      await context.close()
    }
    await task(page, 'Travel')
    const undo = page.getByRole('button', { name: /^Undo: / })
    await undo.click()
    await undo.click()
    await expect(row).not.toContainText('fills the window')
  })

  test('the arrival card shows each screen, and both ways if they differ', async ({ page, server }) => {
    const tile = (screen: string) => page.locator(`[data-card="${screen}"]`)
    const open = async (title: string) => {
      await page.getByRole('button', { name: `Room above ${title}` }).click()
      await page.getByRole('button', { name: 'See it arrive on every screen' }).click()
      await expect(page.getByRole('dialog').getByText('On its way…')).toHaveCount(0)
    }

    await test.step('equal ways share one picture, which shows the section under the header', async () => {
      await openDemo(page, server)
      await setUp(page)
      await measured(page)
      await task(page, 'Travel')
      await open('Beds')
      for (const screen of ['laptop', 'phone']) {
        await expect(tile(screen)).toHaveCount(1)
        await expect(tile(screen)).toContainText('from above and from below')
        await expect(tile(screen)).toContainText('24 px between header and section')
        const picture = tile(screen).frameLocator('iframe')
        const land = Number(await page.locator(`[data-arrival-row="beds"] [data-screen="${screen}"][data-land]`).getAttribute('data-land'))
        expect(Math.abs((await picture.locator('html').evaluate(() => scrollY)) - land)).toBeLessThanOrEqual(1)
        const gap = await picture
          .locator('#beds')
          .evaluate((el) => el.getBoundingClientRect().top - document.querySelector('header')!.getBoundingClientRect().bottom)
        expect(Math.abs(gap - 24)).toBeLessThanOrEqual(1)
        await expect(picture.locator('header a[aria-current]')).toHaveText('Beds')
      }
      await expect((await new AxeBuilder({ page }).include('[role="dialog"]').exclude('iframe').analyze()).violations).toEqual([])
      await page.getByRole('button', { name: 'Done' }).click()
    })

    await test.step('they differ under a header that hides on the way down', async () => {
      const parts = [1, 2, 3, 4].map((n) => `<section id="s${n}" style="height: 1200px"><h2>Part ${n}</h2></section>`).join('')
      const links = [1, 2, 3, 4].map((n) => `<a href="#s${n}">Part ${n}</a> `).join('')
      await bringIn(page, server, [
        {
          name: 'index.html',
          mimeType: 'text/html',
          buffer:
            Buffer.from(`<!doctype html><title>Away</title><style>body{margin:0}header{position:fixed;top:0;left:0;right:0;height:60px;background:#eee}
header.up{transform:translateY(-100%)}main{padding-top:60px}</style><header><nav>${links}</nav></header><main>${parts}</main><script>let y = scrollY
addEventListener('scroll', () => { document.querySelector('header').classList.toggle('up', scrollY > y && scrollY > 60); y = scrollY })</script>`),
        },
      ])
      await setUp(page)
      await measured(page)
      await task(page, 'Travel')
      const gap = page.locator('[data-arrival-row="s3"] [data-screen="laptop"] button')
      await expect(gap).toHaveText('24↓ 84')
      await expect(gap).toHaveAccessibleName(/24 px between header and section; 84 px from above, where the header is hidden$/)
      await open('Part 3')
      for (const screen of ['laptop', 'phone']) {
        await expect(tile(screen)).toHaveCount(2)
        await expect(tile(screen).nth(0)).toContainText('from above')
        await expect(tile(screen).nth(0)).toContainText('84 px between the viewport’s top and section')
        await expect(tile(screen).nth(1)).toContainText('from below')
        await expect(tile(screen).nth(1)).toContainText('24 px between header and section')
        const reach = (n: number) =>
          tile(screen)
            .nth(n)
            .frameLocator('iframe')
            .locator('header')
            .evaluate((el) => el.getBoundingClientRect().bottom)
        expect([await reach(0), await reach(1)]).toEqual([0, 60])
      }
    })
  })
})
