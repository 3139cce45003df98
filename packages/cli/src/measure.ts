/** Surveys of a page, and tries of its links, in a Chromium that is named by path. The page is loaded from its own folder and reaches nothing else. */
import { agentText } from '@waybell/agent'
import type { AgentOfWindow } from '@waybell/agent/types'
import {
  stampPage,
  surveyRequest,
  type MeasuringTrouble,
  type PageReading,
  type ParsedPage,
  type Screen,
  type Survey,
  type Tried,
} from '@waybell/core'
import { surveySchema } from '@waybell/core/schema'
import mime from 'mime-types'
import { existsSync, readFileSync, statSync } from 'node:fs'
import { dirname, join, relative, resolve, sep } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
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

/** What keeps a page from being measured, or its links from being tried. */
export class PageTrouble extends Error {
  constructor(readonly kind: Exclude<MeasuringTrouble, 'restless'>) {
    super(kind)
  }
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

/** @throws PageTrouble */
export const measureOn = (browser: Browser, page: OpenedPage, reading: PageReading, screen: Screen, wait: number) =>
  opened(browser, page, screen, wait, async (loaded): Promise<{ survey: Survey; isRestless: boolean }> => {
    const request = {
      screen: screen.key,
      width: screen.width,
      height: screen.height,
      ...surveyRequest(reading),
    }
    const survey = await loaded.evaluate((r) => (window as AgentOfWindow).wayBellAgent!.probe(r), request)
    // The page is not trusted, so neither is what is measured in it.
    if (surveySchema.validate(survey).error) throw new PageTrouble('silent')
    return { survey, isRestless: await loaded.evaluate(() => (window as AgentOfWindow).wayBellAgent!.isRestless()) }
  })

/**
 * Every link of the menus of a page as it was built.
 * @param isWrong what it says so of is tried once more, with longer waits
 * @throws PageTrouble
 */
export const tryOn = (
  browser: Browser,
  page: OpenedPage,
  screen: Screen,
  wait: number,
  isWrong: (tried: Tried) => boolean,
): Promise<Tried[]> =>
  opened(browser, page, screen, wait, async (loaded) => {
    const all = await loaded.evaluate(() => (window as AgentOfWindow).wayBellAgent!.tryLinks())
    for (const [place, one] of all.entries())
      if (isWrong(one))
        all[place] = (await loaded.evaluate((n) => (window as AgentOfWindow).wayBellAgent!.tryLink(n, true, []), place)) ?? one
    return all
  })

/** A page that answers nothing for so long runs without end, in ms. */
const PATIENCE = 60_000
/** What was begun in a page that then loads itself again is begun anew, so often in all. */
const LOADS = 3

/** @throws PageTrouble once the page answers nothing */
async function answered<T>(loaded: Page, work: Promise<T>): Promise<T> {
  let isOver = false
  const falls = async (): Promise<never> => {
    for (;;) {
      await pause(1000, undefined, { ref: false })
      const answers = loaded.evaluate(() => true).catch(() => true)
      if (!(await Promise.race([answers, pause(PATIENCE, false, { ref: false })])) && !isOver) throw new PageTrouble('silent')
      if (isOver) return new Promise<never>(() => {})
    }
  }
  try {
    return await Promise.race([work, falls()])
  } finally {
    isOver = true
    work.catch(() => {})
  }
}

/** @param wait once the page is loaded, in ms */
async function opened<T>(browser: Browser, page: OpenedPage, screen: Screen, wait: number, work: (loaded: Page) => Promise<T>): Promise<T> {
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
    const come = async (n: number): Promise<T> => {
      try {
        if (n === 1) await loaded.goto(ORIGIN + site.path, { waitUntil: 'load', timeout: PATIENCE })
        else await loaded.waitForLoadState('load', { timeout: PATIENCE })
        await pause(wait)
        return await answered(loaded, work(loaded))
      } catch (error) {
        if (error instanceof PageTrouble || !browser.isConnected()) throw error
        if (!/navigat|context was destroyed/i.test(String(error))) throw new PageTrouble('silent')
        if (n < LOADS) return come(n + 1)
        throw new PageTrouble('reloads')
      }
    }
    return await come(1)
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
