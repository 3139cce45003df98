/**
 * Headings without heading tags or roles, on pages that have no others: by class names. Headings that only differ in size or weight must
 * be measured by a browser.
 */
import { inlineTags, textOf, type El } from './tree.ts'

const NAMES = /(^|[\s_-])(heading|headline|header-?text|title|titre|titel|ueberschrift)(\d|[\s_-]|$)/i
const tags = new Set(['div', 'p', 'span', 'strong', 'b', 'big', 'font', 'td', 'li', 'center'])
const LONGEST = 120

/** Gives levels to elements that look like headings; to those called so before measurement. */
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
  // Headings highest in the tree are the page's, nested ones belong to them.
  const groups = [...byClass.values()].filter((g) => g.length >= 2).sort((a, b) => leastDepth(a) - leastDepth(b))
  groups.forEach((group, n) => group.forEach((el) => (el.level = Math.min(2 + n, 6))))
}

/** Short text in an element whose class says heading. */
export const isCalledHeading = (el: El): boolean => {
  if (el.level > 0 || !el.isHtml || !tags.has(el.tag) || !NAMES.test(el.attrs.get('class') ?? '')) return false
  const words = textOf(el, LONGEST + 1)
  return words !== '' && words.length <= LONGEST && el.children.every((c) => inlineTags.has(c.tag))
}

const leastDepth = (group: readonly El[]) => Math.min(...group.map((el) => el.depth))

/** Short text first in a block, before other text. */
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

/** Length of text before an element in its block; one line above a heading is fine. */
function before(block: El, el: El): number {
  const own = textOf(block, 400).indexOf(textOf(el, LONGEST))
  return own < 0 ? Infinity : own
}
