/** Keeps several screens at the same place of one page. */
import type { Survey } from '../survey/index.ts'
import type { Arrival } from './solve.ts'

/** A page on a screen: its arrivals and scroll range. */
export interface Travelled extends Pick<Survey, 'maxScroll'> {
  arrivals: readonly Arrival[]
}

/**
 * The scroll position in px on one screen that matches `scroll` on another: the same link's arrival, or the same fraction between the
 * same two arrivals.
 */
export function matchingScroll(scroll: number, from: Travelled, to: Travelled): number {
  // A page that fits on its screen stays at its top.
  if (scroll <= 0) return 0
  const there = new Map(to.arrivals.map((a) => [a.section, a]))
  const places = from.arrivals.flatMap((a) => {
    const b = there.get(a.section)
    return a.movesPage && b?.movesPage ? [{ from: a.land, to: b.land }] : []
  })
  const ends = { from: from.maxScroll, to: to.maxScroll }
  let [before, after] = [{ from: 0, to: 0 }, ends]
  // Sections side by side on one screen may come in another order on the other; scrolling down must scroll down everywhere.
  for (const place of [...places.sort((a, b) => a.from - b.from || a.to - b.to), ends]) {
    const next = { from: place.from, to: Math.max(place.to, before.to) }
    after = next
    if (next.from > scroll) break
    before = next
  }
  const span = after.from - before.from
  const part = span > 0 ? Math.min(1, Math.max(0, (scroll - before.from) / span)) : 0
  return Math.min(to.maxScroll, before.to + part * (after.to - before.to))
}
