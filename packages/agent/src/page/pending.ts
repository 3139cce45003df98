/**
 * What the scripts of a page have yet to do: their timers and frame requests are counted, so that whoever waits for the page goes on in the
 * frame in which nothing is left, and no guess about time is needed. Installed before any script of the page runs.
 *
 * A chain of tasks, each asked for by the one before, has one beginning. One that began long ago never ends, as an animation loop doesn't,
 * and isn't waited for.
 */

/** A timer that takes longer is a clock of the page's own, as that of a carousel, in ms. */
const LONG = 1000
/** A chain that goes on for so long has no end, in ms. */
const ENDLESS = 4000

interface Task {
  /** When its chain began. */
  began: number
  /** When it's called, as far as that is known; null for the next frame. */
  due: number | null
}

const tasks = new Map<string, Task>()
let steps = 0
/** Counts what the page's tasks do: one more for each that is asked for or runs, but for those of a chain without end. */
export const done = (): number => steps
/** Beginning of the chain that runs now. */
let current: number | null = null

/** The browser's own, as they are before a script of the page may replace them. */
const own = {
  setTimeout: window.setTimeout.bind(window),
  requestAnimationFrame: window.requestAnimationFrame.bind(window),
  now: performance.now.bind(performance),
}

export const now = (): number => own.now()
export const pause = (ms: number): Promise<void> => new Promise((done) => own.setTimeout(done, ms))
export const nextFrame = (): Promise<void> => new Promise((done) => own.requestAnimationFrame(() => done()))

const isEndless = ({ began }: Pick<Task, 'began'>): boolean => own.now() - began >= ENDLESS

/** How many tasks of the page's are waiting that come to an end. */
export const pending = (): number => [...tasks.values()].filter((task) => !isEndless(task)).length
/** Something in the page goes on without end: it may move the page at any time. */
export const isRunningOn = (): boolean => [...tasks.values()].some(isEndless)

/**
 * How long nothing happens, as far as the page's own tasks say: until the first timer that is waited for, in ms. 0 where a frame is asked for.
 */
export function idle(): number {
  let until = Infinity
  for (const task of tasks.values()) if (!isEndless(task)) until = Math.min(until, task.due ?? 0)
  return until === Infinity ? 0 : Math.max(0, until - own.now())
}

const step = (began: number): void => void (isEndless({ began }) || steps++)

type Callback = (...given: unknown[]) => unknown

function runIn(began: number, call: Callback, self: unknown, given: unknown[]): unknown {
  const before = current
  current = began
  try {
    return Reflect.apply(call, self, given)
  } finally {
    current = before
  }
}

/** Replaces a function that asks for a call, and the one that takes that back. */
function count(ask: string, cancel: string, isOnce: boolean): void {
  const isTimer = cancel.startsWith('clear')
  const asks = Reflect.get(window, ask) as (call: unknown, ...more: unknown[]) => number
  const cancels = Reflect.get(window, cancel) as (id: unknown) => void
  const define = (name: string, value: Callback) =>
    Object.defineProperty(window, name, { configurable: true, enumerable: true, writable: true, value })
  define(ask, (call, ...more) => {
    if (typeof call !== 'function' || (isTimer && Number(more[0]) > LONG)) return asks.call(window, call, ...more)
    const began = current ?? own.now()
    const id = asks.call(
      window,
      function (this: unknown, ...given: unknown[]) {
        if (isOnce) tasks.delete(`${cancel} ${id}`)
        step(began)
        runIn(began, call as Callback, this, given)
      },
      ...more,
    )
    step(began)
    tasks.set(`${cancel} ${id}`, { began, due: isTimer ? own.now() + (Number(more[0]) || 0) : null })
    return id
  })
  define(cancel, (id) => {
    // Timers and intervals share their numbers.
    for (const name of isTimer ? ['clearTimeout', 'clearInterval'] : [cancel]) tasks.delete(`${name} ${String(id)}`)
    cancels.call(window, id)
  })
}

export function countTasks(): void {
  count('setTimeout', 'clearTimeout', true)
  count('setInterval', 'clearInterval', false)
  count('requestAnimationFrame', 'cancelAnimationFrame', true)
}
