/** A header that is smaller once the page has moved takes that from the page, where it stands in the flow: whether a margin makes up for it. */
import { pageHeight } from '../page/scroller.ts'
import { asIf } from './as-if.ts'

/** Wider than any that a page has, in px: what adjoins it is narrower, and counts for nothing. @see CSS 2.2, "Collapsing margins" */
const WIDE = 2000

/**
 * By trying it out, while the header is small.
 * @param tall the header and the page at rest, in px
 * @param tops where things on the page stood then
 */
export function makesUpFor(
  header: HTMLElement,
  tall: { height: number; page: number },
  tops: ReadonlyMap<number, number>,
  now: () => ReadonlyMap<number, number>,
): number | null {
  const by = tall.height - header.getBoundingClientRect().height
  if (by < 1) return null
  const tried = (margin: number) =>
    asIf([[header, { 'margin-bottom': `${margin}px` }]], () => ({ page: pageHeight() - tall.page, by: shiftsBy(tops, now()) }))
  const small = shiftsBy(tops, now())
  const moved = [...small].filter(([, px]) => Math.abs(px) >= 1)
  if (!moved.length) return null
  const wide = tried(WIDE).by.get(moved[0]![0])!
  const margin = WIDE - wide
  const { page, by: left } = tried(margin)
  const isStill = Math.abs(page) < 1 && [...left.values()].every((px) => Math.abs(px) < 0.5)
  return isStill ? by : null
}

const shiftsBy = (before: ReadonlyMap<number, number>, after: ReadonlyMap<number, number>): Map<number, number> =>
  new Map([...before].map(([at, top]) => [at, (after.get(at) ?? top) - top]))
