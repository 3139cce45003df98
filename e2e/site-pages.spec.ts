/** Pages: several in a site, from a ZIP or an outline, in a new version; history, and two tabs on one site. */
import { expect, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { zipSync } from 'fflate'
import { repository } from './support/cli.ts'
import { liveFrame, measured, openDemo, setUp, stored, task } from './support/server.ts'
import { bringIn, ids, setId, takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'

test.describe('pages and versions', () => {
  test('a ZIP with several pages becomes a site, and its links follow a rename across pages', async ({ page, server }) => {
    const html = (title: string, body: string) =>
      Buffer.from(
        `<!doctype html><meta charset=utf-8><title>${title}</title><link rel=stylesheet href="${title === 'More' ? '../' : ''}css/a.css">${body}`,
      )
    const files = {
      'site/index.html': html(
        'Home',
        '<nav><a href="#work">Work</a> <a href="#team">Team</a></nav><section id=work><h2>Work</h2><p>words</p></section><section id=team><h2>Team</h2><p>words</p></section>',
      ),
      'site/sub/more.html': html(
        'More',
        '<p><a href="../index.html#work">Our work</a></p><section id=one><h2>One</h2></section><section id=two><h2>Two</h2></section>',
      ),
      'site/css/a.css': Buffer.from('h2 { color: rgb(1, 2, 3) }'),
    }
    await bringIn(page, server, [{ name: 'site.zip', mimeType: 'application/zip', buffer: Buffer.from(zipSync(files)) }])
    await expect(liveFrame(page).locator('#work h2')).toHaveCSS('color', 'rgb(1, 2, 3)')
    await setUp(page)
    await setId(page, 1, 'projects')
    await stored(page)
    await page.getByLabel('Page', { exact: true }).selectOption('sub/more.html')
    await measured(page)
    await expect(liveFrame(page).locator('#one h2')).toHaveCSS('color', 'rgb(1, 2, 3)')
    await setUp(page)
    await expect(liveFrame(page).locator('p a')).toHaveAttribute('href', '../index.html#projects')
    expect(readFileSync(await takeHome(page), 'utf8')).toContain('<a href="../index.html#projects">')

    await test.step('a page is added by dropping it, with undo', async () => {
      const data = await page.evaluateHandle(() => {
        const transfer = new DataTransfer()
        transfer.items.add(new File(['<title>Third</title><h2>A</h2>'], 'third.html', { type: 'text/html' }))
        return transfer
      })
      await page.dispatchEvent('main', 'drop', { dataTransfer: data })
      await expect(page.getByLabel('Page', { exact: true }).getByRole('option')).toHaveText(['index.html', 'sub/more.html', 'third.html'])
      await page.getByRole('button', { name: 'Undo: add a page' }).click()
      await expect(page.getByLabel('Page', { exact: true }).getByRole('option')).toHaveCount(2)
    })
  })

  test('an outline becomes a page', async ({ page, server }) => {
    await page.goto(server.address)
    await page.getByRole('button', { name: 'Write an outline' }).click()
    await page.getByLabel('The outline').fill('# The mill\nFlour.\n\n## Our work\nWe grind.\n\n## Visit us\n- by boat\n- on foot\n')
    await page.getByRole('button', { name: 'Make a page of it' }).click()
    await measured(page)
    await setUp(page)
    await expect.poll(() => ids(page)).toEqual(['the-mill', 'our-work', 'visit-us'])
  })

  test('a press right after the start isn’t lost when the font loads late', async ({ page, server }) => {
    await page.route('**/*.woff2', async (route) => {
      await new Promise((done) => setTimeout(done, 500))
      await route.continue()
    })
    await page.goto(server.address, { waitUntil: 'commit' })
    const button = page.getByRole('button', { name: 'Write an outline' })
    await button.waitFor()
    const box = (await button.boundingBox())!
    // At its edge, where it moves first.
    await page.mouse.move(box.x + box.width - 2, box.y + 4)
    await page.mouse.down()
    await page.evaluate(() => document.fonts.ready)
    await page.mouse.up()
    await expect(page.getByLabel('The outline')).toBeVisible()
  })

  test('a broken or hostile ZIP is refused with a reason, and leaves nothing', async ({ page, emptyServer: server }) => {
    await page.goto(server.address)
    const give = (buffer: Uint8Array) =>
      page.getByTestId('files').setInputFiles({ name: 'site.zip', mimeType: 'application/zip', buffer: Buffer.from(buffer) })
    const good = zipSync({ 'index.html': Buffer.from('<h1>x</h1>') })
    for (const [buffer, words] of [
      [good.subarray(0, good.length - 30), 'pack it again'],
      [zipSync({ 'index.html': Buffer.from('<h1>x</h1>'), '../evil.html': Buffer.from('x') }), '“../evil.html”'],
      [zipSync({ 'a.css': Buffer.from('x'), 'b.css': Buffer.from('x') }), 'no HTML file'],
    ] as const) {
      await give(buffer)
      await expect(page.getByRole('alert')).toContainText(words)
    }
    await page.reload()
    await expect(page.getByText('No sites yet')).toBeVisible()
    await expect(page.getByRole('listitem')).toHaveCount(0)
  })

  test('a new version is compared, decided and taken over, with undo', async ({ page, server }) => {
    await openDemo(page, server)
    await setUp(page)
    await setId(page, 6, 'sleeping')
    await task(page, 'Menus')
    await page.getByRole('button', { name: 'Add item for How dark is dark' }).click()
    await task(page, 'Sections')
    await stored(page)
    await expect.poll(() => ids(page)).toContain('sleeping')
    const before = await ids(page)
    const source = readFileSync(join(repository, 'demo/ostrey/index.html'), 'utf8')
    const cut = (from: string, to: string) => source.slice(source.indexOf(from), source.indexOf(to))
    const tickets = cut('<section class="tickets', '<section class="questions')
    const dark = cut('<section class="dark">', '<section id="getting-here"')
    expect(tickets.length).toBeGreaterThan(100)
    expect(dark.length).toBeGreaterThan(100)
    const next = source
      .replace(tickets, '')
      .replace(dark, '')
      // Tickets come first, the dark section goes, and a new one comes.
      .replace('<section class="programme">', `${tickets}<section class="programme">`)
      .replace('<h2>Beds</h2>', '<h2>Beds and bread</h2>')
      .replace(
        '<section class="contact">',
        '<section class="choir"><div class="wrap"><h2>The choir</h2><p>Sings on the mole at midnight, in four parts and two coats.</p></div></section><section class="contact">',
      )
    await page.getByTestId('new-version').setInputFiles({ name: 'index.html', mimeType: 'text/html', buffer: Buffer.from(next) })
    const dialog = page.getByRole('dialog')
    await expect(dialog.getByText(/1 lost, 1 new/)).toBeVisible()
    await expect(dialog.getByRole('row', { name: /Beds/ }).last()).toContainText('changed')
    await expect(dialog.getByRole('row', { name: /How dark is dark/ }).first()).toContainText('lost')
    await dialog.getByLabel('Links to How dark is dark').selectOption({ label: 'lead to 2 Programme' })
    const unsure = dialog.getByRole('button', { name: /is the same$/ })
    while (await unsure.count()) await unsure.first().click()
    await dialog.getByRole('button', { name: 'Take the new version over' }).click()
    await measured(page)
    await expect(liveFrame(page).locator('#the-choir h2')).toHaveText('The choir')
    expect(await ids(page)).toEqual([
      'seven-nights',
      'tickets',
      'programme',
      'the-telescopes',
      'getting-here',
      'sleeping',
      'questions-people-ask',
      'the-choir',
      'contact',
    ])
    await expect(liveFrame(page).locator('nav a', { hasText: 'Beds' })).toHaveAttribute('href', '#sleeping')
    await expect(liveFrame(page).locator('nav a', { hasText: 'How dark' })).toHaveAttribute('href', '#programme')
    await page.getByRole('button', { name: 'Undo: take over a new version' }).click()
    await measured(page)
    await expect.poll(() => ids(page)).toEqual(before)
    await expect(liveFrame(page).locator('#how-dark-is-dark')).toHaveCount(1)
  })

  test('ten tabs work and stay synced', async ({ page, context, server }) => {
    await openDemo(page, server)
    await setUp(page)
    const tabs = [page]
    for (let i = 1; i < 10; i++) {
      const tab = await context.newPage()
      await tab.goto(page.url())
      // A tab without a connection wouldn't even load its site.
      await expect(tab.getByLabel('Title of section 2')).toBeVisible({ timeout: 120_000 })
      tabs.push(tab)
    }
    const title = tabs[9]!.getByLabel('Title of section 2')
    await title.fill('From the tenth')
    await title.press('Enter')
    await stored(tabs[9]!)
    for (const tab of tabs) await expect(tab.getByLabel('Title of section 2')).toHaveValue('From the tenth')
    for (const tab of tabs.slice(1)) await tab.close()
  })

  test('two tabs stay synced, a clash is reported, and the history leads back', async ({ page, context, server }) => {
    await openDemo(page, server)
    await setUp(page)
    const other = await context.newPage()
    await other.goto(page.url())
    await measured(other)
    const title = (tab: Page) => tab.getByLabel('Title of section 2')
    await title(page).fill('What is on')
    await title(page).press('Enter')
    await expect(title(other)).toHaveValue('What is on')

    await test.step('the later of two clashing changes is reported', async () => {
      let letGo = () => {}
      const isLater = new Promise<void>((done) => (letGo = done))
      await other.route('**/changes', async (route) => {
        await isLater
        await route.continue()
      })
      await title(other).fill('From the other tab')
      await title(other).press('Enter')
      const isStored = page.waitForResponse('**/changes')
      await title(page).fill('From this tab')
      await title(page).press('Enter')
      await isStored
      letGo()
      await expect(other.getByText('Another tab changed this at the same time')).toBeVisible()
      await expect(title(other)).toHaveValue('From this tab')
      await other.unroute('**/changes')
    })

    await test.step('undo leaves the other tab’s changes alone', async () => {
      await other.getByRole('button', { name: 'Undo: set everything up' }).click()
      await expect(other.getByText('a later change builds on it')).toBeVisible()
      await expect(title(other)).toHaveValue('From this tab')
      await stored(other)
    })

    await test.step('a state is named, and restored', async () => {
      await stored(page)
      // A background tab isn't drawn in time for a press on its top layer: it would go to the live page below.
      await page.bringToFront()
      await page.getByRole('button', { name: 'History' }).click()
      const dialog = page.getByRole('dialog')
      // One is of the screens.
      await expect(dialog.getByRole('listitem')).toHaveCount(5)
      const name = dialog.getByLabel('Name of the state after change 2')
      await name.fill('First version')
      await name.press('Enter')
      await expect(dialog.getByText('First version:')).toBeVisible()
      await dialog.getByRole('button', { name: 'Go back to change 2' }).click()
      await expect(title(page)).toHaveValue('Programme')
      await expect(title(other)).toHaveValue('Programme')
      await page.getByRole('button', { name: 'Undo: go back', exact: false }).click()
      await expect(title(page)).toHaveValue('From this tab')
    })
  })
})
