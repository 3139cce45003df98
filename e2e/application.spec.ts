/** A designer's way through the application, from a page to its handover. */
import { expect, type Frame, type Page } from '@playwright/test'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { unzipSync } from 'fflate'
import { clean } from './support/axe.ts'
import { atRest, coveredEdge, facts } from './support/boxes.ts'
import { freshFolder, repository } from './support/cli.ts'
import { liveFrame, measured, openDemo, setUp, stored, task } from './support/server.ts'
import { bringIn } from './support/sheet.ts'
import { test } from './support/test.ts'

const frameOf = async (page: Page, screen: string): Promise<Frame> =>
  (await (await page.locator(`iframe[data-screen="${screen}"]`).elementHandle())!.contentFrame())!

/** A real click on an element of the live page, which is scaled. */
async function clickIn(page: Page, screen: string, selector: string): Promise<void> {
  const at = await (
    await frameOf(page, screen)
  ).evaluate((css) => {
    const box = document.querySelector(css)!.getBoundingClientRect()
    return { x: box.left + box.width / 2, y: box.top + box.height / 2, width: innerWidth }
  }, selector)
  const frame = (await page.locator(`iframe[data-screen="${screen}"]`).boundingBox())!
  const scale = frame.width / at.width
  await page.mouse.click(frame.x + at.x * scale, frame.y + at.y * scale)
}

