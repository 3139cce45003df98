/**
 * Finds sections in a new version of their page: by ID, then heading, then text, shape and neighbours. Uncertain ones are left for the
 * designer to decide.
 */
import type { ElementAt } from '../page/index.ts'
import { likeness, type Print } from './print.ts'

export interface Match {
  /** Index in the earlier version. */
  before: number
  /** Index in the new version; null if lost. */
  after: number | null
  /** Similarity, 0 to 1. */
  score: number
  doubtful: boolean
}

/** Min similarity. */
const LEAST = 0.3
/** Certain from this similarity on, with this distance to the next best. */
const PLAIN = 0.5
const MARGIN = 0.12

const bag = (words: readonly string[]) => words.reduce((m, w) => m.set(w, (m.get(w) ?? 0) + 1), new Map<string, number>())

/** Share of the shorter heading in the longer one: a shortened heading is still the same. */
function headingLikeness(a: readonly string[], b: readonly string[]): number {
  if (!a.length || !b.length) return 0
  const [x, y] = [bag(a), bag(b)]
  let both = 0
  for (const [word, n] of x) both += Math.min(n, y.get(word) ?? 0)
  const shorter = both / Math.min(a.length, b.length)
  // One common word of one means less than four of four.
  return shorter * (Math.min(a.length, b.length) > 1 || a.length === b.length ? 1 : 0.8) * 0.5 + likeness(x, y) * 0.5
}

interface Scored {
  before: number
  after: number
  score: number
}

/** IDs that led to a section: its own, the designer's, and former ones. */
export type KnownIds = (before: number) => ReadonlySet<string>

function scoreOf(a: Print, b: Print, ids: ReadonlySet<string>): number {
  const heading = headingLikeness(a.heading, b.heading)
  const text = likeness(a.words, b.words)
  const classes = likeness(bag([...a.classes]), bag([...b.classes]))
  const shape = (a.tag === b.tag ? 0.5 : 0) + (a.classes.size ? 0.5 * classes : a.classes.size === b.classes.size ? 0.5 : 0)
  const place = 1 - Math.abs(a.place - b.place)
  // Without headings, the text decides.
  const likely = a.heading.length || b.heading.length ? 0.4 * heading + 0.4 * text : 0.8 * text
  // Shape and place alone aren't enough.
  const hasId = b.id !== null && ids.has(b.id)
  if (likely < 0.25 && !hasId) return 0
  const byLook = likely + 0.08 * shape + 0.06 * place + (b.offered ? 0.06 : 0)
  // An ID is strong evidence, but may be on another element now.
  return hasId ? 0.5 + 0.5 * byLook : byLook
}

/** One match for each earlier print, in order; each new print is used once at most. */
export function matchPrints(before: readonly Print[], after: readonly Print[], known: KnownIds): Match[] {
  const scored: Scored[] = []
  const worthALook = before.length * after.length > MANY_PAIRS ? sharing(before, after, known) : () => after.keys()
  before.forEach((a, i) => {
    const ids = known(i)
    for (const j of worthALook(i)) {
      const score = scoreOf(a, after[j]!, ids)
      if (score >= LEAST) scored.push({ before: i, after: j, score })
    }
  })
  scored.sort(
    (x, y) =>
      y.score - x.score || Number(after[y.after]!.offered) - Number(after[x.after]!.offered) || x.before - y.before || x.after - y.after,
  )
  const taken = new Map<number, Scored>()
  const used = new Map<number, Scored>()
  for (const s of scored) {
    if (taken.has(s.before) || used.has(s.after)) continue
    taken.set(s.before, s)
    used.set(s.after, s)
  }
  return before.map((a, i): Match => {
    const match = taken.get(i)
    if (!match) return { before: i, after: null, score: 0, doubtful: false }
    // Uncertain if another fits nearly as well; elements around it or in the same place don't count.
    const rival = scored.find(
      (s) =>
        s !== match &&
        (s.before === i) !== (s.after === match.after) &&
        match.score - s.score < MARGIN &&
        !(s.before === i && nearBy(after, s.after, match.after)) &&
        !(s.after === match.after && isSettled(taken.get(s.before), s)),
    )
    const byId = after[match.after]!.id !== null && known(i).has(after[match.after]!.id!)
    const looksAlike =
      headingLikeness(a.heading, after[match.after]!.heading) >= 0.25 || likeness(a.words, after[match.after]!.words) >= 0.25
    return { before: i, after: match.after, score: match.score, doubtful: match.score < PLAIN || !!rival || (byId && !looksAlike) }
  })
}

/** The other fits better elsewhere. */
const isSettled = (own: Scored | undefined, rival: Scored): boolean => own !== undefined && own.score > rival.score

/** A block and its first heading are one place. */
const nearBy = (prints: readonly Print[], a: number, b: number): boolean => {
  const [x, y] = [prints[a]!, prints[b]!]
  return x.heading.length > 0 && x.heading.join(' ') === y.heading.join(' ') && likeness(x.words, y.words) > 0.8
}

/** Up to this many pairs, all are compared. */
const MANY_PAIRS = 200_000
/** Words in more prints than this are ignored. */
const COMMON = 60

/** For a large page: candidates that share an ID or an uncommon word. */
function sharing(before: readonly Print[], after: readonly Print[], known: KnownIds): (i: number) => Iterable<number> {
  const byId = new Map<string, number[]>()
  const byWord = new Map<string, number[]>()
  const put = (map: Map<string, number[]>, key: string, j: number) => {
    const list = map.get(key)
    if (list) list.push(j)
    else map.set(key, [j])
  }
  after.forEach((b, j) => {
    if (b.id !== null) put(byId, b.id, j)
    for (const word of new Set([...b.words.keys(), ...b.heading])) put(byWord, word, j)
  })
  return (i) => {
    const { words, heading } = before[i]!
    const found = new Set([...known(i)].flatMap((id) => byId.get(id) ?? []))
    for (const word of new Set([...heading, ...words.keys()])) {
      const list = byWord.get(word)
      if (list && list.length <= COMMON) for (const j of list) found.add(j)
    }
    return found
  }
}

/** Indexes that are out of order: all but one longest rising run. */
export function outOfOrder(places: readonly ElementAt[]): Set<number> {
  const tails: number[] = []
  const from: number[] = []
  places.forEach((place, i) => {
    let low = 0
    let high = tails.length
    while (low < high) {
      const middle = (low + high) >> 1
      if (places[tails[middle]!]! < place) low = middle + 1
      else high = middle
    }
    from[i] = low > 0 ? tails[low - 1]! : -1
    tails[low] = i
  })
  const kept = new Set<number>()
  for (let i = tails.at(-1) ?? -1; i >= 0; i = from[i]!) kept.add(i)
  return new Set(places.map((_, i) => i).filter((i) => !kept.has(i)))
}
