/**
 * Finding sections again in a new version of their page: by ID, then by heading, then by text, shape and neighbours. What is not
 * plain is marked as doubtful and left for the designer to decide.
 */
import type { ElementAt } from '../page/index.ts'
import { likeness, type Print } from './print.ts'

export interface Match {
  /** Index of the print in the earlier version. */
  before: number
  /** Index of the print in the new version; null where it is lost. */
  after: number | null
  /** From 0, nothing alike, to 1. */
  score: number
  doubtful: boolean
}

/** Below this nothing is taken as the same. */
const LEAST = 0.3
/** From this on, and with this much to the next best, it is plain. */
const PLAIN = 0.5
const MARGIN = 0.12

const bag = (words: readonly string[]) => words.reduce((m, w) => m.set(w, (m.get(w) ?? 0) + 1), new Map<string, number>())

/** How much of the shorter heading stands in the longer one: a heading that lost words is still the same one. */
function headingLikeness(a: readonly string[], b: readonly string[]): number {
  if (!a.length || !b.length) return 0
  const [x, y] = [bag(a), bag(b)]
  let both = 0
  for (const [word, n] of x) both += Math.min(n, y.get(word) ?? 0)
  const shorter = both / Math.min(a.length, b.length)
  // One word in common of one says less than four of four.
  return shorter * (Math.min(a.length, b.length) > 1 || a.length === b.length ? 1 : 0.8) * 0.5 + likeness(x, y) * 0.5
}

interface Scored {
  before: number
  after: number
  score: number
}

/** IDs that led to a section before: its own, what the designer made of it, and its former ones. */
export type KnownIds = (before: number) => ReadonlySet<string>

function scoreOf(a: Print, b: Print, ids: ReadonlySet<string>): number {
  const heading = headingLikeness(a.heading, b.heading)
  const text = likeness(a.words, b.words)
  const classes = likeness(bag([...a.classes]), bag([...b.classes]))
  const shape = (a.tag === b.tag ? 0.5 : 0) + (a.classes.size ? 0.5 * classes : a.classes.size === b.classes.size ? 0.5 : 0)
  const place = 1 - Math.abs(a.place - b.place)
  // Without a heading on either side, the text has to say it.
  const likely = a.heading.length || b.heading.length ? 0.4 * heading + 0.4 * text : 0.8 * text
  // Shape and place alone make nothing the same.
  const hasId = b.id !== null && ids.has(b.id)
  if (likely < 0.25 && !hasId) return 0
  const byLook = likely + 0.08 * shape + 0.06 * place + (b.offered ? 0.06 : 0)
  // An ID is a strong sign, and yet may stand on something else by now.
  return hasId ? 0.5 + 0.5 * byLook : byLook
}

/** One match for each print of the earlier version, in their order; each print of the new one is used once at most. */
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
    // Another that fits nearly as well, on either side, makes it a guess; what lies around or in the same place does not count as another.
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

/** The other has a better place of its own. */
const isSettled = (own: Scored | undefined, rival: Scored): boolean => own !== undefined && own.score > rival.score

/** A block and the heading that it begins with are one place. */
const nearBy = (prints: readonly Print[], a: number, b: number): boolean => {
  const [x, y] = [prints[a]!, prints[b]!]
  return x.heading.length > 0 && x.heading.join(' ') === y.heading.join(' ') && likeness(x.words, y.words) > 0.8
}

/** Up to this many pairs each is looked at. */
const MANY_PAIRS = 200_000
/** A word that more prints have says little of any of them. */
const COMMON = 60

/** On a large page: for each print of the earlier version those of the new one that share an ID, or a word that is not common, with it. */
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

/** Indexes, in the order of `places`, of those that stand out of order: all but a longest rising run. */
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
