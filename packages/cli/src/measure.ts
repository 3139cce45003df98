/** Surveys of a page, and tries of its links, in a Chromium that is named by path. The page is loaded from its own folder and reaches nothing else. */
import { agentText } from '@waybell/agent'
import type { AgentOfWindow } from '@waybell/agent/types'
import { stampPage, surveyRequest, type PageReading, type ParsedPage, type Screen, type Survey, type Tried } from '@waybell/core'
import mime from 'mime-types'
import { existsSync, readFileSync, statSync } from 'node:fs'
import { dirname, join, relative, resolve, sep } from 'node:path'
import { chromium, type Browser, type Page, type Route } from 'playwright-core'
import type { LocalFile } from './files.ts'

const ORIGIN = 'http://page.localhost'

/** A page as it is put into the browser, with its own files. */
export interface OpenedPage {
  pageFile: string
  html: Buffer
  encoding: string
  files: LocalFile[]
}

/** As it came, its elements named, so that what is measured can be said of them. */
export const sourcePage = (pageFile: string, bytes: Uint8Array, parsed: ParsedPage, files: LocalFile[]): OpenedPage => ({
  pageFile,
  html: Buffer.from(stampPage(bytes, parsed, '')),
  encoding: parsed.decoded.encoding,
  files,
})

/** @throws Error when the browser does not start */
export async function withBrowser<T>(executablePath: string, work: (browser: Browser) => Promise<T>): Promise<T> {
  const browser = await chromium.launch({
    executablePath,
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
    return await work(browser)
  } finally {
    await browser.close()
  }
}

/** @throws Error when the page does not come to rest */
export const measureOn = (browser: Browser, page: OpenedPage, reading: PageReading, screen: Screen): Promise<Survey> =>
  opened(browser, page, screen, (loaded) => {
    const request = {
      screen: screen.key,
      width: screen.width,
      height: screen.height,
      ...surveyRequest(reading),
    }
    return loaded.evaluate((r) => (window as AgentOfWindow).wayBellAgent!.probe(r), request)
  })

/**
 * Every link of the menus of a page as it was built.
 * @param isWrong what it says so of is tried once more, with longer waits
 */
export const tryOn = (browser: Browser, page: OpenedPage, screen: Screen, isWrong: (tried: Tried) => boolean): Promise<Tried[]> =>
  opened(browser, page, screen, async (loaded) => {
    const all = await loaded.evaluate(() => (window as AgentOfWindow).wayBellAgent!.tryLinks())
    for (const [place, one] of all.entries())
      if (isWrong(one))
        all[place] = (await loaded.evaluate((n) => (window as AgentOfWindow).wayBellAgent!.tryLink(n, true, []), place)) ?? one
    return all
  })

async function opened<T>(browser: Browser, page: OpenedPage, screen: Screen, work: (loaded: Page) => Promise<T>): Promise<T> {
  const context = await browser.newContext({
    viewport: { width: screen.width, height: screen.height },
    hasTouch: screen.touch,
    serviceWorkers: 'block',
  })
  try {
    const site = mount(page)
    // Into the page, not into frames that it holds.
    await context.addInitScript({ content: `if (window === window.top) {${agentText}\n}` })
    await context.route('**/*', (route) => site.answer(route))
    const loaded = await context.newPage()
    loaded.on('dialog', (dialog) => void dialog.dismiss())
    await loaded.goto(ORIGIN + site.path, { waitUntil: 'load', timeout: 30_000 })
    return await work(loaded)
  } finally {
    await context.close()
  }
}

/** The folder, or as much above it as the page's own paths need, as the root of a host. */
function mount({ pageFile, html, encoding, files }: OpenedPage) {
  const folder = dirname(resolve(pageFile))
  const up = Math.max(0, ...files.map((f) => f.path.split('/').filter((s) => s === '..').length))
  const root = resolve(folder, '../'.repeat(up) || '.')
  const prefix = '/' + relative(root, folder).split(sep).filter(Boolean).map(encodeURIComponent).join('/')
  const path = `${prefix === '/' ? '' : prefix}/${encodeURIComponent(pageFile.split(sep).pop()!)}`
  const byPath = new Map(files.map((f) => [f.path, f.file]))
  const answer = async (route: Route): Promise<void> => {
    const url = new URL(route.request().url())
    if (url.origin !== ORIGIN) return route.abort()
    if (url.pathname === path) return route.fulfill({ body: html, contentType: `text/html; charset=${encoding}` })
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
