/** Pictures without sizes get theirs: content below stays in place when they load, and nothing else moves. */
import { expect, test, type Browser } from '@playwright/test'
import { zipSync } from 'fflate'
import { readdirSync, readFileSync } from 'node:fs'
import { createServer, type Server as HttpServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { repository } from './support/cli.ts'
import { Server, setUp, task } from './support/server.ts'
import { bringIn, takeHome } from './support/sheet.ts'

const from = join(repository, 'e2e/pages/pictures')
const files = Object.fromEntries(readdirSync(from).map((name) => [name, new Uint8Array(readFileSync(join(from, name)))]))
const zip = (page: string) => ({
  name: 'bakery.zip',
  mimeType: 'application/zip',
  buffer: Buffer.from(zipSync({ ...files, 'index.html': new TextEncoder().encode(page) })),
})
const source = new TextDecoder().decode(files['index.html'])

let server: Server
let http: HttpServer
let address = ''
/** The page, and whether its pictures load. */
let shown = source
let comes = true

test.beforeAll(async () => {
  server = await new Server().start()
  http = createServer((request, response) => {
    const name = request.url!.slice(1)
    if (!name) return void response.writeHead(200, { 'content-type': 'text/html' }).end(shown)
    // Never answered: the page stays without them.
    if (!comes || !files[name]) return
    response.writeHead(200, { 'content-type': name.endsWith('.svg') ? 'image/svg+xml' : 'image/png' }).end(files[name])
  })
  await new Promise<void>((done) => http.listen(0, '127.0.0.1', done))
  address = `http://127.0.0.1:${(http.address() as AddressInfo).port}/`
})
test.afterAll(async () => {
  await server.stop()
  http.closeAllConnections()
  http.close()
})

/** Boxes of all visible elements in the sections, with or without pictures. */
async function boxes(browser: Browser, width: number, html: string, withPictures: boolean): Promise<Record<string, number[]>> {
  shown = html
  comes = withPictures
  const context = await browser.newContext({ viewport: { width, height: 800 } })
  const page = await context.newPage()
  await page.goto(address, { waitUntil: withPictures ? 'load' : 'domcontentloaded' })
  if (withPictures) {
    await page.evaluate(() => {
      for (const image of document.images) image.loading = 'eager'
    })
    await page.waitForFunction(() => [...document.images].every((image) => image.naturalWidth > 0))
  }
  // Slow transitions must end.
  await page.waitForTimeout(600)
  const seen = await page.evaluate(() =>
    Object.fromEntries(
      [...document.querySelectorAll('section, section *')].map((el, i) => {
        const { left, top, width, height } = el.getBoundingClientRect()
        return [`${i} ${el.localName} ${el.getAttribute('alt') ?? el.id}`, [left, top + scrollY, width, height]]
      }),
    ),
  )
  await context.close()
  return seen
}

const furthest = (a: Record<string, number[]>, b: Record<string, number[]>): number => {
  expect(Object.keys(a)).toEqual(Object.keys(b))
  return Math.max(...Object.keys(a).flatMap((name) => a[name]!.map((px, i) => Math.abs(px - b[name]![i]!))))
}

test('pictures get their files’ sizes, and content below no longer waits for them', async ({ page, browser }) => {
  await bringIn(page, server, [zip(source)])
  await setUp(page)
  await task(page, 'Travel')
  await page.getByRole('button', { name: /^\d+ finding/ }).click()
  const press = page.getByRole('button', { name: /^Give \d+ pictures their sizes$/ })
  await expect(press).toBeVisible({ timeout: 120_000 })
  // Without pictures that nothing is below, or with a height in their style.
  await expect(page.getByText(/^11 pictures have no size/)).toBeVisible()
  const given = Number(/\d+/.exec(await press.innerText())![0])
  await press.click()
  await expect(press).toHaveCount(0)
  const pictures = page.getByRole('region', { name: 'Pictures' })
  await pictures.getByRole('button', { name: /^Pictures/ }).click()
  await expect(pictures).toContainText(`${given} pictures have their sizes`)
  await pictures.getByRole('button', { name: 'Remove the sizes' }).click()
  await expect(press).toBeVisible()
  await page.getByRole('button', { name: /^Undo: / }).click()
  await expect(pictures).toBeVisible()
  const home = readFileSync(await takeHome(page), 'utf8')

  const sized = [...home.matchAll(/<img[^>]*data-wb-sized[^>]*>/g)].map(([tag]) => /alt="([^"]*)"/.exec(tag)![1])
  expect(sized).toHaveLength(given)
  // Without pictures that change the layout, have files by screen, or a height in their style.
  const all = ['A loaf', 'Comes in when it is near', 'Its door', 'Loaves on a board', 'Rye', 'Stretched', 'The oven', 'The sign', 'Wheat']
  expect(sized.sort()).toEqual(all)
  expect(home).toMatch(/<img[^>]*src="bread.png"[^>]*width="900" height="600"|<img[^>]*width="900" height="600"[^>]*src="bread.png"/)

  const oven = (all: Record<string, number[]>) => Object.entries(all).find(([name]) => name.endsWith('section oven'))![1][1]!
  for (const width of [1280, 820, 390, 1000]) {
    const [before, after] = [await boxes(browser, width, source, true), await boxes(browser, width, home, true)]
    expect(furthest(before, after), `at ${width}`).toBeLessThan(1 / 32)
    expect(Math.abs(oven(await boxes(browser, width, home, false)) - oven(after)), `late at ${width}`).toBeLessThan(1)
    expect(Math.abs(oven(await boxes(browser, width, source, false)) - oven(before))).toBeGreaterThan(300)
  }
})
