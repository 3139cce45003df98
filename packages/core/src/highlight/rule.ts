/** The current section at a scroll position. Part of handed-over pages, so it's small and has no imports. */

/**
 * The bell of each section: the scroll position in px from which it's current. `tops` are section tops in document order, in px from the
 * document's top; `line` is the bell line in px below the viewport's top. Bells beyond `maxScroll` are pulled in from the end, so that
 * every section gets a stretch and the last is current at the bottom.
 * @returns each section's index in `tops` and bell, in rising order
 */
export function bells(tops: readonly number[], line: number, maxScroll: number): { index: number; bell: number }[] {
  const sorted = tops.map((top, index) => ({ index, bell: top - line })).sort((a, b) => a.bell - b.bell)
  // A page that doesn't scroll: its first section is current.
  if (maxScroll <= 0) return sorted.map(({ index }, i) => ({ index, bell: i ? Infinity : 0 }))
  const least = Math.min(40, maxScroll / sorted.length)
  let limit = maxScroll
  for (const at of [...sorted].reverse()) {
    limit -= least
    // Earlier ones need no pulling in.
    if (at.bell <= limit) break
    at.bell = limit
  }
  return sorted
}

/** Index of the current section at `scroll`; -1 before the first. */
export function currentAt(sorted: readonly { index: number; bell: number }[], scroll: number): number {
  return sorted.findLast(({ bell }) => bell <= scroll)?.index ?? -1
}
