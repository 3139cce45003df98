/** How the entries of a list, and what stands between them, are put into a new order: the same in the file and in the live page. */

/** An entry of the new order; or what stood behind the `between`-th entry, of which only its leading white space where `lead` says so. */
export type Token = { slot: number } | { between: number; lead: boolean }

/**
 * White space and dividers keep their place while entries change theirs; what goes with a dropped entry goes. Other links of the page that
 * stand between entries stay in any case, and are not repeated.
 * @param holds for each entry but the last, whether a link stands between it and the next
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
