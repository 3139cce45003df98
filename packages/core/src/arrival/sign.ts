/** The worst thing to say about an arrival, in one word. */
import { adjustOn, breathingOn, fillsOn, type Section, type SitePage } from '../site/index.ts'
import type { Arrival } from './solve.ts'

const ARRIVAL_SIGNS = ['clear', 'top', 'air', 'short', 'below', 'cut', 'covered', 'still'] as const
/**
 * From right to worst: heading clear; link goes to the very top; more space above the section than wanted; page too short; heading below
 * the viewport, cut, or covered; link doesn't move the page.
 */
export type ArrivalSign = (typeof ARRIVAL_SIGNS)[number]

/** Space above a section beyond this, in px, is too much. */
const AIR = 48

export interface Sign {
  sign: ArrivalSign
  /** How much is hidden or missing, else the gap. */
  px: number
  /** The gap for a visitor from above, if it's another. */
  fromAbove?: number
}

export function signOf(arrival: Arrival, page: SitePage, section: Section, screen: string): Sign {
  const { movesPage, heading, hidden, shortfall, gap, gapFromAbove } = arrival
  if (!movesPage) return { sign: 'still', px: 0 }
  if (heading === 'covered' || heading === 'cut' || heading === 'below') return { sign: heading, px: hidden }
  if (section.toTop) return { sign: 'top', px: gap }
  // Less than 1 px counts as none.
  if (shortfall >= 1) return { sign: 'short', px: shortfall }
  const asked = fillsOn(section, screen) ? 0 : breathingOn(page, screen) + adjustOn(section, screen)
  const more = gapFromAbove - gap >= 1 ? { fromAbove: gapFromAbove } : {}
  return { sign: gap > asked + AIR ? 'air' : 'clear', px: gap, ...more }
}

/** Rank of a sign; 0 is right. */
export const badness = (sign: ArrivalSign): number => Math.max(0, ARRIVAL_SIGNS.indexOf(sign) - 1)
