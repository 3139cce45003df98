/** Byte splices: the only way a page is changed. All other bytes stay. */

export interface Splice {
  /** Byte offset in the original. */
  offset: number
  removed: Uint8Array
  inserted: Uint8Array
}

/** Applies splices, in rising order; they may touch but not overlap. */
export function splice(original: Uint8Array, splices: readonly Splice[]): Uint8Array {
  const grown = splices.reduce((n, s) => n + s.inserted.length - s.removed.length, 0)
  const out = new Uint8Array(original.length + grown)
  let from = 0
  let to = 0
  for (const s of splices) {
    if (s.offset < from) throw new RangeError(`splice at byte ${s.offset} overlaps the one that ends at byte ${from}`)
    out.set(original.subarray(from, s.offset), to)
    to += s.offset - from
    out.set(s.inserted, to)
    to += s.inserted.length
    from = s.offset + s.removed.length
  }
  out.set(original.subarray(from), to)
  return out
}

/** Restores the original from the changed bytes and their splices. */
export function undoSplices(changed: Uint8Array, splices: readonly Splice[]): Uint8Array {
  let growth = 0
  return splice(
    changed,
    splices.map((s) => {
      const back = { offset: s.offset + growth, removed: s.inserted, inserted: s.removed }
      growth += s.inserted.length - s.removed.length
      return back
    }),
  )
}
