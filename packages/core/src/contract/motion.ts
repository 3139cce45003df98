/** How links travel: what is computed, what is written, and what the script in a page does are one. Times in ms, lengths in CSS px. */

const cube = (x: number): number => x ** 3

/** From how much of the time has gone to how much of the way is done, both from 0 to 1. */
export const EASINGS = {
  'ease-out': (t: number): number => 1 - cube(1 - t),
  'ease-in-out': (t: number): number => (t < 0.5 ? 4 * cube(t) : 1 - 4 * cube(1 - t)),
  'ease-in': cube,
  linear: (t: number): number => t,
}
export type Easing = keyof typeof EASINGS

/** It takes `ms`; where `most` is said from `ms` for the shortest way to `most` for a long one. */
export interface Timed {
  easing: Easing
  ms: number
  most?: number
}

/** At once, in the browser's own motion, or in a time. */
export type Motion = 'jump' | 'smooth' | Timed

/** A motion takes no less and no more than this. */
export const TIMES = { least: 100, most: 2000 }
const isTime = (n: number): boolean => Number.isInteger(n) && n >= TIMES.least && n <= TIMES.most

/** From here on a way is long, in px. */
const LONG = 5000

/** How long a timed motion takes over a distance. It grows with the root of that, as the browser's own does. */
export const timeOf = ({ ms, most = ms }: Timed, distance: number): number => ms + (most - ms) * Math.min(1, Math.sqrt(distance / LONG))

/** What `data-wb-motion` and the settings say of a motion. */
export const motionText = (motion: Motion): string =>
  typeof motion === 'string' ? motion : ['timed', motion.easing, motion.ms, ...(motion.most ? [motion.most] : [])].join(' ')

/** Null for what says none. */
export function readMotion(text: string | null | undefined): Motion | null {
  if (text === 'jump' || text === 'smooth') return text
  const [word, easing, ms, most] = (text ?? '').split(' ')
  if (word !== 'timed' || !(easing! in EASINGS) || !isTime(+ms!) || (most && !isTime(+most))) return null
  return { easing: easing as Easing, ms: +ms!, ...(most && { most: +most }) }
}
