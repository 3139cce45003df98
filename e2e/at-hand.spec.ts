/** What a designer looks at comes first: the list of sites, the first run, the spine before the press, columns, Travel. */
import AxeBuilder from '@axe-core/playwright'
import { expect, type Page } from '@playwright/test'
import { freshFolder } from './support/cli.ts'
import { liveFrame, measured, openDemo, Server, setUp, stored, task } from './support/server.ts'
import { bringIn, takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'

const part = (title: string) => `<section style="height:900px"><h2>${title}</h2><p>Words of it.</p></section>`
const pageOf = (title: string, ...parts: string[]) =>
  Buffer.from(
    `<!doctype html><html lang="en"><title>${title}</title><header><nav><a href="#a">A</a></nav></header><main>${parts.map(part).join('')}</main></html>`,
  )
const html = (name: string, buffer: Buffer) => [{ name, mimeType: 'text/html', buffer }]
const width = async (page: Page, of: string) => (await page.locator(of).boundingBox())!.width
const clean = async (page: Page) =>
  expect((await new AxeBuilder({ page }).exclude('iframe').analyze()).violations.map((v) => `${v.id} ${v.nodes[0]!.html}`)).toEqual([])

test('the first run opens the demo with three hints that can be closed for good', async ({ browser }) => {
  const server = await new Server(freshFolder(), true).start()
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  try {
    await page.goto(server.address)
    await expect(page).toHaveURL(/\/site\/\w+\/p1\/sections$/)
    const hints = page.getByRole('complementary', { name: 'Hints' })
    await expect(hints.getByRole('listitem')).toHaveCount(3)
    await measured(page)
    await clean(page)
    await hints.getByRole('button', { name: 'Close the hints' }).click()
    await page.reload()
    await measured(page)
    await expect(hints).toHaveCount(0)
    await page.goto(server.address)
    await expect(page.getByRole('link', { name: 'Ostrey Sky Week' })).toBeVisible()
    await expect(page).toHaveURL(`${server.address}/`)
  } finally {
    await page.close()
    await server.stop()
  }
})

test('a listed site shows its page, findings and handover, and two with the same title differ', async ({ page, emptyServer }) => {
  await page.goto(emptyServer.address)
  await expect(page.getByText('No sites yet. Choose an HTML file above')).toBeVisible()
  await bringIn(page, emptyServer, html('spring.html', pageOf('Ferry', 'Times', 'Fares')))
  await setUp(page)
  await takeHome(page)
  await bringIn(page, emptyServer, html('autumn.html', pageOf('Ferry', 'Boats', 'Fares')))
  await page.goto(emptyServer.address)

  const rows = page.getByRole('listitem')
  await expect(rows).toHaveCount(2)
  await expect(rows.first()).toContainText('autumn.html · not set up yet')
  await expect(rows.last()).toContainText('spring.html · 2 sections')
  await expect(rows.last()).toContainText(/(no|1|2) findings? · handed over .*\d:\d\d.* · changed .*\d:\d\d/)
  await expect(rows.first()).not.toContainText('handed over')
  await expect(page.frameLocator('iframe').first().locator('h2').first()).toHaveText('Boats')
  await clean(page)

  // Within a few tab stops.
  for (let n = 0; n < 3; n++) await page.keyboard.press('Tab')
  await expect(page.getByRole('button', { name: 'Choose files' })).toBeVisible()
  const stops = await page.evaluate(() => document.activeElement!.textContent)
  expect(['Choose files', 'Paste HTML', 'Write an outline']).toContain(stops)

  await rows.last().getByRole('button', { name: 'Remove Ferry' }).click()
  await expect(page.getByRole('dialog')).toContainText('The site from spring.html')
  await page.keyboard.press('Escape')
  await rows.last().click()
  await expect(page).toHaveURL(/\/sections$/)
  await expect(page.getByText(/^spring\.html, /)).toBeVisible()
})

test('before the press the spine shows the parts found, and pressing one scrolls the live page', async ({ page, server }) => {
  await bringIn(page, server, html('index.html', pageOf('Ferry', 'Times', 'Fares', 'Islands')))
  await measured(page)
  const found = page.locator('[data-found]')
  await expect(found).toHaveText(['Times', 'Fares', 'Islands'])
  await found.nth(1).click()
  const top = () =>
    liveFrame(page)
      .locator('h2', { hasText: 'Fares' })
      .evaluate((el) => el.parentElement!.getBoundingClientRect().top)
  await expect.poll(top).toBeLessThan(100)
  await setUp(page)
  await expect(page.locator('[data-band]').first()).toBeVisible()
  await expect(found).toHaveCount(0)
})

test('columns grow with the window, can be moved by pointer and keys, and are remembered', async ({ page, server }) => {
  await openDemo(page, server)
  await expect.poll(() => width(page, '[data-testid="sheet"]')).toBe(422)
  await page.setViewportSize({ width: 1920, height: 1000 })
  await expect.poll(() => width(page, '[data-testid="sheet"]')).toBe(634)
  await page.setViewportSize({ width: 1280, height: 800 })

  const edge = page.getByRole('separator', { name: 'Width of the work' })
  await edge.focus()
  for (let n = 0; n < 3; n++) await page.keyboard.press('ArrowRight')
  await expect.poll(() => width(page, '[data-testid="sheet"]')).toBe(422 + 48)
  await expect(edge).toHaveAttribute('aria-valuenow', '470')

  const spine = page.getByRole('separator', { name: 'Width of the spine' })
  const box = (await spine.boundingBox())!
  await page.mouse.move(box.x + 4, box.y + 200)
  await page.mouse.down()
  // Over the live page, whose frames would capture the pointer.
  await page.mouse.move(box.x + 64, box.y + 200, { steps: 5 })
  await page.mouse.up()
  const spineWidth = () => spine.getAttribute('aria-valuenow')
  await expect.poll(spineWidth).toBe('260')
  await page.reload()
  await expect.poll(() => width(page, '[data-testid="sheet"]')).toBe(470)
  expect(await spineWidth()).toBe('260')
  await edge.press('Home')
  await expect.poll(() => width(page, '[data-testid="sheet"]')).toBe(422)
})

test('Travel starts with the arrivals; settings are a line each with their value, and one with a problem is open', async ({
  browser,
  emptyServer: server,
}) => {
  // A user who hasn't opened or closed any group.
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await openDemo(page, server)
  await setUp(page)
  await measured(page)
  await page.getByRole('navigation', { name: 'Tasks' }).getByRole('link', { name: 'Travel' }).click()
  const rows = page.locator('[data-arrival-row]')
  await expect(rows.first()).toBeInViewport()
  const group = (name: string) => page.locator(`[data-group="${name}"]`)
  const head = (name: string) => group(name).getByRole('button', { name: new RegExp(`^${name}`) })
  await expect(head('Space at the end')).toHaveAttribute('aria-expanded', 'true')
  for (const [name, value] of [
    ['Offset', 'header + 24 px'],
    ['Header', 'stays, shrinks'],
    ['Motion', 'smooth'],
    ['Address and history', 'adds entries'],
    ['Skip link', 'none'],
  ] as const) {
    await expect(head(name)).toHaveAttribute('aria-expanded', 'false')
    await expect(head(name)).toContainText(value)
  }
  await head('Offset').click()
  await page.getByLabel('Breathing space between header and section').fill('40')
  await page.keyboard.press('Enter')
  await expect(head('Offset')).toContainText('header + 40 px')
  await stored(page)
  // Ending the problem leaves the group as it is.
  await page.getByRole('button', { name: /^Add \d+ px at the end$/ }).click()
  await expect(head('Space at the end')).toHaveAttribute('aria-expanded', 'true')
  await expect(head('Space at the end')).toContainText('added')
  for (const name of ['Header', 'Motion', 'Address and history', 'Skip link']) await head(name).click()
  await clean(page)
})

test('a dialog closes by Escape although a page in a frame takes the focus', async ({ page, server }) => {
  await openDemo(page, server)
  await measured(page)
  await page.getByRole('button', { name: 'Screens', exact: true }).click()
  await expect(page.getByRole('dialog')).toBeVisible()
  await liveFrame(page)
    .locator('body')
    .evaluate((body) => {
      body.tabIndex = -1
      body.focus()
    })
  await expect.poll(() => page.evaluate(() => document.activeElement?.getAttribute('role'))).toBe('dialog')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
})

test('Spine and bell line are explained on focus', async ({ page, server }) => {
  await openDemo(page, server)
  await setUp(page)
  await page.getByText('Spine', { exact: true }).focus()
  await expect(page.getByRole('tooltip')).toContainText('whole page to scale')
  await task(page, 'Highlight')
  await page.getByText('Bell line', { exact: true }).focus()
  await expect(page.getByRole('tooltip')).toContainText('becomes current when its top crosses it')
})
