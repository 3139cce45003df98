/** For pages with points and former IDs. */
import { ANCHOR, decodeFragment, fragmentOf, type Settings } from '@waybell/core/contract'
import { all } from '../elements.ts'
import { bare, startTab } from '../page.ts'

/** Sends a visitor who comes by a former ID on to the one that the section has now. @returns true where it did; `hashchange` follows */
export function renewHash(s: Settings): boolean {
  const id = decodeFragment(fragmentOf(location.hash))
  const renewed = s.former.find(({ was }) => was === id)
  // Adds nothing to the history, and Tab goes on from the section itself. A hash alone would be resolved against a `base`.
  if (renewed) location.replace(bare(location.href) + '#' + renewed.now.replace(/%/g, '%25'))
  return !!renewed
}

/** What a point that stands in the head stands before, and how far below the top of that. */
function standIn(id: string, s: Settings): { el: HTMLElement; below: number } | undefined {
  const point = s.points.find((p) => p.id === id && p.anchor)
  const el = point && all(`[${ANCHOR}="${point.anchor}"]`)[0]
  return el ? { el, below: point.below } : undefined
}

/**
 * Where a section begins. What only styles can place is looked for where it stands: not every browser can.
 * @param topOf says where an element begins
 */
export function beginOf(el: HTMLElement, s: Settings, topOf: (el: HTMLElement) => number): number {
  const other = standIn(el.id, s)
  return other ? topOf(other.el) + other.below : topOf(el)
}

/** Tab is to go on from there. */
export const tabFrom = (id: string, s: Settings): void => startTab(standIn(id, s)?.el)
