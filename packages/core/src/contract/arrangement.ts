/** Reorders a list's entries and the text between them, in the file and in the live page alike. */

/** An entry of the new order; or the text after the `between`-th entry (only its leading white space with `lead`). */
export type Token = { slot: number } | { between: number; lead: boolean }

/**
 * White space and dividers stay in place while entries move; those of a dropped entry go with it. Other links between entries always
 * stay, and aren't repeated.
 * @param holds for each entry but the last: whether a link follows it before the next
 */
export function arrangement<T>(from: readonly T[], to: readonly T[], holds: readonly boolean[]): Token[] {
  const stays = new Set(to)
  const left = new Set(holds.keys())
  from.forEach((entry, k) => {
    if (stays.has(entry)) return
    const gone = [k, k - 1].find((g) => left.has(g) && !holds[g])
    if (gone !== undefined) left.delete(gone)
  })
  const betweens = [...left]
  const last = holds.length - 1
  const out: Token[] = []
  to.forEach((_, slot) => {
    const between = betweens[slot - 1] ?? last
    if (slot > 0 && last >= 0) out.push({ between, lead: slot > betweens.length && holds[last]! })
    out.push({ slot })
  })
  for (const between of betweens.slice(Math.max(0, to.length - 1))) if (holds[between]) out.push({ between, lead: false })
  return out
}
