/** Starts a browser that can reach only what a mount answers. */
import type { Screen } from '@waybell/core'
import { availableParallelism } from 'node:os'
import puppeteer, { type Browser } from 'puppeteer-core'
import { Turn } from './clock.ts'
import type { Mount } from './mount.ts'
import { DrivenPage } from './page.ts'
import { BrowserGone, PageTrouble } from './trouble.ts'

export interface DrivenBrowser {
  /** Product and version, and real or virtual time. */
  readonly name: string
  /** Loads a page on a screen, in a new profile. */
  open: (mount: Mount, screen: Screen) => Promise<DrivenPage>
  close: () => Promise<void>
}

/** A process draws one frame at a time, so each core gets one; more aren't worth their start. */
const MOST_PROCESSES = 4

/** @throws Error when it doesn't start */
export async function startBrowser(executablePath: string): Promise<DrivenBrowser> {
  const count = Math.min(MOST_PROCESSES, availableParallelism())
  const started = await Promise.allSettled(Array.from({ length: count }, () => startProcess(executablePath)))
  const processes = started.flatMap((s) => (s.status === 'fulfilled' ? [s.value] : []))
  const close = async () => void (await Promise.all(processes.map((p) => p.close())))
  const failed = started.find((s) => s.status === 'rejected')
  if (failed) {
    await close()
    throw failed.reason
  }
  let opened = 0
  return { name: processes[0]!.name, open: (mount, screen) => processes[opened++ % count]!.open(mount, screen), close }
}

async function startProcess(executablePath: string): Promise<DrivenBrowser> {
  const browser = await puppeteer.launch({
    executablePath,
    headless: 'shell',
    pipe: true,
    // The clock detects what is stuck.
    protocolTimeout: 0,
    defaultViewport: null,
    waitForInitialPage: false,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--hide-scrollbars',
      '--mute-audio',
      // Chromium's real text widths; the shell would round them.
      '--font-render-hinting=none',
      '--force-color-profile=srgb',
      // A mouse for `(hover: hover)` and `(pointer: fine)`; headless browsers have none.
      '--blink-settings=primaryHoverType=2,availableHoverTypes=2,primaryPointerType=4,availablePointerTypes=4',
      '--enable-begin-frame-control',
      '--run-all-compositor-stages-before-draw',
      // Compositor animations stop while nothing is displayed.
      '--disable-threaded-animation',
      '--disable-threaded-scrolling',
      // A dead proxy for everything including loopback: only the mount answers.
      '--proxy-server=http://127.0.0.1:9',
      '--proxy-bypass-list=<-loopback>',
    ],
  })
  // A killed browser resets its pipes. The library stops listening after closing them, and an unhandled error would end Node.
  for (const pipe of browser.process()?.stdio ?? []) pipe?.on('error', () => {})
  try {
    return await driven(browser)
  } catch (error) {
    await browser.close().catch(() => {})
    throw error
  }
}

async function driven(browser: Browser): Promise<DrivenBrowser> {
  const root = await browser.target().createCDPSession()
  const { product } = await root.send('Browser.getVersion')
  // Chromium's new headless mode draws frames by itself; its product name tells.
  const isVirtual = product.startsWith('HeadlessChrome/')
  const frames = new Turn()
  const gone = new Promise<never>((_, failed) => browser.once('disconnected', () => failed(new BrowserGone('it was closed or crashed'))))
  gone.catch(() => {})
  const opened = async (mount: Mount, { width, height, touch }: Screen): Promise<DrivenPage> => {
    const { browserContextId } = await root.send('Target.createBrowserContext')
    const { targetId } = await root.send('Target.createTarget', {
      url: 'about:blank',
      browserContextId,
      width,
      height,
      ...(isVirtual ? { enableBeginFrameControl: true } : {}),
    })
    // The race with `gone` ends it; a timeout of its own would keep Node running.
    const target = await browser.waitForTarget((t) => idOf(t) === targetId, { timeout: 0 })
    const session = await target.createCDPSession()
    const close = () => root.send('Target.disposeBrowserContext', { browserContextId }).then(() => {})
    return DrivenPage.of({
      session,
      mount,
      viewport: { width, height, touch },
      frames: isVirtual ? frames : null,
      gone,
      isConnected: () => browser.connected,
      close,
    })
  }
  return {
    name: `${product}, ${isVirtual ? 'virtual' : 'real'} time`,
    open: (mount, screen) => Promise.race([opened(mount, screen), gone]).catch(goneUnlessTrouble),
    close: () => browser.close().catch(() => {}),
  }
}

/** A crashing browser may fail a request before it reports the crash. */
function goneUnlessTrouble(error: unknown): never {
  if (error instanceof PageTrouble || error instanceof BrowserGone) throw error
  throw new BrowserGone(String(error).split('\n')[0]!)
}

/** A target's protocol ID, which the library keeps private. */
const idOf = (target: object): string | undefined => (target as { _targetId?: string })._targetId
