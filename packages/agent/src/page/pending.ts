/**
 * Counts pending timers and frame requests of page scripts, so that waits end in the frame in which none is left, without guessing.
 * Installed before any page script. A chain of tasks, each started by the one before, counts from its start; one that started long ago,
 * such as an animation loop, isn't waited for.
 */

/** A longer timer is a clock, such as a carousel's, in ms. */
const LONG = 1000
/** A chain that runs this long is endless, in ms. */
const ENDLESS = 4000

interface Task {
  /** When its chain began. */
  began: number
  /** Due time, if known; null for the next frame. */
  due: number | null
}

const tasks = new Map<string, Task>()
let steps = 0
/** Number of tasks started or run, without endless chains. */
export const done = (): number => steps
/** Start of the running chain. */
let current: number | null = null

/** The browser's own functions, before page scripts can replace them. */
const own = {
  setTimeout: window.setTimeout.bind(window),
  requestAnimationFrame: window.requestAnimationFrame.bind(window),
  now: performance.now.bind(performance),
}

export const now = (): number => own.now()
export const pause = (ms: number): Promise<void> => new Promise((done) => own.setTimeout(done, ms))
export const nextFrame = (): Promise<void> => new Promise((done) => own.requestAnimationFrame(() => done()))

const isEndless = ({ began }: Pick<Task, 'began'>): boolean => own.now() - began >= ENDLESS

/** Number of waiting tasks, without endless chains. */
export const pending = (): number => [...tasks.values()].filter((task) => !isEndless(task)).length
/** True when something runs endlessly and may move the page at any time. */
export const isRunningOn = (): boolean => [...tasks.values()].some(isEndless)

/** Time until the first awaited timer, in ms; 0 if a frame is requested. */
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

/** Wraps a scheduling function and its cancel function. */
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
    // Timers and intervals share IDs.
    for (const name of isTimer ? ['clearTimeout', 'clearInterval'] : [cancel]) tasks.delete(`${name} ${String(id)}`)
    cancels.call(window, id)
  })
}

export function countTasks(): void {
  count('setTimeout', 'clearTimeout', true)
  count('setInterval', 'clearInterval', false)
  count('requestAnimationFrame', 'cancelAnimationFrame', true)
}
