/** Returns memory after large requests. */
import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'

setFlagsFromString('--expose-gc')
const collect = runInNewContext('gc') as () => void

/** From this many bytes on, a garbage collection is worth it. */
const LARGE = 5 * 1024 * 1024
/** Wait after the last large request, in ms. */
const QUIET = 2000

let due: ReturnType<typeof setTimeout> | undefined

/** Called with the size of what was read. Otherwise an idle server keeps the memory of the day's largest site. */
export function tellRead(bytes: number): void {
  if (bytes < LARGE) return
  clearTimeout(due)
  due = setTimeout(collect, QUIET)
  due.unref()
}
