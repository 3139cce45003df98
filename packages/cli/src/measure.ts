/** Surveys of a page in a Chromium that is named by path. The page is loaded from its own folder and reaches nothing else. */
import { agentText } from '@waybell/agent'
import type { AgentOfWindow } from '@waybell/agent/types'
import { stampPage, type PageReading, type ParsedPage, type Screen, type Survey } from '@waybell/core'
import mime from 'mime-types'
import { existsSync, readFileSync, statSync } from 'node:fs'
import { dirname, join, relative, resolve, sep } from 'node:path'
import { chromium, type Browser, type Route } from 'playwright-core'
import type { LocalFile } from './files.ts'

const ORIGIN = 'http://page.localhost'

export interface MeasureInput {
  pageFile: string
  bytes: Uint8Array
  parsed: ParsedPage
  reading: PageReading
  files: LocalFile[]
  screens: readonly Screen[]
  browser: string
}

/** By screen key. @throws Error when the browser does not start or the page does not come to rest */
export async function measure(input: MeasureInput): Promise<Record<string, Survey>> {
  const browser = await chromium.launch({
    executablePath: input.browser,
    // A dead proxy for everything, loopback too: what the routes below do not answer, nobody does.
    proxy: { server: 'http://127.0.0.1:9', bypass: '<-loopback>' },
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  })
  try {
    const surveys: Record<string, Survey> = {}
    for (const screen of input.screens) surveys[screen.key] = await measureScreen(browser, input, screen)
    return surveys
  } finally {
    await browser.close()
  }
}

async function measureScreen(browser: Browser, input: MeasureInput, screen: Screen): Promise<Survey> {
  const context = await browser.newContext({
    viewport: { width: screen.width, height: screen.height },
    hasTouch: screen.touch,
    serviceWorkers: 'block',
  })
  try {
    const site = mount(input)
    await context.route('**/*', (route) => site.answer(route))
    const page = await context.newPage()
    page.on('dialog', (dialog) => void dialog.dismiss())
    await page.goto(ORIGIN + site.path, { waitUntil: 'load', timeout: 30_000 })
    const request = {
      screen: screen.key,
      width: screen.width,
      height: screen.height,
      parts: input.reading.candidates.map(({ at, heading }) => ({ at, heading })),
      header: input.reading.header,
    }
    return await page.evaluate((r) => (window as AgentOfWindow).wayBellAgent!.probe(r), request)
  } finally {
    await context.close()
  }
}

/** The folder, or as much above it as the page's own paths need, as the root of a host. */
function mount({ pageFile, bytes, parsed, files }: MeasureInput) {
  const folder = dirname(resolve(pageFile))
  const up = Math.max(0, ...files.map((f) => f.path.split('/').filter((s) => s === '..').length))
  const root = resolve(folder, '../'.repeat(up) || '.')
  const prefix = '/' + relative(root, folder).split(sep).filter(Boolean).map(encodeURIComponent).join('/')
  const path = `${prefix === '/' ? '' : prefix}/${encodeURIComponent(pageFile.split(sep).pop()!)}`
  const html = Buffer.from(stampPage(bytes, parsed, `<script>${agentText}</script>`))
  const byPath = new Map(files.map((f) => [f.path, f.file]))
  const answer = async (route: Route): Promise<void> => {
    const url = new URL(route.request().url())
    if (url.origin !== ORIGIN) return route.abort()
    if (url.pathname === path) return route.fulfill({ body: html, contentType: `text/html; charset=${parsed.decoded.encoding}` })
    const wanted = decodeURIComponent(url.pathname)
    const inside = join(root, wanted)
    const inFolder = join(folder, wanted)
    const file = [byPath.get(relative(folder, inside).split(sep).join('/')), inside, inFolder].find(
      (f) => f !== undefined && (f.startsWith(folder + sep) || [...byPath.values()].includes(f)) && existsSync(f) && statSync(f).isFile(),
    )
    if (!file) return route.fulfill({ status: 404, body: '' })
    return route.fulfill({ body: readFileSync(file), contentType: mime.lookup(file) || 'application/octet-stream' })
  }
  return { path, answer }
}
