/* global scrollTo */
/** `node scripts/screenshots.mjs [NAME…]`: the main views with the demo site, at 1280x800, into docs/screenshots; all, or those named. */
import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { root } from './ensure.mjs'

const asked = process.argv.slice(2)
const wanted = (name) => !asked.length || asked.includes(name)
const server = spawn(process.execPath, [join(root, 'apps/server/dist/main.js')], {
  env: { ...process.env, WAYBELL_DATA: mkdtempSync(join(tmpdir(), 'waybell-shots-')), WAYBELL_PORT: '0' },
})
const address = await new Promise((done) => server.stdout.on('data', (chunk) => done(/http:\S+\d/.exec(String(chunk))[0])))
const browser = await chromium.launch({
  executablePath: process.env.WAYBELL_BROWSER ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
})
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.addInitScript("location.hostname === '127.0.0.1' && localStorage.setItem('way-bell-welcomed', 'true')")
const shot = (name) => wanted(name) && page.screenshot({ path: join(root, `docs/screenshots/${name}.png`) })
const task = (name) => page.getByRole('navigation', { name: 'Tasks' }).getByRole('link', { name }).click()
/** Of the settings of Travel. */
const openGroup = (name) => page.getByRole('region', { name, exact: true }).getByRole('button', { expanded: false }).first().click()
const measured = () =>
  page.waitForFunction(
    () => document.querySelectorAll('iframe[data-state="ready"]').length === 5 && document.querySelector('[data-stale="0"]'),
    null,
    { timeout: 60000 },
  )
const tried = async () => {
  await measured()
  await page
    .getByTestId('tried')
    .getByText(/links tried on/)
    .waitFor({ timeout: 60000 })
}

