/** The application, and a browser for it. */
import { spawn } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { root } from '../ensure.mjs'

export function startBrowser() {
  return chromium.launch({
    executablePath: process.env.WAYBELL_BROWSER ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
  })
}

/** On data of its own, which has the demo site. @param watch runs in the page before anything else */
export /** The application with its own data, and a browser. */
async function application(watch) {
  const server = spawn(process.execPath, [join(root, 'apps/server/dist/main.js')], {
    env: { ...process.env, WAYBELL_DATA: mkdtempSync(join(tmpdir(), 'waybell-bench-')), WAYBELL_PORT: '0' },
  })
  const address = await new Promise((done) => server.stdout.on('data', (chunk) => done(/http:\S+\d/.exec(String(chunk))[0])))
  const browser = await startBrowser()
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  // Otherwise the first run opens the demo.
  await page.addInitScript("location.hostname === '127.0.0.1' && localStorage.setItem('way-bell-welcomed', 'true')")
  if (watch) await page.addInitScript(watch)
  await page.goto(address)
  return { server, browser, page }
}
