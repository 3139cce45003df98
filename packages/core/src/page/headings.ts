/**
 * Headings that are neither `h1` to `h6` nor say so by their role: on a page without those, what its classes call headings. Where they look
 * like headings by their size or weight alone, a browser has to measure it.
 */
import { inlineTags, textOf, type El } from './tree.ts'

const NAMES = /(^|[\s_-])(heading|headline|header-?text|title|titre|titel|ueberschrift)(\d|[\s_-]|$)/i
const tags = new Set(['div', 'p', 'span', 'strong', 'b', 'big', 'font', 'td', 'li', 'center'])
const LONGEST = 120

/** Gives levels to what looks like a heading, or before that was measured to what is called one. */
export function levelBy(all: readonly El[], looks: readonly { at: number; level: number }[]): void {
  if (!looks.length) return levelByName(all)
  const levels = new Map(looks.map((l) => [l.at, l.level]))
  for (const el of all) if (el.level === 0 && el.isHtml) el.level = levels.get(el.at) ?? 0
}

function levelByName(all: readonly El[]): void {
  const byClass = new Map<string, El[]>()
  for (const el of all) {
    const name = el.attrs.get('class')?.trim()
    if (!name || el.level > 0 || !el.isHtml || !tags.has(el.tag) || !NAMES.test(name) || !opensBlock(el)) continue
    byClass.set(name, [...(byClass.get(name) ?? []), el])
  }
  // Those that stand highest in the tree are the page's, those further in are theirs.
  const groups = [...byClass.values()].filter((g) => g.length >= 2).sort((a, b) => leastDepth(a) - leastDepth(b))
  groups.forEach((group, n) => group.forEach((el) => (el.level = Math.min(2 + n, 6))))
}

/** A few words in an element that a class calls a heading. */
export const isCalledHeading = (el: El): boolean => {
  if (el.level > 0 || !el.isHtml || !tags.has(el.tag) || !NAMES.test(el.attrs.get('class') ?? '')) return false
  const words = textOf(el, LONGEST + 1)
  return words !== '' && words.length <= LONGEST && el.children.every((c) => inlineTags.has(c.tag))
}

const leastDepth = (group: readonly El[]) => Math.min(...group.map((el) => el.depth))

/** A few words first in a block, before others, with nothing but words in it. */
function opensBlock(el: El): boolean {
  const words = textOf(el, LONGEST + 1)
  if (words === '' || words.length > LONGEST || el.children.some((c) => !inlineTags.has(c.tag))) return false
  for (let e: El | null = el.parent; e && e.tag !== 'a' && e.tag !== 'nav'; e = e.parent) {
    if (e.level > 0) return false
    const all = textOf(e, LONGEST * 3)
    if (!all.startsWith(words)) return e.children[0] !== undefined && before(e, el) <= 60
    if (all.length > words.length) return true
  }
  return false
}

/** How much text stands in a block before an element: a line above a heading is no reason against it. */
function before(block: El, el: El): number {
  const own = textOf(block, 400).indexOf(textOf(el, LONGEST))
  return own < 0 ? Infinity : own
}