try {
  await page.goto(address)
  await page.getByRole('link', { name: /Ostrey/ }).waitFor()
  await shot('sites')
  await page.getByRole('link', { name: /Ostrey/ }).click()
  await tried()
  await shot('sections')
  for (const name of ['Menus', 'Travel', 'Highlight', 'Walk', 'Handover'].filter((n) => wanted(n.toLowerCase()))) {
    await task(name)
    if (name === 'Travel') {
      await page.getByTitle('Go to The telescopes in the live page').first().click()
      await page.waitForTimeout(2500)
    }
    if (name === 'Walk') {
      await page.getByRole('button', { name: 'Start the walk' }).click()
      await page.getByText(/^(\d+) of \1 /).waitFor({ timeout: 120000 })
    }
    if (name === 'Handover') {
      await page.getByRole('button', { name: 'Download index.html' }).click()
      await page.getByText('Earlier handovers').waitFor({ timeout: 10000 })
    }
    await page.waitForTimeout(900)
    await shot(name.toLowerCase())
  }
  if (wanted('coverage')) {
    await task('Menus')
    await page.getByRole('button', { name: 'Coverage' }).click()
    await page.waitForTimeout(400)
    await shot('coverage')
    await page.keyboard.press('Escape')
  }
  if (wanted('looks')) {
    await task('Menus')
    await page.getByRole('button', { name: 'Make a menu' }).click()
    await page.getByRole('button', { name: 'Rail at a side' }).click()
    await page.getByRole('button', { name: 'Look of Sections' }).click()
    const look = page.getByRole('group', { name: 'Look of Sections' })
    await look.getByRole('button', { name: 'Domed' }).click()
    await look.getByLabel('Background of Sections').fill('#16213e')
    await look.getByLabel('Text of Sections').fill('#ffe9c9')
    await look.getByLabel('Shadow of Sections').selectOption('soft')
    await look.getByRole('spinbutton', { name: 'Opacity' }).first().fill('60')
    await page.keyboard.press('Enter')
    await look.evaluate((el) => el.scrollIntoView({ block: 'center' }))
    await page
      .frameLocator('iframe[data-screen="laptop"]')
      .locator('html')
      .evaluate(() => scrollTo({ top: 1500, behavior: 'instant' }))
    await page
      .getByTestId('tried')
      .getByText(/links tried on/)
      .waitFor({ timeout: 90000 })
    await page
      .frameLocator('iframe[data-screen="laptop"]')
      .locator('html')
      .evaluate(() => scrollTo({ top: 1500, behavior: 'instant' }))
    await page.waitForTimeout(900)
    await shot('looks')
    for (let i = 0; i < 6; i++) await page.getByRole('button', { name: /^Undo/ }).click()
  }
  if (wanted('screens')) {
    await task('Travel')
    await page.getByRole('button', { name: 'Room above Beds' }).click()
    await page.getByLabel('Extra offset').fill('16')
    await tried()
    await page.getByRole('button', { name: /^Beds, Laptop/ }).click()
    await page.waitForTimeout(2500)
    await shot('screens')
    await page.getByRole('button', { name: 'See it arrive on every screen' }).click()
    await page.getByText('On its way').first().waitFor({ state: 'detached' })
    await page.waitForFunction(() => !document.body.innerText.includes('On its way'))
    await page.waitForTimeout(500)
    await shot('arrival-card')
    await page.getByRole('button', { name: 'Done' }).click()
    await page.getByRole('button', { name: /^Undo/ }).click()
    await tried()
  }
  if (wanted('header')) {
    await task('Travel')
    await openGroup('Motion')
    await page.getByRole('radio', { name: 'Timed' }).check()
    await openGroup('Header')
    await page.getByLabel('gets a shadow').check()
    await page.getByLabel('hides on the way down').check()
    await page.getByRole('button', { name: /^Add \d+ px at the end/ }).click()
    await tried()
    await page
      .frameLocator('iframe[data-screen="laptop"]')
      .locator('html')
      .evaluate(() => scrollTo({ top: 4100, behavior: 'instant' }))
    await page.waitForTimeout(500)
    await page
      .frameLocator('iframe[data-screen="laptop"]')
      .locator('html')
      .evaluate(() => scrollTo({ top: 3900, behavior: 'instant' }))
    await page.waitForTimeout(1200)
    await shot('header')
    for (let i = 0; i < 4; i++) await page.getByRole('button', { name: /^Undo/ }).click()
  }
  await task('Sections')
  if (wanted('naming')) {
    await page.getByRole('button', { name: 'Naming rule' }).click()
    const dialog = page.getByRole('dialog')
    await dialog.getByLabel('Prefix', { exact: true }).fill('sky')
    await dialog.getByLabel('Host system adds').check()
    await dialog.getByRole('radio', { name: /^all sections/ }).check()
    await page.waitForTimeout(300)
    await shot('naming')
    await dialog.getByRole('button', { name: 'Cancel' }).click()
  }
  if (wanted('picker')) {
    await page.getByRole('button', { name: 'Pick on the page' }).click()
    const frame = await page.locator('iframe[data-screen="laptop"]').boundingBox()
    await page.mouse.move(frame.x + frame.width * 0.2, frame.y + frame.height * 0.32)
    await page.waitForTimeout(400)
    await shot('picker')
    await page.getByRole('button', { name: 'Stop picking' }).click()
  }
  if (wanted('new-version')) {
    const source = readFileSync(join(root, 'demo/ostrey/index.html'), 'utf8')
    const cut = (from, to) => source.slice(source.indexOf(from), source.indexOf(to))
    const tickets = cut('<section class="tickets', '<section class="questions')
    const next = source
      .replace(tickets, '')
      .replace(cut('<section class="dark">', '<section id="getting-here"'), '')
      .replace('<section class="programme">', `${tickets}<section class="programme">`)
      .replace('<h2>Beds</h2>', '<h2>Where to sleep</h2>')
      .replace(
        '<section class="contact">',
        '<section class="choir"><div class="wrap"><h2>The choir</h2><p>Sings on the mole at midnight, in four parts and two coats.</p></div></section><section class="contact">',
      )
    await page.getByTestId('new-version').setInputFiles({ name: 'index.html', mimeType: 'text/html', buffer: Buffer.from(next) })
    await page.getByRole('dialog').waitFor()
    await page.waitForTimeout(300)
    await shot('new-version')
    await page.getByRole('button', { name: 'Keep the current version' }).click()
  }
  if (wanted('lantern-walk')) {
    await page.getByRole('banner').getByLabel('Page').selectOption('lantern-walk.html')
    await tried()
    await task('Menus')
    await page
      .frameLocator('iframe[data-screen="laptop"]')
      .locator('html')
      .evaluate(() => scrollTo({ top: 1750, behavior: 'instant' }))
    await page.waitForTimeout(900)
    await shot('lantern-walk')
    await task('Sections')
  }
  if (wanted('findings')) {
    await page.getByRole('banner').getByLabel('Page').selectOption('last-year.html')
    await measured()
    await page.getByRole('button', { name: 'Set everything up', exact: true }).click()
    await tried()
    await page.getByRole('button', { name: /findings/ }).click()
    await page.waitForTimeout(400)
    await shot('findings')
    await page.getByRole('button', { name: /findings/ }).click()
    await task('Travel')
    await page.waitForTimeout(900)
    await shot('last-year')
  }
} finally {
  await browser.close()
  server.kill()
}
