/** A page on a screen, with the agent. */
import { agentText } from '@waybell/agent'
import type { AgentOfWindow } from '@waybell/agent/types'
import type { CDPSession } from 'puppeteer-core'
import { RealClock, VirtualClock, type Clock, type Turn } from './clock.ts'
import type { Mount } from './mount.ts'
import { BrowserGone, PageTrouble } from './trouble.ts'

type Agent = NonNullable<AgentOfWindow['wayBellAgent']>

/** The agent's functions, callable from Node. */
export type PageAgent = {
  [K in keyof Agent]: (...given: Parameters<Agent[K]>) => Promise<Awaited<ReturnType<Agent[K]>>>
}

interface Opening {
  session: CDPSession
  mount: Mount
  viewport: { width: number; height: number; touch: boolean }
  /** Null in a browser that draws frames by itself. */
  frames: Turn | null
  /** Rejects when the browser ends. */
  gone: Promise<never>
  isConnected: () => boolean
  close: () => Promise<void>
}

/** Max attempts when a page reloads itself. */
const LOADS = 3

/** Protocol errors after a reload during a call. */
const LEFT = /context was destroyed|navigated or closed|Cannot find context|Promise was collected|no wayBellAgent/i

export class DrivenPage {
  private mainFrame = ''
  private loads = 0
  private load: Promise<void> = Promise.resolve()
  private leave: () => void = () => {}
  /** Rejects when the browser ends or the page is closed, because nothing answers then. */
  private readonly gone: Promise<never>

  private constructor(
    private readonly opening: Opening,
    private readonly clock: Clock,
  ) {
    const closed = new Promise<never>((_, failed) => (this.leave = () => failed(new PageTrouble('silent'))))
    this.gone = Promise.race([opening.gone, closed])
    this.gone.catch(() => {})
  }

  static async of(opening: Opening): Promise<DrivenPage> {
    const { session, viewport, frames } = opening
    const { width, height, touch } = viewport
    await Promise.all([
      session.send('Page.enable'),
      session.send('Runtime.enable'),
      session.send('Fetch.enable', { patterns: [{ urlPattern: '*' }] }),
      // Workers and out-of-process frames make requests of their own.
      session.send('Target.setAutoAttach', { autoAttach: true, waitForDebuggerOnStart: true, flatten: true }),
      session.send('Emulation.setDeviceMetricsOverride', {
        width,
        height,
        screenWidth: width,
        screenHeight: height,
        deviceScaleFactor: 1,
        mobile: false,
      }),
      session.send('Emulation.setTouchEmulationEnabled', { enabled: touch, ...(touch ? { maxTouchPoints: 1 } : {}) }),
      session.send('Network.enable'),
      session.send('Network.setBypassServiceWorker', { bypass: true }),
      // In the page, not in its frames.
      session.send('Page.addScriptToEvaluateOnNewDocument', { source: `if (window === window.top) {${agentText}\n}` }),
    ])
    const page = new DrivenPage(opening, frames ? await VirtualClock.of(session, frames) : new RealClock(session))
    page.listen()
    page.load = page.loaded()
    // Virtual time granted while the page moves to its own process would be lost.
    const isThere = new Promise<void>((done) => session.once('Page.frameNavigated', () => done()))
    const { errorText } = await session.send('Page.navigate', { url: opening.mount.url })
    if (errorText) throw new PageTrouble('silent')
    await isThere
    return page
  }

  /**
   * Calls the agent in the loaded page. Starts again when the page reloads itself.
   * @throws PageTrouble when the page doesn't answer, or reloads more than `LOADS` times
   */
  async run<T>(work: (agent: PageAgent) => Promise<T>): Promise<T> {
    for (;;) {
      try {
        await this.timed(this.load)
        return await work(this.agent)
      } catch (error) {
        if (error instanceof PageTrouble || error instanceof BrowserGone) throw error
        // A call may fail before the browser reports its end.
        if (!this.opening.isConnected()) throw new BrowserGone('it was closed or crashed')
        if (!LEFT.test(String(error))) throw new PageTrouble('silent')
        if (++this.loads >= LOADS) throw new PageTrouble('reloads')
      }
    }
  }

  close(): Promise<void> {
    this.leave()
    return this.opening.close().catch(() => {})
  }

  private readonly agent = new Proxy({} as PageAgent, {
    get:
      (_, name: keyof Agent) =>
      (...given: unknown[]) =>
        this.timed(this.called(name, given)),
  })

  private timed<T>(work: Promise<T>): Promise<T> {
    return Promise.race([this.clock.during(work), this.gone])
  }

  private async called(name: string, given: unknown[]): Promise<unknown> {
    const call = `wayBellAgent.${name}(...${JSON.stringify(given)})`
    const { result, exceptionDetails } = await this.opening.session.send('Runtime.evaluate', {
      expression: `typeof wayBellAgent === 'undefined' ? Promise.reject('no wayBellAgent') : ${call}`,
      awaitPromise: true,
      returnByValue: true,
    })
    if (exceptionDetails)
      throw new Error(exceptionDetails.exception?.description ?? String(exceptionDetails.exception?.value ?? exceptionDetails.text))
    return result.value
  }

  private loaded(): Promise<void> {
    return new Promise((done) => this.opening.session.once('Page.loadEventFired', () => done()))
  }

  private listen(): void {
    const { session, mount } = this.opening
    session.on('Page.javascriptDialogOpening', () => void session.send('Page.handleJavaScriptDialog', { accept: false }).catch(() => {}))
    session.on('Page.frameStartedNavigating', ({ frameId, navigationType }) => {
      // Hashes are no loads.
      if (navigationType === 'sameDocument' || navigationType === 'historySameDocument' || frameId !== this.mainFrame) return
      this.load = this.loaded()
    })
    session.on('Page.frameNavigated', ({ frame }) => {
      if (frame.parentId) return
      this.mainFrame = frame.id
      // It navigated to an address that nothing answers.
      if (new URL(frame.url).origin !== new URL(mount.url).origin) this.leave()
    })
    session.on('Inspector.targetCrashed', () => this.leave())
    answerAll(session, mount)
  }
}

/** Answers requests of a page, its workers and frames. */
function answerAll(session: CDPSession, mount: Mount): void {
  session.on('Fetch.requestPaused', ({ requestId, request }) => {
    const found = mount.answer(request.url)
    const answered = found
      ? session.send('Fetch.fulfillRequest', {
          requestId,
          responseCode: found.status,
          responseHeaders: [{ name: 'content-type', value: found.type }],
          body: found.body.toString('base64'),
        })
      : session.send('Fetch.failRequest', { requestId, errorReason: 'BlockedByClient' })
    // The page may be gone.
    answered.catch(() => {})
  })
  session.on('sessionattached', (inner) => {
    answerAll(inner, mount)
    void inner
      .send('Fetch.enable', { patterns: [{ urlPattern: '*' }] })
      .catch(() => {})
      .then(() => inner.send('Runtime.runIfWaitingForDebugger'))
      .catch(() => {})
  })
}
