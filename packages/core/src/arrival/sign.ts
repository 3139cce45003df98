/** What is to be said of an arrival, in one word: the worst of it. */
import { adjustOn, breathingOn, fillsOn, type Section, type SitePage } from '../site/index.ts'
import type { Arrival } from './solve.ts'

const ARRIVAL_SIGNS = ['clear', 'top', 'air', 'short', 'below', 'cut', 'covered', 'still'] as const
/**
 * From what is right to what is worst: the heading is clear; the link goes to the very top; there is more room above the section than anybody asked
 * for; the page ends before it; its heading is below the viewport, or cut, or covered; the link does not move the page.
 */
export type ArrivalSign = (typeof ARRIVAL_SIGNS)[number]

/** More room above a section than that, beside what it was given, is too much air, in px. */
const AIR = 48

/** @returns the sign, and the length that goes with it in px: how much is hidden or missing, else the gap */
export function signOf(arrival: Arrival, page: SitePage, section: Section, screen: string): { sign: ArrivalSign; px: number } {
  const { movesPage, heading, hidden, shortfall, gap } = arrival
  if (!movesPage) return { sign: 'still', px: 0 }
  if (heading === 'covered' || heading === 'cut' || heading === 'below') return { sign: heading, px: hidden }
  if (section.toTop) return { sign: 'top', px: gap }
  // Where nothing of less than a px is missing, it is there.
  if (shortfall >= 1) return { sign: 'short', px: shortfall }
  const asked = fillsOn(section, screen) ? 0 : breathingOn(page, screen) + adjustOn(section, screen)
  return { sign: gap > asked + AIR ? 'air' : 'clear', px: gap }
}

/** How bad a sign is, from 0 for what is right. */
export const badness = (sign: ArrivalSign): number => Math.max(0, ARRIVAL_SIGNS.indexOf(sign) - 1)
