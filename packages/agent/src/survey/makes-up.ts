/** Whether a margin can compensate for a header in the flow that shrinks. */
import { pageHeight } from '../page/scroller.ts'
import { asIf } from './as-if.ts'

/** Larger than any margin, in px: an adjoining one is smaller and collapses. @see CSS 2.2, "Collapsing margins" */
const WIDE = 2000

/** By trying it while the header is small. @param tall header and page at rest, in px @param tops positions at rest */
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
