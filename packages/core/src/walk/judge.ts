/** Compares a followed link with what was computed. */
import type { Arrival } from '../arrival/index.ts'
import type { WalkStep } from './plan.ts'

/** What was seen. Lengths in CSS px. */
export interface Visit {
  scroll: number
  /** The target's top in the document. */
  top: number
  /** Lower edge of the cover at the viewport's top. */
  covered: number
  /** `href` of the current item; null for none. */
  current: string | null
}

/** Tolerance of computed arrivals, in px. */
export const TOLERANCE = 1

export interface Verdict {
  isInPlace: boolean
  isMarked: boolean
  passed: boolean
}

/** @param arrival null if nothing was computed, which counts as wrong */
export function judge({ section, hash, isLinked }: WalkStep, arrival: Arrival | null, visit: Visit): Verdict {
  const isInPlace = arrival !== null && Math.abs(visit.scroll - arrival.land) <= TOLERANCE
  // The top stands for the section that starts there.
  const isMarked = !isLinked || visit.current === hash || (section.toTop && visit.current === '#')
  return { isInPlace, isMarked, passed: isInPlace && isMarked }
}
