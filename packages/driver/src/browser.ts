/** Starts a browser that reaches nothing but what a mount answers. */
import type { Screen } from '@waybell/core'
import { availableParallelism } from 'node:os'
import puppeteer, { type Browser } from 'puppeteer-core'
import { Turn } from './clock.ts'
import type { Mount } from './mount.ts'
import { DrivenPage } from './page.ts'
import { BrowserGone, PageTrouble } from './trouble.ts'

export interface DrivenBrowser {
  /** Its product and version, and in which time its pages run. */
  readonly name: string
  /** Loads a page on a screen, in a profile of its own. */
  open: (mount: Mount, screen: Screen) => Promise<DrivenPage>
  close: () => Promise<void>
}

/** Frames are drawn one after the other in a process, so that each core gets one; more than these are not worth their start. */
const MOST_PROCESSES = 4

/** @throws Error when it does not start */
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
    // The clock watches over what is stuck.
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
      // Chromium's own widths of text, which the shell rounds without it.
      '--font-render-hinting=none',
      '--force-color-profile=srgb',
      // A mouse, which headless browsers lack: pages ask for it by `(hover: hover)` and `(pointer: fine)`.
      '--blink-settings=primaryHoverType=2,availableHoverTypes=2,primaryPointerType=4,availablePointerTypes=4',
      '--enable-begin-frame-control',
      '--run-all-compositor-stages-before-draw',
      // What the compositor moves by itself stands still while nothing is displayed.
      '--disable-threaded-animation',
      '--disable-threaded-scrolling',
      // A dead proxy for everything, loopback too: nobody answers what the mount does not.
      '--proxy-server=http://127.0.0.1:9',
      '--proxy-bypass-list=<-loopback>',
    ],
  })
  // A killed browser resets its pipes. The library stops listening once it closes them, and an unheard error ends Node.
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
  // Chromium's own headless mode draws frames by itself and says so by its name.
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
    // The race with `gone` ends it; a timeout of its own would keep Node from ending.
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

/** A browser that ends while it opens a page may fail a request before it tells of its end. */
function goneUnlessTrouble(error: unknown): never {
  if (error instanceof PageTrouble || error instanceof BrowserGone) throw error
  throw new BrowserGone(String(error).split('\n')[0]!)
}

/** The protocol's ID of a target, which the driver library keeps to itself. */
const idOf = (target: object): string | undefined => (target as { _targetId?: string })._targetId
