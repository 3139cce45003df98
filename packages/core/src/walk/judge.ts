/** What happened when a link was followed, against what was computed. */
import type { Arrival } from '../arrival/index.ts'
import type { WalkStep } from './plan.ts'

/** What was seen. Lengths in CSS px. */
export interface Visit {
  scroll: number
  /** The target's top in the document. */
  top: number
  /** Lower edge of what lies over the viewport's top. */
  covered: number
  /** `href` of the item that is current; null without one. */
  current: string | null
}

/** A computed arrival is held to this, in px. */
export const TOLERANCE = 1

export interface Verdict {
  isInPlace: boolean
  isMarked: boolean
  passed: boolean
}

/** @param arrival null where nothing was computed, which nothing can be right by */
export function judge({ section, hash, isLinked }: WalkStep, arrival: Arrival | null, visit: Visit): Verdict {
  const isInPlace = arrival !== null && Math.abs(visit.scroll - arrival.land) <= TOLERANCE
  // The top stands for the section that begins there.
  const isMarked = !isLinked || visit.current === hash || (section.toTop && visit.current === '#')
  return { isInPlace, isMarked, passed: isInPlace && isMarked }
}
