/** For pages with points and former IDs. */
import { ANCHOR, decodeFragment, fragmentOf, type Settings } from '@waybell/core/contract'
import { all } from '../elements.ts'
import { bare, startTab } from '../page.ts'

/** Replaces a former ID in the address with the present one. @returns true if it did; `hashchange` follows */
export function renewHash(s: Settings): boolean {
  const id = decodeFragment(fragmentOf(location.hash))
  const renewed = s.former.find(({ was }) => was === id)
  // Adds no history entry, and continues tab order at the section. A bare hash would be resolved against a `base`.
  if (renewed) location.replace(bare(location.href) + '#' + renewed.now.replace(/%/g, '%25'))
  return !!renewed
}

/** The element of a point in the head, and its distance below that element's top. */
function standIn(id: string, s: Settings): { el: HTMLElement; below: number } | undefined {
  const point = s.points.find((p) => p.id === id && p.anchor)
  const el = point && all(`[${ANCHOR}="${point.anchor}"]`)[0]
  return el ? { el, below: point.below } : undefined
}

/**
 * Where a section starts. Points that only CSS can place are located by their element, because not every browser can.
 * @param topOf gives an element's start
 */
export function beginOf(el: HTMLElement, s: Settings, topOf: (el: HTMLElement) => number): number {
  const other = standIn(el.id, s)
  return other ? topOf(other.el) + other.below : topOf(el)
}

/** The element to continue tab order from. */
export const tabFrom = (id: string, s: Settings): void => startTab(standIn(id, s)?.el)
