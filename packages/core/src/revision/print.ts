/** What an element is like, so that it can be known again in another version of its page. */
import { textOf, type El, type ElementAt, type ParsedPage, type PageReading } from '../page/index.ts'

export interface Print {
  at: ElementAt
  /** The ID that links find it by, in this version. */
  id: string | null
  title: string
  tag: string
  classes: Set<string>
  heading: string[]
  /** Words of its stretch of the page, with how often each stands there. */
  words: Map<string, number>
  /** 0 at the page's beginning, 1 at its end. */
  place: number
  offered: boolean
}

/** Words that are looked at, at most. */
const LONGEST = 600

/** Word by word where the script puts spaces between them, and letter by letter where it does not. */
export const wordsOf = (text: string): string[] => {
  const found = text
    .normalize('NFKC')
    .toLowerCase()
    .match(/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}]|[\p{L}\p{N}]+/gu)
  return found ?? []
}

/** The prints of elements of a page, in the order given; those that the page does not have are left out. */
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

/** The text of the element; of a heading or an anchor, that of what follows it, up to the next heading that is no lower. */
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

/** Share of words that two texts have in common, from 0 to 1; 0 where one has none. @see Dice's coefficient, on multisets */
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
