/**
 * The time of a page. In a browser that draws frames on request (`chromium-headless-shell`) the page lives in virtual time: the clock
 * grants one frame's worth of time, waits until the page has used it, and has one frame drawn. Waits then cost no real time, and a busy
 * machine can't change a result. Other browsers run in real time.
 *
 * @see Chrome DevTools Protocol, Emulation.setVirtualTimePolicy and HeadlessExperimental.beginFrame; docs/decisions/virtual-time.md
 */
import { setTimeout as pause } from 'node:timers/promises'
import type { CDPSession } from 'puppeteer-core'
import { PageTrouble } from './trouble.ts'

export interface Clock {
  /**
   * Moves the page's time on until the work is done.
   * @throws PageTrouble when the page makes no progress for `STUCK` ms, or uses more than `LONGEST` ms of its own time
   */
  during<T>(work: Promise<T>): Promise<T>
}

/** 60 frames a second, in ms. */
const FRAME = 1000 / 60
/** Real ms without progress after which a page is stuck. */
export const STUCK = 20_000
/** Most time of a page's own that one piece of work takes, in ms. The agent's own waits are bounded far below it. */
const LONGEST = 120_000

/** Runs one piece of work at a time. Frames of two pages at once end the browser's GPU process. */
export class Turn {
  private last: Promise<unknown> = Promise.resolve()

  take<T>(work: () => Promise<T>): Promise<T> {
    const mine = this.last.then(work)
    this.last = mine.catch(() => {})
    return mine
  }
}

/** Rejects once `work` takes longer than `STUCK`. */
function unlessStuck<T>(work: Promise<T>): Promise<T> {
  return new Promise((done, failed) => {
    const timer = setTimeout(() => failed(new PageTrouble('silent')), STUCK).unref()
    work.then(done, failed).finally(() => clearTimeout(timer))
  })
}

const IDLE = 'wayBellIdle'
/** The agent runs in the page, so that what it says is bounded, in ms. */
const LONGEST_IDLE = 1000

export class VirtualClock implements Clock {
  /** For how long the page needs no frame, in ms. */
  private idle = 0

  private constructor(
    private readonly session: CDPSession,
    private readonly frames: Turn,
    /** Time of the last frame, in ms since the browser started. */
    private ticks: number,
  ) {
    // The agent says how long it waits for a timer alone.
    session.on('Runtime.bindingCalled', ({ name, payload }) => {
      if (name === IDLE) this.idle = Math.min(LONGEST_IDLE, Number(payload) || 0)
    })
  }

  static async of(session: CDPSession, frames: Turn): Promise<VirtualClock> {
    await session.send('Runtime.addBinding', { name: IDLE })
    const { virtualTimeTicksBase } = await session.send('Emulation.setVirtualTimePolicy', { policy: 'pause' })
    return new VirtualClock(session, frames, virtualTimeTicksBase)
  }

  async during<T>(work: Promise<T>): Promise<T> {
    let isOver = false
    const over = () => void (isOver = true)
    work.then(over, over)
    for (const end = this.ticks + LONGEST; !isOver;) {
      if (this.ticks > end) throw new PageTrouble('silent')
      await this.step()
    }
    return work
  }

  private async step(): Promise<void> {
    const ms = Math.max(FRAME, this.idle)
    this.idle = 0
    await unlessStuck(this.grant(ms))
    this.ticks += ms
    const frame = { frameTimeTicks: this.ticks, interval: FRAME, noDisplayUpdates: true }
    await this.frames.take(() => unlessStuck(this.session.send('HeadlessExperimental.beginFrame', frame)))
  }

  private async grant(ms: number): Promise<void> {
    const { session } = this
    const used = new Promise<void>((done) => session.once('Emulation.virtualTimeBudgetExpired', () => done()))
    await Promise.all([used, session.send('Emulation.setVirtualTimePolicy', { policy: 'pauseIfNetworkFetchesPending', budget: ms })])
  }
}

/** How often a page that runs in real time is asked whether it still answers, in ms. */
const ASKS = 1000

export class RealClock implements Clock {
  constructor(private readonly session: CDPSession) {}

  async during<T>(work: Promise<T>): Promise<T> {
    let isOver = false
    const watch = async (): Promise<never> => {
      for (const end = performance.now() + LONGEST; performance.now() < end && !isOver;) {
        await pause(ASKS, undefined, { ref: false })
        // A page that is loaded again meanwhile answers with an error.
        await unlessStuck(this.session.send('Runtime.evaluate', { expression: '1' }).catch(() => undefined))
      }
      if (isOver) return new Promise<never>(() => {})
      throw new PageTrouble('silent')
    }
    try {
      return await Promise.race([work, watch()])
    } finally {
      isOver = true
      work.catch(() => {})
    }
  }
}
