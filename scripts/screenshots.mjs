/** `node scripts/screenshots.mjs [ADDRESS]`: the main views with the demo site, at 1280x800, into docs/screenshots. */
import { spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from 'playwright-core'
import { root } from './ensure.mjs'

const server = spawn(process.execPath, [join(root, 'apps/server/dist/main.js')], { env: { ...process.env, WAYBELL_DATA: mkdtempSync(join(tmpdir(), 'waybell-shots-')), WAYBELL_PORT: '0' } })
const address = await new Promise((done) => server.stdout.on('data', (chunk) => done(/http:\S+\d/.exec(String(chunk))[0])))
const browser = await chromium.launch({ executablePath: process.env.WAYBELL_BROWSER ?? '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'] })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
const shot = (name) => page.screenshot({ path: join(root, `docs/screenshots/${name}.png`) })
await page.goto(address)
await page.getByRole('link', { name: /Ostrey/ }).waitFor()
await shot('sites')
await page.getByRole('link', { name: /Ostrey/ }).click()
await page.waitForFunction(() => document.querySelectorAll('iframe[data-state="ready"]').length === 2, null, { timeout: 60000 })
await page.getByRole('button', { name: 'Set everything up', exact: true }).click()
await page.waitForTimeout(1500)
for (const name of ['Sections', 'Menus', 'Travel', 'Highlight', 'Walk', 'Handover']) {
  await page.getByRole('navigation', { name: 'Tasks' }).getByRole('link', { name }).click()
  if (name === 'Travel') {
    await page.getByRole('button', { name: 'Go to', exact: false }).or(page.getByTitle('Go to The telescopes in the live page')).first().click()
    await page.waitForTimeout(2500)
  }
  if (name === 'Walk') {
    await page.getByRole('button', { name: 'Start the walk' }).click()
    await page.getByText(/18 of 18/).waitFor({ timeout: 120000 })
  }
  await page.waitForTimeout(900)
  await shot(name.toLowerCase())
}
await browser.close()
server.kill()