test.describe('the application', () => {
  test('the demo is set up by one press, corrected, tried, and downloaded', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    const live = liveFrame(page)
    await expect(live.locator('nav a').first()).toHaveAttribute('href', '#programme')
    // One label of last year's menu isn't its section's title, and the page gets shorter when its header shrinks.
    const all = page.getByRole('button', { name: '2 findings' })
    await expect(all).toContainText('The header shrinks by up to 32 px')
    await all.click()
    await expect(page.getByRole('list', { name: 'All findings' })).toContainText('“Questions people ask” fits best')
    await all.click()
    await expect(page.getByTestId('tried')).toHaveText(/^\d+ links tried on 2 screens, 1 unconfirmed$/)

    await test.step('an ID and a title are changed, and the live page follows without loading', async () => {
      await (await frameOf(page, 'laptop')).evaluate(() => Object.assign(window, { sameDocument: true }))
      const id = page.getByLabel('ID of section 6')
      await id.fill('Beds and')
      await expect(page.getByText('contains white space')).toBeVisible()
      await id.fill('sleeping')
      await id.press('Enter')
      await expect(live.locator('#sleeping h2')).toHaveText('Beds')
      await expect(live.locator('nav a', { hasText: 'Beds' })).toHaveAttribute('href', '#sleeping')
      expect(await (await frameOf(page, 'laptop')).evaluate(() => 'sameDocument' in window)).toBe(true)
    })

    await test.step('a section is dropped, and another added', async () => {
      await page.getByRole('button', { name: 'More for section How dark is dark' }).click()
      await page.getByRole('menuitem', { name: 'Remove section How dark is dark' }).click()
      await expect(live.locator('#how-dark-is-dark')).toHaveCount(0)
      await page.getByLabel('Show').selectOption('Also found')
      await page.getByRole('button', { name: 'Add section Monday: finding your way' }).click()
      await page.getByLabel('Show').selectOption('All')
      await expect(live.locator('#monday-finding-your-way')).toHaveCount(1)
    })

    await test.step('labels, order and targets of items are changed', async () => {
      await task(page, 'Menus')
      const label = page.getByLabel('Label of item Tickets')
      await label.fill('Prices')
      await label.press('Enter')
      await page.getByLabel('Target of item Questions').click()
      await page.getByLabel('Find a target for item Questions').fill('seven nights')
      await page.keyboard.press('Enter')
      await expect(live.locator('nav a')).toHaveText(['Programme', 'Telescopes', 'Getting here', 'Beds', 'Prices', 'Questions', 'Contact'])
      await page.getByRole('button', { name: 'Move item Contact', exact: true }).focus()
      await page.keyboard.press('Alt+ArrowUp')
      await expect(live.locator('nav a')).toHaveText(['Programme', 'Telescopes', 'Getting here', 'Beds', 'Prices', 'Contact', 'Questions'])
      await expect(live.locator('nav a').last()).toHaveAttribute('href', '#seven-nights')
      await page.getByRole('button', { name: 'Add item for Monday' }).click()
      await expect(live.locator('nav a', { hasText: 'Monday' })).toHaveAttribute('href', '#monday-finding-your-way')
    })

    await test.step('breathing space and motion are changed', async () => {
      await task(page, 'Travel')
      await page.getByRole('spinbutton', { name: 'Breathing space' }).fill('40')
      await page.getByRole('spinbutton', { name: 'Breathing space' }).press('Enter')
      await page.getByLabel('Immediate').check()
      await expect
        .poll(async () => (await frameOf(page, 'laptop')).evaluate(() => getComputedStyle(document.documentElement).scrollBehavior))
        .toBe('auto')
      await page.getByLabel('Smooth').check()
    })

    await test.step('the live page stops where it was computed, on both screens', async () => {
      for (const screen of ['Laptop', 'Phone']) {
        await page.getByRole('radio', { name: new RegExp(screen) }).click()
        const key = screen.toLowerCase()
        await measured(page)
        // Links are tried after a change, and the page ends at its top.
        await page
          .getByTestId('tried')
          .getByText(/links tried on/)
          .waitFor()
        for (const id of ['the-telescopes', 'contact']) {
          const computed = Number(
            await page.locator(`[data-arrival-row="${id}"] [data-screen="${key}"][data-land]`).getAttribute('data-land'),
          )
          const link = liveFrame(page, key).locator(`nav a[href="#${id}"]`)
          // Sideways only: the menu's own scroller, as a finger moves it.
          await link.evaluate((el) => {
            const nav = el.closest('nav')!
            nav.scrollLeft += el.getBoundingClientRect().left - nav.getBoundingClientRect().left - 40
          })
          await clickIn(page, key, `nav a[href="#${id}"]`)
          // From above or below: the screens are synced.
          const position = async () => (await frameOf(page, key)).evaluate(() => scrollY)
          await expect.poll(async () => Math.abs((await position()) - computed)).toBeLessThan(2)
          await page.waitForTimeout(1200)
          const scroll = await position()
          expect(Math.abs(scroll - computed), `${id} on ${screen}: ${scroll}, computed ${computed}`).toBeLessThanOrEqual(1)
          await expect(link).toHaveAttribute('aria-current', 'true')
        }
      }
    })

    await test.step('everything can be undone, after a reload too', async () => {
      await stored(page)
      await page.reload()
      await measured(page)
      const undo = page.getByRole('button', { name: /^Undo/ })
      while (await undo.isEnabled()) await undo.click()
      await stored(page)
      await task(page, 'Sections')
      await expect(page.getByRole('button', { name: 'Set everything up', exact: true })).toBeVisible()
      await expect(liveFrame(page).locator('nav a').first()).toHaveAttribute('href', '#')
      const redo = page.getByRole('button', { name: /^Redo/ })
      while (await redo.isEnabled()) await redo.click()
      await stored(page)
      await expect(liveFrame(page).locator('#sleeping')).toHaveCount(1)
    })

    await test.step('the page is downloaded, and works there', async () => {
      await task(page, 'Handover')
      await expect(page.getByText(/\d+ changes/)).toBeVisible()
      const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Download index.html' }).click()])
      const [zip] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Download ZIP' }).click()])
      const home = freshFolder()
      const files = unzipSync(new Uint8Array(readFileSync(await zip.path())))
      expect(Object.keys(files).sort()).toContain('img/map.svg')
      expect(Buffer.from(files['index.html']!).equals(readFileSync(await file.path()))).toBe(true)
      writeFileSync(join(home, 'index.html'), files['index.html']!)
      for (const name of ['sky-week.css', 'sky-week.js']) writeFileSync(join(home, name), files[name]!)
      const visitor = await page.context().newPage()
      await visitor.goto(pathToFileURL(join(home, 'index.html')).href)
      await visitor.locator('nav a', { hasText: 'Beds' }).click()
      await atRest(visitor)
      const { scroll, tops, current } = await facts(visitor)
      expect(Math.abs(scroll - (tops['sleeping']! - (await coveredEdge(visitor)) - 40))).toBeLessThanOrEqual(1)
      expect(current.map((c) => c.href)).toEqual(['#sleeping'])
    })
  })

  test('the patched live page equals a fresh load of the handover, its scripts off', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    await page.getByLabel('Page’s own scripts').uncheck()
    await measured(page)
    // New IDs: one was the page's own, the others were only proposed. And a point; each is shown before the next is made.
    for (const [n, id] of [
      [5, 'boats'],
      [6, 'sleeping'],
      [6, 'straw'],
    ] as const) {
      await page.getByLabel(`ID of section ${n}`, { exact: true }).fill(id)
      await page.getByLabel(`ID of section ${n}`, { exact: true }).press('Enter')
      await expect(liveFrame(page).locator(`section#${id}`)).toHaveCount(1)
    }
    await expect(page.getByRole('button', { name: 'Forget the former ID getting-here' })).toBeVisible()
    await expect(page.getByRole('button', { name: 'Forget the former ID sleeping' })).toHaveCount(0)
    await page.getByRole('button', { name: 'More for section Programme' }).click()
    await page.getByRole('menuitem', { name: 'Put a point before this element' }).click()
    await task(page, 'Menus')
    await page.getByRole('button', { name: 'Move item Contact', exact: true }).focus()
    for (let i = 0; i < 3; i++) await page.keyboard.press('Alt+ArrowUp')
    await page.getByRole('button', { name: 'Remove item Beds' }).click()
    await page.getByRole('button', { name: 'Add item for How dark is dark' }).click()
    await page.getByLabel('Label of item Tickets').fill('Ticket & <price>')
    await page.getByLabel('Label of item Tickets').press('Enter')
    await stored(page)
    await page.waitForTimeout(1500)
    const [file] = await (await task(page, 'Handover'),
    Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'Download index.html' }).click()]))
    const html = readFileSync(await file.path(), 'utf8')
    for (const id of ['getting-here', 'boats', 'straw']) expect(html.split(` id="${id}"`), id).toHaveLength(2)
    expect(html).not.toContain('"sleeping"')
    const difference = await (
      await frameOf(page, 'laptop')
    ).evaluate((text) => {
      const fresh = new DOMParser().parseFromString(text, 'text/html')
      // The live page's script has all parts, a handover only those the page needs.
      const scripts = [fresh, document].map((d) => d.querySelector('script[data-wb="script"]')!)
      scripts[0]!.textContent = scripts[1]!.textContent
      const serialize = (d: Document) => d.documentElement.outerHTML.replace(/ style="--wb[^"]*"/, '')
      if (fresh.documentElement.isEqualNode(document.documentElement)) return null
      const [a, b] = [serialize(fresh), serialize(document)]
      let i = 0
      while (i < a.length && a[i] === b[i]) i++
      return i >= a.length && a.length === b.length ? null : `${a.slice(i - 80, i + 120)} ≠ ${b.slice(i - 80, i + 120)}`
    }, html)
    expect(difference).toBeNull()
  })

  test('bands match the survey, and spine and page move each other', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    const spine = page.getByTestId('spine')
    const scale = Number(await spine.getAttribute('data-scale'))
    const origin = (await spine.boundingBox())!.y + 1
    const boxes = await (
      await frameOf(page, 'laptop')
    ).evaluate(() =>
      ['programme', 'the-telescopes', 'how-dark-is-dark', 'contact']
        .map((id) => [document.getElementById(id)!.getBoundingClientRect(), scrollY] as const)
        .map(([b, y]) => [b.top + y, b.bottom + y]),
    )
    const names = ['Programme', 'The telescopes', 'How dark is dark', 'Contact']
    for (const [i, name] of names.entries()) {
      const band = (await spine.locator(`[data-band][title="${name}"]`).boundingBox())!
      expect(Math.abs(band.y - origin - boxes[i]![0]! * scale)).toBeLessThanOrEqual(1)
      expect(Math.abs(band.y + band.height - origin - boxes[i]![1]! * scale)).toBeLessThanOrEqual(1)
    }
    const window = page.getByTestId('window')
    const box = (await window.boundingBox())!
    await page.mouse.move(box.x + 10, box.y + 10)
    await page.mouse.down()
    await page.mouse.move(box.x + 10, box.y + 10 + 200, { steps: 4 })
    await page.mouse.up()
    await expect.poll(async () => (await frameOf(page, 'laptop')).evaluate(() => scrollY)).toBeGreaterThan(200 / scale - 40)
    await (await frameOf(page, 'laptop')).evaluate(() => scrollTo({ top: 1000, behavior: 'instant' }))
    await expect.poll(async () => Math.round((await window.boundingBox())!.y - origin - 1000 * scale)).toBeLessThanOrEqual(2)
    await window.focus()
    await page.keyboard.press('End')
    await expect
      .poll(async () =>
        (await frameOf(page, 'laptop')).evaluate(() => Math.round(scrollY + innerHeight - document.documentElement.scrollHeight)),
      )
      .toBeGreaterThanOrEqual(-1)
  })

  test('a walk finds every link where it was computed', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    await task(page, 'Walk')
    await page.getByRole('button', { name: 'Start the walk' }).click()
    await expect(page.getByText('18 of 18 links, all as computed')).toBeVisible({ timeout: 240_000 })
  })

  for (const name of ['bare-hash', 'plain-divs', 'glass', 'short-end', 'article', 'right-to-left']) {
    test(`arrivals are computed as they are measured: ${name}.html`, async ({ page, server }) => {
      await bringIn(page, server, join(repository, `e2e/pages/${name}.html`))
      await setUp(page)
      await measured(page)
      await task(page, 'Travel')
      for (const screen of ['laptop', 'phone']) {
        await page.getByRole('radio', { name: new RegExp(screen, 'i') }).click()
        await measured(page)
        const rows = page.locator('[data-arrival-row]')
        const ids = await rows.evaluateAll((els) => els.map((el) => el.getAttribute('data-arrival-row')!))
        // The second, a middle one, and the last.
        for (const id of new Set([ids[1]!, ids[ids.length >> 1]!, ids.at(-1)!])) {
          const row = rows.filter({ has: page.locator(`xpath=self::*[@data-arrival-row="${id}"]`) })
          const land = Number(await row.locator(`[data-screen="${screen}"][data-land]`).getAttribute('data-land'))
          await (await frameOf(page, screen)).evaluate(() => scrollTo({ top: 0, behavior: 'instant' }))
          await row.getByRole('rowheader').getByRole('button').first().click()
          await expect
            .poll(async () => Math.abs((await (await frameOf(page, screen)).evaluate(() => scrollY)) - land))
            .toBeLessThanOrEqual(1)
          await page.waitForTimeout(400)
          const { scroll, top, end, covered } = await (
            await frameOf(page, screen)
          ).evaluate((target) => {
            const bars = [...document.querySelectorAll('[data-wb-header], [data-wb="menu"]')].filter((el) =>
              /fixed|sticky/.test(getComputedStyle(el).position),
            )
            const el = document.getElementById(target)!
            return {
              scroll: scrollY,
              top: el.getBoundingClientRect().top + scrollY,
              end: document.scrollingElement!.scrollHeight - document.scrollingElement!.clientHeight,
              covered: Math.max(0, ...bars.map((b) => b.getBoundingClientRect().bottom)),
            }
          }, id)
          expect(Math.abs(scroll - land), `#${id} on ${screen}: at ${scroll}, computed ${land}`).toBeLessThanOrEqual(1)
          expect(Math.abs(scroll - Math.min(Math.max(0, top - covered - 24), end)), `#${id} on ${screen}`).toBeLessThanOrEqual(1)
        }
      }
    })
  }

  test('an edit and its undo survive a crash right after “stored”', async ({ page, emptyServer: server }) => {
    await openDemo(page, server)
    await setUp(page)
    await measured(page)
    const title = page.getByLabel('Title of section 2')
    await title.fill('What happens when')
    await title.press('Enter')
    await stored(page)
    await server.kill()
    await server.start()
    await page.goto(server.address)
    await page.getByRole('link', { name: /Ostrey Sky Week/ }).click()
    await expect(page.getByLabel('Title of section 2')).toHaveValue('What happens when')
    await page.getByRole('button', { name: 'Undo: change a title' }).click()
    await expect(page.getByLabel('Title of section 2')).toHaveValue('Programme')
  })

  test('a page is brought in by picking, dropping and pasting', async ({ page, server }) => {
    await page.goto(server.address)
    const html = (title: string) =>
      `<!doctype html><title>${title}</title><link rel=stylesheet href="css/a.css"><section><h2>One</h2><p>words</p></section><section><h2>Two</h2><img src="pic.png"></section>`
    await page.getByTestId('files').setInputFiles([
      { name: 'page.html', mimeType: 'text/html', buffer: Buffer.from(html('Picked')) },
      { name: 'a.css', mimeType: 'text/css', buffer: Buffer.from('h2 { color: rgb(1, 2, 3) }') },
    ])
    await expect(page.getByRole('heading', { name: 'Picked' })).toBeVisible()
    await expect(page.getByText('A file that the page needs is missing')).toBeVisible()
    await expect(page.getByText('pic.png', { exact: true })).toBeVisible()
    await measured(page)
    await expect(liveFrame(page).locator('h2').first()).toHaveCSS('color', 'rgb(1, 2, 3)')
    await setUp(page)
    await measured(page)
    await expect(liveFrame(page).locator('[data-wb="menu"] a')).toHaveText(['One', 'Two'])

    await page.goto(server.address)
    const dropped = await page.evaluateHandle((text) => {
      const data = new DataTransfer()
      data.items.add(new File([text], 'index.html', { type: 'text/html' }))
      return data
    }, html('Dropped'))
    await page.getByRole('main').dispatchEvent('drop', { dataTransfer: dropped })
    await expect(page.getByRole('heading', { name: 'Dropped' })).toBeVisible()

    await page.goto(server.address)
    await page.getByRole('button', { name: 'Paste HTML' }).click()
    await page.getByLabel('HTML of the page').fill(html('Pasted'))
    await page.getByRole('button', { name: 'Make a site of it' }).click()
    await expect(page.getByRole('heading', { name: 'Pasted' })).toBeVisible()
  })

  test('files that aren’t pages are refused with a reason, and leave nothing', async ({ page, emptyServer: server }) => {
    await page.goto(server.address)
    const give = (buffer: Buffer) => page.getByTestId('files').setInputFiles({ name: 'page.html', mimeType: 'text/html', buffer })
    for (const [content, words] of [
      ['', 'The file is empty'],
      ['only words', 'not HTML'],
      ['<div>'.repeat(6000), '4096 levels'],
      ['<p>' + 'x'.repeat(20 * 1024 * 1024), '20 MB'],
    ] as const) {
      await give(Buffer.from(content))
      await expect(page.getByRole('alert')).toContainText(words)
    }
    await page.reload()
    await expect(page.getByText('No sites yet')).toBeVisible()
    await expect(page.getByRole('listitem')).toHaveCount(0)
  })

  test.describe('a page', () => {
    const chapters = Array.from(
      { length: 400 },
      (_, i) =>
        `<section><h2>Chapter ${i}</h2>${'<p>Words of a chapter that goes on for a while and then some more.</p>'.repeat(100)}</section>`,
    ).join('')
    for (const [name, bytes, sections] of [
      ['of 3 MB', Buffer.from(`<!doctype html><title>Manual</title>${chapters}`), 400],
      [
        'in UTF-16',
        Buffer.concat([
          Buffer.from([0xff, 0xfe]),
          Buffer.from('<title>Wide</title><section><h2>Füße</h2></section><section><h2>Два</h2></section>', 'utf16le'),
        ]),
        2,
      ],
      [
        'in windows-1252',
        Buffer.from(
          '<meta charset=windows-1252><title>Alt</title><section><h2>Gr\xfc\xdfe</h2></section><section><h2>\x84Zwei\x93</h2></section>',
          'latin1',
        ),
        2,
      ],
      ['with unclosed elements', Buffer.from('<title>Open</title><div><h2>One</h2><p>a<div><h2>Two</h2><p>b<b><i>'), 2],
      ['of one section', Buffer.from('<title>Single</title><section><h1>Alone</h1><p>words</p></section>'), 0],
    ] as const)
      // A page of 40,000 elements on four screens takes time on a busy machine.
      test(`${name} works`, async ({ page, server }) => {
        await bringIn(page, server, [{ name: 'page.html', mimeType: 'text/html', buffer: bytes }])
        await setUp(page)
        await measured(page)
        await expect(page.getByRole('tree', { name: 'Sections' })).toBeVisible()
        expect(await liveFrame(page).locator('[data-wb="menu"] a').count()).toBe(sections)
      })
  })

  for (const scheme of ['light', 'dark'] as const)
    test(`the main views are clean for assistive technology, ${scheme}`, async ({ page, emptyServer: server }) => {
      await page.emulateMedia({ colorScheme: scheme })
      await openDemo(page, server)
      await page.goto(server.address)
      const site = page.getByRole('link', { name: /Ostrey/ })
      await expect(site).toBeVisible()
      await clean(page, 'sites')
      await site.click()
      await measured(page)
      await setUp(page)
      await measured(page)
      for (const name of ['Sections', 'Menus', 'Travel', 'Highlight', 'Walk', 'Handover']) {
        await task(page, name)
        await clean(page, name)
      }
    })
})
