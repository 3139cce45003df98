/**
 * Which section is current at a scroll position. This file goes into handed-over pages with the script, so it is small
 * and stands by itself.
 */

/**
 * The bell of each section: the scroll position at which it becomes current, in px.
 * `tops` are section tops in document order, in px from the document's top; sections are counted by top, then document order.
 * `line` is the bell line, in px below the viewport's top. Bells that lie beyond `maxScroll` are pulled in from the end, so that
 * every section has its stretch and the last is current at the bottom.
 * @returns for each section, in rising order of bells, its index in `tops` and its bell
 */
export function bells(tops: readonly number[], line: number, maxScroll: number): { index: number; bell: number }[] {
  const out = tops.map((top, index) => ({ index, bell: top - line })).sort((a, b) => a.bell - b.bell || a.index - b.index)
  // A page that does not scroll has one current section, the first.
  if (maxScroll <= 0) {
    out.forEach((o, i) => (o.bell = i ? Infinity : 0))
    return out
  }
  const least = Math.min(40, maxScroll / out.length)
  let limit = maxScroll - least
  for (let i = out.length - 1; i >= 0; i--) {
    const at = out[i]!
    // The first from the end that rings by itself with room to spare ends the pulling in.
    if (at.bell <= limit) break
    at.bell = limit
    limit -= least
  }
  return out
}

/** The index of the section that is current at `scroll`, or -1 before the first. */
export function currentAt(sorted: readonly { index: number; bell: number }[], scroll: number): number {
  let n = 0
  while (n < sorted.length && sorted[n]!.bell <= scroll) n++
  return n ? sorted[n - 1]!.index : -1
}
