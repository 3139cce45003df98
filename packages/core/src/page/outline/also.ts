/** Candidates that aren't offered but may become sections. */
import { MAX_TARGET_DEPTH } from '../errors.ts'
import { contains, inlineTags, type El, type Tree } from '../tree.ts'
import { holderOf, isEmpty, isFooter, isNavigation, sectioning, unseen, within } from './kinds.ts'
import type { Part } from './parts.ts'
import { titleOf } from './titles.ts'

/** True when only markup lies between an element and the heading after it. */
function standsBefore(el: El, heading: El | undefined, tree: Tree): boolean {
  if (!heading || heading.order - el.order > 8) return false
  const isText = (t: { value: string }) => t.value.trim() !== ''
  if (tree.all.slice(el.lastOrder + 1, heading.order).some((e) => e.texts.some((t) => isText(t) && !contains(e, heading)))) return false
  for (let e = el; e.parent; e = e.parent) {
    const place = e.parent.children.indexOf(e)
    const end = contains(e.parent, heading) ? e.parent.children.findIndex((c) => c === heading || contains(c, heading)) : Infinity
    if (e.parent.texts.some((t) => isText(t) && t.before > place && t.before <= end)) return false
    if (end !== Infinity) return true
  }
  return true
}

/** An old-style anchor: empty, with a name or an ID. */
const isAnchor = (el: El): boolean =>
  (el.tag === 'a' || el.tag === 'span') && isEmpty(el) && !!(el.attrs.get('id') || (el.tag === 'a' && el.attrs.get('name')))

interface AlsoInput {
  tree: Tree
  offered: Part[]
  leadHeading: (el: El) => El | null
  headings: El[]
  earlier: ReadonlySet<string>
}

/** Further candidates: inner sections, footers, other headings, anything with ID and text, and former sections. */
export function alsoFound({ tree, offered, leadHeading, headings, earlier }: AlsoInput): Part[] {
  const taken = new Set(offered.map((p) => p.el))
  const headed = new Set(offered.map((p) => p.heading))
  const isHeading = new Set(headings)
  const out: Part[] = []
  let next = 0
  for (const el of tree.all) {
    if (taken.has(el) || !el.isHtml || el.at < 0 || el.depth > MAX_TARGET_DEPTH) continue
    const inner = (sectioning.has(el.tag) || isFooter(el) || (el.level > 0 && isHeading.has(el))) && !headed.has(el)
    const named = el.attrs.has('id') && !inlineTags.has(el.tag) && !['body', 'html', 'input', 'li'].includes(el.tag)
    const wasSection = earlier.has(el.attrs.get('id') || (el.tag === 'a' && el.attrs.get('name')) || '')
    while (next < headings.length && headings[next]!.order <= el.order) next++
    if (isAnchor(el) && !wasSection) {
      // An element in or right before a heading is named by it; if the heading has a section already, it would be a duplicate.
      const heading = within(el, (e) => isHeading.has(e)) ?? (standsBefore(el, headings[next], tree) ? headings[next]! : null)
      if (unseen(el) || (heading && (headed.has(heading) || taken.has(heading)))) continue
      out.push({
        el,
        heading,
        title: heading ? titleOf(el, heading) : (el.attrs.get('id') ?? el.attrs.get('name'))!,
        offered: false,
        depth: offered.filter((p) => contains(p.el, el)).length,
        block: null,
        holder: holderOf(el, heading),
      })
      continue
    }
    if (!wasSection && (!(inner || named) || unseen(el) || (named && !inner && isEmpty(el)))) continue
    const heading = el.level > 0 ? el : leadHeading(el)
    // The title would be a link in the bar.
    if (!heading && within(el, isNavigation) && !wasSection) continue
    out.push({
      el,
      heading,
      title: titleOf(el, heading),
      offered: false,
      depth: offered.filter((p) => contains(p.el, el)).length,
      block: null,
      holder: holderOf(el, heading),
    })
    if (out.length >= 10000) break
  }
  return out
}
