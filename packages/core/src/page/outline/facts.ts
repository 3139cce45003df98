/** Amounts of text, links and headings in each element, computed in one walk. */
import { textOf, type El, type Tree } from '../tree.ts'
import { media, skipped } from './kinds.ts'

export interface Facts {
  weight: Float64Array
  linkWeight: Float64Array
  links: Uint16Array
  /** Weight of links to this page. */
  hashWeight: Float64Array
  /** Headings of section level or above, without taglines, by the containing element's order. */
  majors: Uint32Array
}

export const hasContent = (el: El) => textOf(el, 10) !== ''

/** The highest level at which headings repeat; else the highest level. */
export function findSectionLevel(headings: El[], tree: Tree): number {
  const counts = [0, 0, 0, 0, 0, 0, 0]
  for (const h of headings) if (!isTagline(h)) counts[h.level]!++
  // The site's name in a bar, and the page's title below.
  if (counts[1] === 2 && isNameAndTitle(headings, tree)) counts[1] = 1
  const repeated = counts.findIndex((n, level) => level > 0 && n >= 2)
  const present = counts.findIndex((n, level) => level > 0 && n > 0)
  return repeated > 0 ? repeated : present > 0 ? present : 2
}

/** Max characters between a site's name and the title, besides links and buttons. */
const FEW_WORDS = 40

function isNameAndTitle(headings: El[], tree: Tree): boolean {
  const [first, second] = headings.filter((h) => h.level === 1)
  if (!first || !second) return false
  let words = 0
  for (let i = first.lastOrder + 1; i < second.order; i++) {
    const el = tree.all[i]!
    if (el.tag === 'a' || (skipped.has(el.tag) && el.tag !== 'nav')) i = Math.max(i, el.lastOrder)
    else for (const text of el.texts) words += text.value.trim().length
  }
  return words < FEW_WORDS
}

/** True for a heading right under a higher one: a tagline. */
function isTagline(h: El): boolean {
  const siblings = h.parent?.children ?? []
  const before = siblings[siblings.indexOf(h) - 1]
  if (!before || before.level === 0 || before.level >= h.level) return false
  // Under the page's title it may open the first section, if more of its level follow.
  return !siblings.some((s) => s !== h && s.level === h.level)
}

export function measure(tree: Tree, headings: El[], sectionLevel: number): Facts {
  const n = tree.all.length
  const facts: Facts = {
    weight: new Float64Array(n),
    linkWeight: new Float64Array(n),
    links: new Uint16Array(n),
    hashWeight: new Float64Array(n),
    majors: new Uint32Array(n),
  }
  for (const h of headings) if (h.level <= sectionLevel && !isTagline(h)) facts.majors[h.order] = 1
  // From last to first, children come before parents.
  for (let i = n - 1; i >= 0; i--) {
    const el = tree.all[i]!
    if (skipped.has(el.tag) && el.tag !== 'nav') {
      if (media.has(el.tag) && el.parent) facts.weight[el.parent.order]! += 5
      continue
    }
    if (el.tag === 'img' || el.tag === 'hr') facts.weight[i]! += el.tag === 'img' ? 5 : 0
    for (const text of el.texts) facts.weight[i]! += text.value.length > 4096 ? text.value.length : text.value.trim().length
    if (el.tag === 'a') {
      facts.links[i]!++
      facts.linkWeight[i] = facts.weight[i]!
      if (el.attrs.get('href')?.trim().startsWith('#')) facts.hashWeight[i] = facts.weight[i]!
    }
    const up = el.parent
    if (!up) continue
    facts.weight[up.order]! += facts.weight[i]!
    facts.linkWeight[up.order]! += facts.linkWeight[i]!
    facts.hashWeight[up.order]! += facts.hashWeight[i]!
    facts.links[up.order] = Math.min(65535, facts.links[up.order]! + facts.links[i]!)
    facts.majors[up.order]! += facts.majors[i]!
  }
  return facts
}
