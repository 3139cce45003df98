/** Header choices, in the live page and for a visitor. */
import AxeBuilder from '@axe-core/playwright'
import { expect, type Browser, type Page } from '@playwright/test'
import { copyFileSync, cpSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest, pressAt, scrollTo } from './support/boxes.ts'
import { freshFolder, repository, waybellBuilt } from './support/cli.ts'
import { liveFrame, measured, openDemo, setUp, task, type Server } from './support/server.ts'
import { bringIn, styled, takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'

const SCREENS = { laptop: { width: 1280, height: 800 }, phone: { width: 390, height: 844 } }

test.describe('the header', () => {
  async function visit(browser: Browser, url: string, screen: keyof typeof SCREENS, look: (page: Page) => Promise<void>, js = true) {
    const context = await browser.newContext({ viewport: SCREENS[screen], javaScriptEnabled: js })
    const page = await context.newPage()
    await page.goto(url)
    await atRest(page, js)
    await look(page)
    await context.close()
  }

  const seen = (page: Page) =>
    page.evaluate(() => {
      const header = document.querySelector('header')!
      const { backgroundColor, boxShadow } = getComputedStyle(header)
      return { ground: backgroundColor, shadow: boxShadow, bottom: header.getBoundingClientRect().bottom }
    })

  test('has no background at the top, hides on the way down and returns, and is let go on one screen', async ({
    page,
    browser,
    server,
  }) => {
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    await page.getByLabel('gets its background').check()

    await test.step('an unreadable state is reported, with the way back', async () => {
      await measured(page)
      await page.getByRole('button', { name: /\d+ findings?/ }).click()
      await expect(page.getByText(/is hard to read: contrast/).first()).toBeVisible()
      await page.getByRole('button', { name: 'Give the header its background at the top too' }).first().click()
      await expect(page.getByText(/is hard to read: contrast/)).toHaveCount(0)
      await page.keyboard.press('Escape')
    })

    await page.getByLabel('gets its background').check()
    await page.getByLabel('gets a shadow').check()
    await page.getByLabel('hides on the way down').check()
    await page.getByRole('group', { name: 'Screens of the header in view' }).getByLabel('Phone').uncheck()
    await measured(page)

    await test.step('the live page shows it, and the sheet uses it', async () => {
      const header = liveFrame(page).locator('header')
      await expect(header).toHaveAttribute('data-wb-at', 'top')
      await expect(header).toHaveCSS('background-color', 'rgba(0, 0, 0, 0)')
      const covers = page.getByRole('row', { name: /^Header height/ }).getByRole('cell')
      await expect(covers.nth(0)).toHaveText('56')
      await expect(covers.nth(1)).toHaveText('0')
    })

    const file = await takeHome(page)
    for (const name of ['sky-week.css', 'sky-week.js']) copyFileSync(join(repository, 'demo/ostrey', name), join(dirname(file), name))
    cpSync(join(repository, 'demo/ostrey/img'), join(dirname(file), 'img'), { recursive: true })
    const url = pathToFileURL(file).href

    await test.step('for a visitor on a laptop', () =>
      visit(browser, url, 'laptop', async (there) => {
        expect((await seen(there)).ground).toBe('rgba(0, 0, 0, 0)')
        await scrollTo(there, 900)
        await expect.poll(async () => (await seen(there)).bottom).toBeLessThanOrEqual(0)
        const before = await there.evaluate(() => scrollY)
        await scrollTo(there, before - 120)
        await expect.poll(async () => (await seen(there)).bottom).toBe(56)
        await expect.poll(async () => (await seen(there)).ground).not.toBe('rgba(0, 0, 0, 0)')
        expect((await seen(there)).shadow).not.toBe('none')
        // Its own transition is unchanged.
        await expect(there.locator('header')).toHaveCSS('transition', /^padding 0\.2s.*, translate 0\.2s/)
        // A focused header stays visible.
        await there.locator('header a[href="#beds"]').focus()
        await scrollTo(there, 1500)
        await atRest(there)
        expect((await seen(there)).bottom).toBe(56)
        const wrong = await new AxeBuilder({ page: there }).disableRules(['color-contrast']).analyze()
        expect(wrong.violations).toEqual([])
      }))

    await test.step('offsets allow for it, visible or not', () =>
      visit(browser, url, 'laptop', async (there) => {
        for (const [from, bottom] of [
          [0, 0],
          [6000, 56],
        ] as const) {
          await scrollTo(there, from)
          await atRest(there)
          await there
            .locator('a[href="#tickets"]')
            .last()
            .evaluate((a: HTMLElement) => a.click())
          await there.waitForTimeout(400)
          await atRest(there)
          await there.waitForTimeout(800)
          expect(
            Math.abs((await there.evaluate(() => document.getElementById('tickets')!.getBoundingClientRect().top)) - 80),
          ).toBeLessThanOrEqual(1)
          if (bottom) expect((await seen(there)).bottom).toBe(bottom)
          else expect((await seen(there)).bottom).toBeLessThanOrEqual(0)
        }
      }))

    await test.step('on a phone it scrolls away, and links arrive without it', async () => {
      for (const js of [true, false])
        await visit(
          browser,
          url,
          'phone',
          async (there) => {
            await there
              .locator('a[href="#beds"]')
              .last()
              .evaluate((a: HTMLElement) => a.click())
            await there.waitForTimeout(600)
            await atRest(there, js)
            expect((await seen(there)).bottom).toBeLessThan(0)
            expect(
              Math.abs((await there.evaluate(() => document.getElementById('beds')!.getBoundingClientRect().top)) - 24),
            ).toBeLessThanOrEqual(1)
          },
          js,
        )
    })

    await test.step('without script it has its background, and stays', () =>
      visit(
        browser,
        url,
        'laptop',
        async (there) => {
          expect((await seen(there)).ground).not.toBe('rgba(0, 0, 0, 0)')
          await there.evaluate(() => window.scrollTo({ top: 900, behavior: 'instant' }))
          await there.waitForTimeout(500)
          expect((await seen(there)).bottom).toBeGreaterThan(50)
        },
        false,
      ))

    await test.step('built again, its behaviour is the same', async () => {
      const out = freshFolder()
      await waybellBuilt('build', file, '--out', out, '--no-try')
      const moving = (path: string) => [...new Set(readFileSync(path, 'utf8').match(/transition: .*translate .*/g))]
      expect(moving(file)).toHaveLength(1)
      expect(moving(join(out, 'index.html'))).toEqual(moving(file))
    })
  })

  for (const javaScriptEnabled of [true, false])
    test(`by keys into a header that is stuck the page stays where it is, ${javaScriptEnabled ? 'with' : 'without'} script`, async ({
      page,
      browser,
      server,
    }) => {
      // Its menu opens in a dialog, and its header is sticky.
      await bringIn(page, server, join(repository, 'e2e/pages/open-menus/dialog.html'))
      await setUp(page)
      await measured(page)
      const url = pathToFileURL(await takeHome(page)).href
      const context = await browser.newContext({ javaScriptEnabled, viewport: { width: 1280, height: 800 } })
      const visitor = await context.newPage()
      await visitor.goto(url)
      await visitor.evaluate(() => document.querySelector<HTMLElement>('header a')!.focus({ preventScroll: true }))
      await visitor.mouse.wheel(0, 900)
      await expect.poll(() => visitor.evaluate(() => scrollY)).toBe(900)
      for (const to of ['Lines', 'Floats']) {
        await visitor.keyboard.press('Tab')
        await expect(visitor.locator('header > nav').getByRole('link', { name: to })).toBeFocused()
        await atRest(visitor, javaScriptEnabled)
        expect(await visitor.evaluate(() => scrollY), to).toBe(900)
      }
      // Links followed from there arrive as usual.
      await visitor.keyboard.press('Enter')
      await expect
        .poll(() =>
          visitor.evaluate(() => {
            const [section, header] = ['#floats', 'header'].map((of) => document.querySelector(of)!.getBoundingClientRect())
            return Math.abs(section!.top - header!.bottom - 24) <= 1
          }),
        )
        .toBe(true)
      await context.close()
    })

  /** Kinds of headers: padding on a child, or its own. */
  const HEADERS = {
    'sticky, padded within': '',
    'fixed, the page has room for it':
      'header { position: fixed; left: 0; right: 0; padding: 1.5rem } .row { padding: 0 } body { padding-top: 74px }',
    'scrolls away': 'header { position: static; padding: 20px 24px } .row { padding: 0 }',
  }
  async function openHeader(page: Page, server: Server, css: string): Promise<void> {
    await bringIn(page, server, styled(join(repository, 'e2e/pages/header/index.html'), css))
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    const keep = page.getByLabel('Keep header in view')
    if (css.includes('static')) await keep.check()
  }

  for (const [name, css] of Object.entries(HEADERS))
    test(`is smaller once the page has been scrolled, and nothing on the page moves for it: ${name}`, async ({ page, browser, server }) => {
      await openHeader(page, server, css)
      const covers = page.getByRole('row', { name: /^Header height/ }).getByRole('cell')
      await expect(covers.nth(0)).toHaveText(/^\d+$/)
      const full = Number(await covers.nth(0).innerText())
      await page.getByLabel('shrinks').check()
      await page.getByLabel('by', { exact: true }).fill('20')
      await page.getByLabel('by', { exact: true }).press('Enter')
      await expect(covers.nth(0)).toHaveText(String(full - 20))
      await measured(page)
      const lands = await page
        .locator('[data-arrival-row] [data-screen="laptop"][data-land]')
        .evaluateAll((cells) =>
          Object.fromEntries(
            cells.map((cell) => [
              cell.closest('[data-arrival-row]')!.getAttribute('data-arrival-row'),
              Number((cell as HTMLElement).dataset['land']),
            ]),
          ),
        )
      const url = pathToFileURL(await takeHome(page)).href

      const tops = (there: Page) =>
        there.evaluate(() =>
          [...document.querySelectorAll('section')].map((s) => Math.round((s.getBoundingClientRect().top + scrollY) * 64) / 64),
        )
      const height = (there: Page) => there.evaluate(() => document.querySelector('header')!.getBoundingClientRect().height)
      await visit(browser, url, 'laptop', async (there) => {
        const [before, atTop] = [await tops(there), await height(there)]
        await scrollTo(there, 700)
        await expect.poll(() => height(there)).toBe(atTop - 20)
        await atRest(there)
        expect([await tops(there), await there.evaluate(() => scrollY)]).toEqual([before, 700])
        for (const id of ['weir', 'locks', 'towpath', 'ferry', 'inn'])
          for (const from of [0, 5000]) {
            await scrollTo(there, from)
            await atRest(there)
            await pressAt(there, there.locator(`header a[href="#${id}"]`))
            await there.waitForTimeout(1000)
            await atRest(there)
            const [gap, end] = await there.evaluate((of) => {
              const [section, header] = [`#${of}`, 'header'].map((s) => document.querySelector(s)!.getBoundingClientRect())
              return [section!.top - header!.bottom, scrollY >= document.documentElement.scrollHeight - innerHeight - 1]
            }, id)
            // The first goes to the top.
            if (id !== 'weir' && !end) expect([id, from, Math.abs(gap - 24) <= 1]).toEqual([id, from, true])
            const stop = await there.evaluate(() => scrollY)
            expect([id, from, Math.abs(stop - lands[id]!) <= 1], `stops at ${stop}, computed ${lands[id]}`).toEqual([id, from, true])
          }
      })
      // Without script it keeps its full size, and offsets allow for that.
      await visit(
        browser,
        url,
        'laptop',
        async (there) => {
          await pressAt(there, there.locator('header a[href="#towpath"]'))
          await there.waitForTimeout(900)
          await atRest(there, false)
          const gap = await there.evaluate(
            () =>
              document.querySelector('#towpath')!.getBoundingClientRect().top -
              document.querySelector('header')!.getBoundingClientRect().bottom,
          )
          expect([Math.round(await height(there)), Math.abs(gap - 24) <= 1]).toEqual([full, true])
        },
        false,
      )
      await task(page, 'Travel')
      await page.getByRole('button', { name: /^Undo: / }).click()
      await expect(covers.nth(0)).toHaveText(String(full - 16))
    })

  for (const [name, css] of Object.entries(HEADERS))
    test(`stands over a first section that fills the screen, clear until that has gone by: ${name}`, async ({ page, browser, server }) => {
      await openHeader(page, server, css)
      await page.getByLabel('“Weir” starts under it and fills the screen').check()
      await page.getByLabel('gets its background').check()
      await page.getByLabel('shrinks').check()
      await page.getByLabel('or once the first section has passed').check()
      await measured(page)
      const land = page.locator('[data-arrival-row="towpath"] [data-screen="laptop"][data-land]')
      // Additional height is measured.
      await expect.poll(async () => Number(await land.getAttribute('data-land'))).toBeGreaterThan(900)
      const stop = Number(await land.getAttribute('data-land'))
      await expect(page.locator('[data-arrival-row="weir"] [data-screen="phone"]')).not.toContainText('covered')
      const url = pathToFileURL(await takeHome(page)).href
      for (const screen of ['laptop', 'phone'] as const)
        await visit(browser, url, screen, async (there) => {
          const { height: view } = SCREENS[screen]
          const boxes = () =>
            there.evaluate(() => {
              const [header, section, title] = ['header', '#weir', '#weir h2'].map((s) =>
                document.querySelector(s)!.getBoundingClientRect(),
              )
              return [header!.top, section!.top, section!.bottom, title!.top - header!.bottom > 0].map((n) =>
                n === true ? n : Math.round(+n),
              )
            })
          // A header over the page has its space as padding of the page, which stays.
          const top = 0
          expect(await boxes()).toEqual([0, top, top + view, true])
          const state = () => there.locator('header').getAttribute('data-wb-at')
          await scrollTo(there, view - 120)
          expect(await state()).toBe('top')
          expect((await seen(there)).ground).toBe('rgba(0, 0, 0, 0)')
          for (const y of [view - 20, view + 10]) {
            await scrollTo(there, y)
            await expect.poll(state).toBe('moved')
            await atRest(there)
            expect(await there.evaluate(() => scrollY)).toBe(y)
          }
          for (const from of [0, 5000]) {
            await scrollTo(there, from)
            await atRest(there)
            await there.locator('header a[href="#towpath"]').evaluate((a: HTMLElement) => a.click())
            await there.waitForTimeout(1000)
            await atRest(there)
            const gap = await there.evaluate(
              () =>
                document.querySelector('#towpath')!.getBoundingClientRect().top -
                document.querySelector('header')!.getBoundingClientRect().bottom,
            )
            expect([from, Math.abs(gap - 24) <= 1]).toEqual([from, true])
            if (screen === 'laptop') expect(Math.abs((await there.evaluate(() => scrollY)) - stop)).toBeLessThanOrEqual(1)
          }
        })
    })
})
