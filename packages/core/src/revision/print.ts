/** Fingerprints of elements, to find them in another version of the page. */
import { textOf, type El, type ElementAt, type ParsedPage, type PageReading } from '../page/index.ts'

export interface Print {
  at: ElementAt
  /** The ID that links use in this version. */
  id: string | null
  title: string
  tag: string
  classes: Set<string>
  heading: string[]
  /** Words of its stretch of the page, with counts. */
  words: Map<string, number>
  /** 0 at the page's start, 1 at its end. */
  place: number
  offered: boolean
}

/** Max words compared. */
const LONGEST = 600

/** By word in scripts with spaces, else by letter. */
export const wordsOf = (text: string): string[] => {
  const found = text
    .normalize('NFKC')
    .toLowerCase()
    .match(/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]|[\p{L}\p{N}]+/gu)
  return found ?? []
}

/** Fingerprints in the given order, without elements that the page lacks. */
export function printsOf(parsed: ParsedPage, reading: PageReading, elements: readonly ElementAt[]): Print[] {
  const byAt = new Map(reading.candidates.map((c) => [c.at, c]))
  const { all } = parsed.tree
  return elements.flatMap((at): Print[] => {
    const el = parsed.byAt.get(at)
    if (!el) return []
    const candidate = byAt.get(at)
    const heading = candidate?.heading != null ? parsed.byAt.get(candidate.heading) : firstHeading(el, all)
    return [
      {
        at,
        id: candidate?.id ?? el.attrs.get('id') ?? null,
        title: candidate?.title ?? textOf(heading ?? el, 80),
        tag: el.tag,
        classes: new Set((el.attrs.get('class') ?? '').split(/\s+/).filter(Boolean)),
        heading: heading ? wordsOf(textOf(heading, 200)) : [],
        words: counted(stretch(el, heading ?? null, all)),
        place: el.order / all.length,
        offered: candidate?.offered ?? false,
      },
    ]
  })
}

const firstHeading = (el: El, all: readonly El[]): El | undefined => all.slice(el.order, el.lastOrder + 1).find((e) => e.level > 0)

/** The element's text; for a heading or an anchor, the text up to the next heading of its level or higher. */
function stretch(el: El, heading: El | null, all: readonly El[]): string {
  if (el.level === 0 && textOf(el, 20) !== '') return textOf(el, LONGEST * 6)
  const level = heading?.level || 7
  const parts: string[] = []
  let size = 0
  for (let i = el.order; i < all.length && size < LONGEST * 6; i++) {
    const e = all[i]!
    if (e !== heading && e.order > (heading ?? el).order && e.level > 0 && e.level <= level) break
    if (e.tag === 'script' || e.tag === 'style') continue
    for (const t of e.texts) {
      parts.push(t.value)
      size += t.value.length
    }
  }
  return parts.join(' ')
}

function counted(text: string): Map<string, number> {
  const out = new Map<string, number>()
  for (const word of wordsOf(text).slice(0, LONGEST)) out.set(word, (out.get(word) ?? 0) + 1)
  return out
}

/** Share of common words of two texts, 0 to 1; 0 if one is empty. @see Dice's coefficient, on multisets */
export function likeness(a: ReadonlyMap<string, number>, b: ReadonlyMap<string, number>): number {
  let both = 0
  let total = 0
  for (const [word, n] of a) {
    both += Math.min(n, b.get(word) ?? 0)
    total += n
  }
  for (const n of b.values()) total += n
  return total ? (2 * both) / total : 0
}
