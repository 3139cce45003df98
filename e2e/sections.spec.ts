/** Sections and IDs: the sheet, naming, checks, former IDs and points, picking, findings. */
import { expect, type Browser, type Page } from '@playwright/test'
import { readFileSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { clean } from './support/axe.ts'
import { atRest } from './support/boxes.ts'
import { repository } from './support/cli.ts'
import { liveFrame, measured, openDemo, setUp, task } from './support/server.ts'
import { bringIn, ids, setId, takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'

/** Boxes of everything in the body except ours, in order. */
const boxes = (page: Page) =>
  page.evaluate(() =>
    [...document.body.querySelectorAll('*')]
      .filter((el) => !el.closest('[data-wb]'))
      .map((el) => {
        const { left, top, width, height } = el.getBoundingClientRect()
        return [el.tagName, left, top + scrollY, width, height].join(' ')
      }),
  )

/** Scroll position after a visitor arrived by this address. */
async function arrival(
  browser: Browser,
  file: string,
  hash: string,
  script: boolean,
  viewport: { width: number; height: number },
): Promise<{ scroll: number; hash: string }> {
  const context = await browser.newContext({ viewport, javaScriptEnabled: script, reducedMotion: 'reduce' })
  const page = await context.newPage()
  await page.goto(pathToFileURL(file).href + '#' + hash)
  await atRest(page, script)
  const at = await page.evaluate(() => ({ scroll: scrollY, hash: location.hash }))
  await context.close()
  return at
}

test.describe('sections and IDs', () => {
  test('a page with a base address stays where it is: by a former ID, and while its address says the current section', async ({
    page,
    browser,
    server,
  }) => {
    const html = readFileSync(join(repository, 'e2e/pages/field/ghosts/index.html'), 'utf8').replace(
      '<title>',
      '<base href="https://elsewhere.example/shop/"><title>',
    )
    await bringIn(page, server, [{ name: 'index.html', mimeType: 'text/html', buffer: Buffer.from(html) }])
    await setUp(page)
    await setId(page, 2, 'pitch')
    await task(page, 'Travel')
    await page.getByLabel('The address follows the scroll').check()
    const home = pathToFileURL(await takeHome(page)).href
    const context = await browser.newContext()
    const visitor = await context.newPage()
    const errors: string[] = []
    visitor.on('pageerror', (error) => errors.push(error.message))
    await visitor.goto(`${home}#tar`)
    await expect.poll(() => visitor.evaluate(() => location.href)).toBe(`${home}#pitch`)
    await visitor.mouse.wheel(0, 2000)
    await expect.poll(() => visitor.evaluate(() => location.href)).toMatch(/#(knots|the-yard)$/)
    expect(await visitor.evaluate((url) => location.href.startsWith(url), home)).toBe(true)
    expect(errors).toEqual([])
    await context.close()
  })

  test('former IDs and points arrive correctly, with and without script, and move nothing', async ({ page, browser, server }) => {
    const source = join(repository, 'e2e/pages/columns.html')
    await bringIn(page, server, source)
    await setUp(page)
    const before = await ids(page)
    expect(before).toEqual(['Throwing', 'glaze', 'fire', 'shop', 'visit'])
    const after = ['throwing-clay', 'glazes', 'kiln', 'cups', 'come']
    for (const [i, id] of after.entries()) await setId(page, i + 1, id)
    await expect(page.getByRole('button', { name: 'Forget the former ID glaze' })).toBeVisible()
    await page.getByRole('button', { name: 'More for section Visit' }).click()
    await page.getByRole('menuitem', { name: 'Put a point before this element' }).click()
    await setId(page, 5, 'bench')
    await page.getByRole('spinbutton', { name: /Below the element/ }).fill('-75')
    await page.getByRole('spinbutton', { name: /Below the element/ }).press('Enter')
    await page.locator('[data-point]').focus()
    await page.keyboard.press('Shift+ArrowDown')
    await expect(page.getByRole('spinbutton', { name: /Below the element/ })).toHaveValue('-65')
    const file = await takeHome(page)

    for (const viewport of [
      { width: 1280, height: 800 },
      { width: 390, height: 844 },
    ]) {
      const visitor = await browser.newPage({ viewport })
      await visitor.goto(pathToFileURL(source).href)
      await atRest(visitor)
      const own = await boxes(visitor)
      await visitor.goto(pathToFileURL(file).href)
      await atRest(visitor)
      expect(await boxes(visitor)).toEqual(own)
      for (const script of [true, false]) {
        const now: number[] = []
        for (const [i, id] of after.entries()) {
          const present = await arrival(browser, file, id, script, viewport)
          const former = await arrival(browser, file, before[i]!, script, viewport)
          expect(
            Math.abs(present.scroll - former.scroll),
            `#${before[i]} ${script ? 'with' : 'without'} script: ${former.scroll}, #${id}: ${present.scroll}`,
          ).toBeLessThanOrEqual(1)
          expect(former.hash).toBe('#' + (script ? id : before[i]))
          now.push(present.scroll)
        }
        // Different positions, so that agreement means something; two are side by side on a wide screen.
        expect(new Set(now).size).toBeGreaterThan(3)
        const there = await arrival(browser, file, 'bench', script, viewport)
        expect(there.scroll).toBeGreaterThan(now[3]!)
        const offset = await visitor.evaluate(() => {
          const el = document.querySelector('#come')!.getBoundingClientRect().top + scrollY - 65
          return Math.min(
            Math.round(el - parseFloat(getComputedStyle(document.documentElement).scrollPaddingTop)),
            document.documentElement.scrollHeight - innerHeight,
          )
        })
        expect(Math.abs(there.scroll - offset)).toBeLessThanOrEqual(1)
      }
      await visitor.close()
      // Engines without anchor positioning still reach those that are IDs of the page's elements.
      const text = readFileSync(file, 'utf8')
      const plain = join(dirname(file), 'plain.html')
      writeFileSync(
        plain,
        text.replace(/anchor-name|position-anchor|anchor\(/g, (name) => `x-${name}`),
      )
      const hosted = before.filter((id) => new RegExp(`<h\\d[^>]* id="${id}"`).test(text))
      expect(hosted.length).toBeGreaterThan(2)
      for (const id of hosted) {
        const present = await arrival(browser, plain, after[before.indexOf(id)]!, false, viewport)
        const former = await arrival(browser, plain, id, false, viewport)
        expect(Math.abs(present.scroll - former.scroll), `#${id}, without anchors`).toBeLessThanOrEqual(1)
      }
    }
  })

  test('IDs are checked while typing, and a suggestion is one press away', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    const field = page.getByLabel('ID of section 3', { exact: true })
    for (const [typed, words, offered] of [
      ['my dishes', 'contains white space', 'my-dishes'],
      ['#dishes', 'Only links need that', 'dishes'],
      ['Programme', 'differs from “Programme” only in capitals', 'programme-2'],
      ['beds', 'The section “Beds” already has the ID “beds”', 'beds-2'],
      ['2nd', 'must be escaped', 'section-2nd'],
      ['TOP', 'top of the page', 'top-2'],
    ] as const) {
      await field.fill(typed)
      await expect(page.getByText(words), typed).toBeVisible()
      await page
        .getByRole('button', { name: `Use # ${offered}` })
        .or(page.getByRole('button', { name: `Use #${offered}` }))
        .click()
      await expect(field).toHaveValue(offered)
      await expect(liveFrame(page).locator(`[id="${offered}"] h2`)).toHaveText('The telescopes')
    }
    // Leaving the field neither takes an invalid ID nor silently restores the old one.
    await field.fill('beds')
    await field.press('Enter')
    await field.blur()
    await expect(field).toHaveValue('beds')
    await expect(page.getByRole('alert').filter({ hasText: 'already has the ID “beds”' })).toBeVisible()
    await page.getByRole('button', { name: 'Back to #top-2' }).click()
    await expect(field).toHaveValue('top-2')
  })

  test('the naming rule shows its results, and applies in one step', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    const before = await ids(page)
    await page.getByRole('button', { name: 'Naming rule' }).click()
    const dialog = page.getByRole('dialog')
    await dialog.getByLabel('Between words').selectOption('underscore')
    await dialog.getByLabel('Prefix', { exact: true }).fill('sky')
    await dialog.getByLabel('Omitted words').fill('a under')
    await dialog.getByLabel('Omitted words').blur()
    await expect(dialog.getByTestId('example')).toContainText('sky_seven_nights_dark')
    await dialog.getByLabel('Host system adds').check()
    await dialog.getByRole('radio', { name: /^all sections/ }).check()
    await expect(dialog.getByRole('cell', { name: 'sky_getting_here' })).toBeVisible()
    await expect(dialog.getByRole('cell', { name: 'getting_here', exact: true })).toBeVisible()
    await dialog.getByRole('button', { name: /^Keep the rule and give/ }).click()
    await expect(page.getByLabel('What to type for section 5')).toHaveValue('getting_here')
    expect((await ids(page))[4]).toBe('sky_getting_here')
    const typed = page.getByLabel('What to type for section 5')
    await typed.fill('boats')
    await typed.press('Enter')
    expect((await ids(page))[4]).toBe('sky_boats')
    await page.getByRole('button', { name: /^Undo/ }).click()
    await page.getByRole('button', { name: /^Undo/ }).click()
    await expect.poll(() => ids(page)).toEqual(before)
  })

  test('the sheet is searched, sorted, chosen and changed by keys', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    const rows = page.getByRole('treeitem')
    await page.getByLabel('Find a section').fill('tick')
    await expect(rows.filter({ has: page.getByLabel(/^ID of section/) })).toHaveCount(1)
    await page.getByLabel('Find a section').fill('')
    await page.getByLabel('Sort').selectOption('By title')
    await expect(page.getByLabel(/^Title of section/).first()).toHaveValue('Beds')
    await page.getByLabel('Sort').selectOption('Page order')
    await rows.first().focus()
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('Alt+ArrowRight')
    await expect(rows.nth(1)).toHaveAttribute('aria-level', '2')
    await page.keyboard.press('Alt+ArrowLeft')
    await expect(rows.nth(1)).toHaveAttribute('aria-level', '1')
    await page.keyboard.press('F2')
    await page.keyboard.type('what-is-on')
    await page.keyboard.press('Enter')
    await expect(page.getByLabel('ID of section 2', { exact: true })).toHaveValue('what-is-on')
    await rows.nth(2).focus()
    await page.keyboard.press(' ')
    await page.keyboard.press('Shift+ArrowDown')
    await expect(page.getByText('2 of 9 sections chosen')).toBeVisible()
    await page.keyboard.press('Delete')
    await page.getByRole('dialog', { name: 'Remove 2 sections' }).getByRole('button', { name: 'Remove 2 sections' }).click()
    await expect.poll(() => ids(page)).toHaveLength(7)
    await page.getByRole('button', { name: 'Undo: remove 2 sections' }).click()
    await expect.poll(() => ids(page)).toHaveLength(9)
  })

  test('a column is pasted, and rows are copied as a table', async ({ page, context, server }) => {
    await context.grantPermissions(['clipboard-read', 'clipboard-write'])
    await openDemo(page, server)
    await setUp(page)
    await page.getByRole('checkbox', { name: 'Choose section Tickets' }).check()
    await page.getByRole('button', { name: 'Paste a column' }).click()
    const dialog = page.getByRole('dialog')
    await dialog.getByLabel('The column').fill('prices\tx\nbad id\n#write\n')
    await expect(dialog.getByText('contains white space')).toBeVisible()
    await expect(dialog.getByRole('button', { name: /^Change/ })).toBeDisabled()
    // Rows may change places.
    await dialog.getByLabel('The column').fill('contact\n\ntickets\n')
    await dialog.getByRole('button', { name: 'Change 2 sections' }).click()
    await expect.poll(async () => (await ids(page)).slice(6)).toEqual(['contact', 'questions-people-ask', 'tickets'])
    await page.getByRole('button', { name: 'Choose none' }).click()
    await page.getByRole('button', { name: 'Copy as a table' }).click()
    await expect(page.getByText('9 sections are on the clipboard')).toBeVisible()
    const table = (await page.evaluate(() => navigator.clipboard.readText())).split('\n').map((l) => l.split('\t'))
    expect(table).toHaveLength(10)
    expect(table[7]!.slice(0, 6)).toEqual(['7', 'Tickets', 'contact', 'contact', '#contact', 'index.html#contact'])
    await page.getByRole('button', { name: 'More for section Tickets' }).click()
    await page.getByRole('menuitem', { name: 'Copy index.html#contact' }).click()
    expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('index.html#contact')
  })

  test('parts are split, merged and added as points, with undo', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    const before = await ids(page)
    await page.getByRole('button', { name: 'More for section Programme' }).click()
    await page.getByRole('menuitem', { name: 'Split at “Monday: finding your way”' }).click()
    await expect.poll(() => ids(page)).toHaveLength(10)
    await page.getByRole('button', { name: 'More for section Programme' }).click()
    await page.getByRole('menuitem', { name: 'Merge with the next section' }).click()
    await expect.poll(() => ids(page)).toEqual(before)
    await page.getByRole('button', { name: '7 parts also found here' }).click()
    await page.getByRole('button', { name: 'Add section Tuesday' }).first().click()
    await expect.poll(() => ids(page)).toHaveLength(10)
  })

  test('an element is picked by pointer and keys, and becomes a section or a point', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    await page.getByRole('button', { name: 'Pick on the page' }).click()
    const panel = page.getByRole('group', { name: 'Picked element' })
    const frame = (await page.locator('iframe[data-screen="laptop"]').boundingBox())!
    const scale = frame.width / 1280
    const target = await liveFrame(page)
      .locator('.hero-text')
      .evaluate((el) => {
        const box = el.getBoundingClientRect()
        return { x: box.left + box.width / 2, y: box.top + 40 }
      })
    await page.mouse.move(frame.x + target.x * scale, frame.y + target.y * scale)
    await expect(panel.getByRole('button', { name: 'h1' })).toHaveAttribute('aria-current', 'true')
    // A press on the page picks, and does nothing else.
    const button = await liveFrame(page)
      .locator('.hero .button')
      .evaluate((el) => {
        const box = el.getBoundingClientRect()
        return { x: box.left + box.width / 2, y: box.top + box.height / 2 }
      })
    await page.mouse.click(frame.x + button.x * scale, frame.y + button.y * scale)
    await expect(panel.getByText('Choose your nights')).toBeVisible()
    expect(
      await liveFrame(page)
        .locator('body')
        .evaluate(() => scrollY),
    ).toBe(0)
    await panel.focus()
    await page.keyboard.press('ArrowUp')
    await page.keyboard.press('ArrowUp')
    await expect(panel.getByRole('button', { name: 'div' })).toHaveAttribute('aria-current', 'true')
    await page.keyboard.press('Enter')
    await expect.poll(() => ids(page)).toHaveLength(10)
    await expect(panel).toHaveCount(0)
    await expect(liveFrame(page).locator('.hero-text')).toHaveAttribute('id', 'seven-nights-2')
    await page.getByRole('button', { name: 'Pick on the page' }).click()
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('ArrowRight')
    await panel.getByRole('button', { name: 'Put a point before it' }).click()
    await expect.poll(() => ids(page)).toHaveLength(11)
    await page.getByRole('button', { name: 'Pick on the page' }).click()
    await page.keyboard.press('Escape')
    await expect(panel).toHaveCount(0)
  })

  test('every action is listed by name, and what opens passes axe', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    const act = async (name: string) => {
      await page.keyboard.press('Control+k')
      await page.getByRole('combobox', { name: 'Find an action' }).fill(name)
      await page.keyboard.press('Enter')
    }
    await page.getByRole('treeitem').nth(1).focus()
    await page.keyboard.press('Control+k')
    await expect(page.getByRole('option', { name: /^Rename the ID of “Programme”/ })).toBeVisible()
    await clean(page, 'actions')
    await page.keyboard.press('Escape')
    for (const [action, shown] of [
      ['naming rule', 'Naming rule'],
      ['paste a column', 'Paste a column'],
    ] as const) {
      await act(action)
      await expect(page.getByRole('dialog', { name: shown })).toBeVisible()
      await clean(page, shown)
      await page.keyboard.press('Escape')
    }
    await page.getByRole('button', { name: 'History' }).click()
    await expect(page.getByRole('dialog', { name: 'History' }).getByRole('listitem').first()).toBeVisible()
    await clean(page, 'history')
    await page.keyboard.press('Escape')
    await page.getByTestId('new-version').setInputFiles(join(repository, 'demo/ostrey/travel.html'))
    await expect(page.getByRole('dialog', { name: 'New page version' })).toBeVisible()
    await clean(page, 'new version')
    await page.getByRole('button', { name: 'Keep the current version' }).click()
    await act('pick an element')
    await expect(page.getByRole('group', { name: 'Picked element' })).toBeFocused()
    await page.keyboard.press('ArrowDown')
    await page.keyboard.press('ArrowDown')
    await clean(page, 'picker')
    await page.keyboard.press('Escape')
    await page.getByRole('treeitem').nth(1).focus()
    await act('remove “Programme”')
    await expect(page.getByRole('dialog', { name: 'Remove “Programme”' })).toBeVisible()
    await clean(page, 'removing')
    await page.getByRole('dialog', { name: 'Remove “Programme”' }).getByRole('button', { name: 'Remove it' }).click()
    await expect.poll(() => ids(page)).toHaveLength(8)
    await act('undo')
    await expect.poll(() => ids(page)).toHaveLength(9)
    await act('go to handover')
    await expect(page).toHaveURL(/handover$/)
  })

  test('findings of a neglected page are fixed by presses', async ({ page, server }) => {
    await openDemo(page, server)
    await page.getByLabel('Page', { exact: true }).selectOption('last-year.html')
    await measured(page)
    await setUp(page)
    const bar = page.getByRole('button', { name: /finding/ })
    await bar.click()
    const list = page.getByRole('list', { name: 'All findings' })
    await list
      .locator('[data-finding="id-selector"]')
      .getByRole('button', { name: /^Show on the page/ })
      .click()
    await expect
      .poll(() =>
        liveFrame(page)
          .locator('[id="2-tickets"]')
          .evaluate((el) => el.getBoundingClientRect().top < innerHeight && getComputedStyle(el).outlineStyle),
      )
      .toBe('solid')
    for (const code of ['id-space', 'id-selector', 'id-shadow']) {
      const row = list.locator(`[data-finding="${code}"]`)
      await row.getByRole('button', { name: /^Rename to/ }).click()
      await expect(row).toHaveCount(0)
    }
    expect(await ids(page)).toEqual(expect.arrayContaining(['getting-there', 'section-2-tickets', 'countdown-2']))
    await expect(list.locator('[data-finding="section-hidden"]')).toBeVisible()
    await expect(list.locator('[data-finding="section-empty"]')).toBeVisible()
    await expect(list.locator('[data-finding="id-duplicate"]')).toHaveCount(2)
  })
})
