/**
 * A page's time. In `chromium-headless-shell`, which draws frames on request, pages run in virtual time: the clock grants one frame's
 * time, waits until it's used, and requests a frame. Waits then cost no real time, and a busy machine can't change results. Other
 * browsers run in real time.
 * @see Chrome DevTools Protocol, Emulation.setVirtualTimePolicy and HeadlessExperimental.beginFrame; docs/decisions/virtual-time.md
 */
import { setTimeout as pause } from 'node:timers/promises'
import type { CDPSession } from 'puppeteer-core'
import { PageTrouble } from './trouble.ts'

export interface Clock {
  /**
   * Advances the page's time until the work is done.
   * @throws PageTrouble without progress for `STUCK` ms, or after `LONGEST` ms of page time
   */
  during<T>(work: Promise<T>): Promise<T>
}

/** 60 frames a second, in ms. */
const FRAME = 1000 / 60
/** Real ms without progress after which a page is stuck. */
export const STUCK = 20_000
/** Max page time for one piece of work, in ms. The agent's own waits are much shorter. */
const LONGEST = 120_000

/** Runs one piece of work at a time. Simultaneous frames of two pages crash the browser's GPU process. */
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
/** Max idle time an agent may report, in ms: it runs in the page. */
const LONGEST_IDLE = 1000

export class VirtualClock implements Clock {
  /** Time without need for a frame, in ms. */
  private idle = 0

  private constructor(
    private readonly session: CDPSession,
    private readonly frames: Turn,
    /** Time of the last frame, in ms since the browser's start. */
    private ticks: number,
  ) {
    // The agent reports how long it only waits for a timer.
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

/** Interval of liveness checks in real time, in ms. */
const ASKS = 1000

export class RealClock implements Clock {
  constructor(private readonly session: CDPSession) {}

  async during<T>(work: Promise<T>): Promise<T> {
    let isOver = false
    const watch = async (): Promise<never> => {
      for (const end = performance.now() + LONGEST; performance.now() < end && !isOver;) {
        await pause(ASKS, undefined, { ref: false })
        // A page that reloads answers with an error.
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
