/** A browser's own time: starting, and loading a page once on each of five screens. `node yardstick.mjs BROWSER PAGE` */
import puppeteer from 'puppeteer-core'
import { pathToFileURL } from 'node:url'

const [executablePath, file] = process.argv.slice(2)
const screens = [
  [1280, 800],
  [390, 844],
  [820, 1180],
  [1920, 1080],
  [844, 390],
]
const browser = await puppeteer.launch({ executablePath, headless: 'shell', pipe: true, args: ['--no-sandbox', '--disable-gpu'] })
for (const [width, height] of screens) {
  const context = await browser.createBrowserContext()
  const page = await context.newPage()
  await page.setViewport({ width, height })
  await page.goto(pathToFileURL(file).href, { waitUntil: 'load' })
  await context.close()
}
await browser.close()
