/** Motions, shared by computation, writing and script. Times in ms, lengths in CSS px. */

const cube = (x: number): number => x ** 3

/** Maps elapsed time to covered distance, both 0 to 1. */
export const EASINGS = {
  'ease-out': (t: number): number => 1 - cube(1 - t),
  'ease-in-out': (t: number): number => (t < 0.5 ? 4 * cube(t) : 1 - 4 * cube(1 - t)),
  'ease-in': cube,
  linear: (t: number): number => t,
}
export type Easing = keyof typeof EASINGS

/** Takes `ms`; with `most`, from `ms` for the shortest distance to `most` for a long one. */
export interface Timed {
  easing: Easing
  ms: number
  most?: number
}

/** Instant, the browser's smooth scrolling, or timed. */
export type Motion = 'jump' | 'smooth' | Timed

/** Limits of a timed motion. */
export const TIMES = { least: 100, most: 2000 }
const isTime = (n: number): boolean => Number.isInteger(n) && n >= TIMES.least && n <= TIMES.most

/** Long distance, in px. */
const LONG = 5000

/** Duration of a timed motion over a distance. It grows with the square root, as in browsers. */
export const timeOf = ({ ms, most = ms }: Timed, distance: number): number => ms + (most - ms) * Math.min(1, Math.sqrt(distance / LONG))

/** A motion in `data-wb-motion` and the settings. */
export const motionText = (motion: Motion): string =>
  typeof motion === 'string' ? motion : ['timed', motion.easing, motion.ms, ...(motion.most ? [motion.most] : [])].join(' ')

/** Null if it isn't one. */
export function readMotion(text: string | null | undefined): Motion | null {
  if (text === 'jump' || text === 'smooth') return text
  const [word, easing, ms, most] = (text ?? '').split(' ')
  if (word !== 'timed' || !(easing! in EASINGS) || !isTime(+ms!) || (most && !isTime(+most))) return null
  return { easing: easing as Easing, ms: +ms!, ...(most && { most: +most }) }
}
