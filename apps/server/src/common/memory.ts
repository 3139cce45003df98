/** Giving memory back after what was large. */
import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'

setFlagsFromString('--expose-gc')
const collect = runInNewContext('gc') as () => void

/** From this many bytes on, what is left over is worth an interruption. */
const LARGE = 5 * 1024 * 1024
/** After this long without another of that size, in ms. */
const QUIET = 2000

let due: ReturnType<typeof setTimeout> | undefined

/** Told of what was read. Without it a server that nobody asks anything more keeps what it needed for the largest site of the day. */
export function tellRead(bytes: number): void {
  if (bytes < LARGE) return
  clearTimeout(due)
  due = setTimeout(collect, QUIET)
  due.unref()
}
