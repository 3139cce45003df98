/** End space on pages of running text, with headings or anchors as sections: it comes after the text and separates nothing. */
import { expect, type Browser, type Page } from '@playwright/test'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import { atRest, coveredEdge } from './support/boxes.ts'
import { repository } from './support/cli.ts'
import { measured, setUp, task, type File } from './support/server.ts'
import { bringIn, takeHome } from './support/sheet.ts'
import { test } from './support/test.ts'

const part = (id: string, title: string) =>
  `<h2 id="${id}">${title}</h2>\n<p>${'It stands by the water and can be seen from the hill. '.repeat(18)}</p>\n`
const page = (body: string): File[] => [
  {
    name: 'index.html',
    mimeType: 'text/html',
    buffer: Buffer.from(
      `<!doctype html><html lang="en"><head><meta name="viewport" content="width=device-width"><title>Mills</title></head><body style="max-width: 560px; font: 20px/23px serif">${body}</body></html>`,
    ),
  },
]
const nav =
  '<nav style="position: sticky; top: 0; background: #fff"><a href="#post">Post mill</a> <a href="#tower">Tower mill</a> <a href="#smock">Smock mill</a></nav>'
const three = part('post', 'Post mill') + part('tower', 'Tower mill') + part('smock', 'Smock mill')

const pages: [name: string, files: string | File[], last: string][] = [
  ['anchors in headings', join(repository, 'e2e/pages/field/row-of-words/index.html'), 'rent'],
  [
    'headings in a block, and a footer behind it',
    page(`${nav}<main><h1>Mills</h1>${three}</main><footer>By the water board</footer>`),
    'smock',
  ],
  ['headings in blocks of their own', page(`${nav}<h1>Mills</h1>${three.replaceAll(/<h2.*<\/h2>/g, '<div>$&</div>')}`), 'smock'],
]

/** Distances from headings to the next content, and heights; without added space. */
const spaces = (there: Page) =>
  there.evaluate(() =>
    [...document.querySelectorAll('h2')].map((h) => {
      const next = [...document.querySelectorAll('p')].find((p) => h.compareDocumentPosition(p) & Node.DOCUMENT_POSITION_FOLLOWING)!
      const { top, height } = h.getBoundingClientRect()
      return [height, next.getBoundingClientRect().top - top]
    }),
  )

async function visit<T>(
  browser: Browser,
  address: string,
  [width, height]: readonly [number, number],
  look: (there: Page) => Promise<T>,
): Promise<T> {
  const context = await browser.newContext({ viewport: { width, height } })
  const there = await context.newPage()
  await there.goto(address)
  await atRest(there)
  const seen = await look(there)
  await context.close()
  return seen
}

for (const [name, files, last] of pages)
  test(`room is left behind the text: ${name}`, async ({ page, browser, server }) => {
    await bringIn(page, server, files)
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    const cell = (screen: string) => page.locator(`[data-arrival-row="${last}"] [data-screen="${screen}"]`)
    for (const screen of ['laptop', 'phone']) await expect(cell(screen)).toContainText('too short')
    const room = page.getByRole('region', { name: 'Space at the end' })
    await expect(room).toContainText('after')
    await room.getByRole('button', { name: /^Add \d+ px at the end$/ }).click()
    await measured(page)
    for (const screen of ['laptop', 'phone']) await expect(cell(screen)).toHaveText('24')
    const home = await takeHome(page)
    const came = typeof files === 'string' ? files : join(home, '../came.html')
    if (typeof files !== 'string') writeFileSync(came, files[0]!.buffer)
    for (const size of [
      [1280, 800],
      [390, 844],
      [1024, 900],
    ] as const) {
      const before = await visit(browser, pathToFileURL(came).href, size, spaces)
      await visit(browser, `${pathToFileURL(home).href}#${last}`, size, async (there) => {
        const after = await spaces(there)
        expect(after).toHaveLength(before.length)
        for (const [i, both] of after.entries())
          for (const [j, px] of both.entries()) expect(Math.abs(px - before[i]![j]!), `heading ${i} at ${size[0]}`).toBeLessThan(1 / 32)
        const top = await there.evaluate(
          (id) => (document.getElementById(id) ?? document.getElementsByName(id)[0]!).getBoundingClientRect().top,
          last,
        )
        expect(Math.abs(top - (await coveredEdge(there)) - 24), `arrival at ${size[0]}`).toBeLessThanOrEqual(1)
      })
    }
  })

for (const [name, style] of [
  ['a height', 'height: 430px; box-sizing: border-box; padding: 12px'],
  ['a min-height', 'min-height: 380px; box-sizing: border-box; padding: 8px 0 20px'],
  ['a stretched row', 'flex: 1'],
] as const)
  test(`padding at the end isn’t swallowed by ${name}: one press suffices on every screen`, async ({ page, browser, server }) => {
    const section = (id: string, title: string, style: string) =>
      `<section id="${id}" style="${style}"><h2>${title}</h2><p>By the weir.</p></section>`
    const files: File[] = [
      {
        name: 'index.html',
        mimeType: 'text/html',
        buffer: Buffer.from(
          `<!doctype html><html lang="en"><head><meta name="viewport" content="width=device-width"><title>Locks</title></head><body style="margin: 0; min-height: 2000px; display: flex; flex-direction: column"><nav><a href="#upper">Upper lock</a> <a href="#lower">Lower lock</a> <a href="#sea">Sea lock</a></nav>${section('upper', 'Upper lock', 'min-height: 900px')}${section('lower', 'Lower lock', 'min-height: 700px')}${section('sea', 'Sea lock', style)}</body></html>`,
        ),
      },
    ]
    await bringIn(page, server, files)
    await setUp(page)
    await measured(page)
    await task(page, 'Travel')
    const cells = page.locator('[data-arrival-row="sea"] [data-screen]')
    await expect(cells.filter({ hasText: 'too short' })).not.toHaveCount(0)
    const space = page.getByRole('region', { name: 'Space at the end' })
    await expect(space.getByRole('combobox')).toHaveValue('padding')
    await space.getByRole('button', { name: /^Add \d+ px at the end$/ }).click()
    await measured(page)
    await expect(cells.filter({ hasText: 'too short' })).toHaveCount(0)
    await expect(space.getByRole('button', { name: /^Add/ })).toHaveCount(0)
    const home = await takeHome(page)
    for (const size of [
      [1280, 800],
      [390, 844],
      [1920, 1080],
    ] as const) {
      const gap = await visit(browser, pathToFileURL(home).href, size, async (there) => {
        await there.locator('nav a[href="#sea"]').click()
        await atRest(there)
        const top = await there.evaluate(() => document.querySelector('#sea')!.getBoundingClientRect().top)
        return top - (await coveredEdge(there))
      })
      expect(Math.abs(gap - 24), size.join()).toBeLessThanOrEqual(1)
    }
  })
