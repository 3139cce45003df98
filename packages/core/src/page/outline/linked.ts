/** Adds targets of the page's menus to the parts. */
import { MAX_TARGET_DEPTH } from '../errors.ts'
import { contains, type El } from '../tree.ts'
import { holderOf, isEmpty, unseen } from './kinds.ts'
import type { Likely, Part } from './parts.ts'
import { titleOf } from './titles.ts'

/** A menu's target is a section, whatever it looks like; it replaces the block that it opens. */
export function withLinked(found: Likely[], linked: ReadonlyMap<El, string>, leadHeading: (el: El) => El | null, headings: El[]): Part[] {
  const parts = [...found]
  for (const el of linked.keys()) {
    if (el.depth > MAX_TARGET_DEPTH || unseen(el) || ['html', 'body', 'main', 'head'].includes(el.tag)) continue
    if (parts.some((p) => p.el === el)) continue
    const inside = parts.filter((p) => contains(el, p.el))
    if (inside.length >= 2) continue
    if (inside.length === 1) {
      // A linked block around one part is that part, with the ID that people use already.
      parts[parts.indexOf(inside[0]!)] = { el, heading: inside[0]!.heading }
      continue
    }
    const outer = parts.find((p) => contains(p.el, el))

    const opensOuter =
      outer &&
      (el === outer.heading ||
        (outer.heading && el.tag === 'a' && contains(el, outer.heading)) ||
        (isEmpty(el) && (!outer.heading || el.order < outer.heading.order)))
    // An anchor in, around or beside a heading belongs to the heading, whatever follows.
    const around = headings.find((h) => contains(h, el)) ?? null
    const heading = el.level > 0 ? el : (around ?? leadHeading(el) ?? (isEmpty(el) ? headingAfter(el, headings) : null))
    const names = around !== null && around === outer?.heading && !linked.has(outer.el)
    if (outer && (names || (opensOuter && !outer.el.attrs.has('id'))))
      parts[parts.indexOf(outer)] = { el, heading: outer.heading, scope: outer.el }
    else {
      // An empty target right before a block, a common workaround for fixed headers, belongs to the block.
      const block = isEmpty(el) && !around ? firstBehind(el, parts) : undefined
      if (block && !block.el.attrs.has('id') && isNextTo(el, block.el)) {
        parts[parts.indexOf(block)] = { el, heading: block.heading, scope: block.el }
        continue
      }
      // An old anchor before a detected heading: one section, not two.
      const twin =
        isEmpty(el) || el.level === 0 ? parts.find((p) => p.el === heading && p.heading === heading && p.el !== around) : undefined
      if (twin) parts[parts.indexOf(twin)] = { el, heading }
      else parts.push({ el, heading })
    }
  }
  parts.sort((a, b) => a.el.order - b.el.order)
  return parts.map(({ el, heading, scope }) => ({
    el,
    heading,
    title: titleIn(el, heading, linked.get(el) ?? '', headings),
    offered: true,
    depth: parts.filter((p) => p.el !== el && contains(p.scope ?? p.el, el)).length,
    block: scope && isEmpty(el) ? scope : null,
    holder: holderOf(el, heading, scope),
  }))
}

function firstBehind(el: El, parts: readonly Likely[]): Likely | undefined {
  let first: Likely | undefined
  for (const part of parts) if (part.el.order > el.lastOrder && (!first || part.el.order < first.el.order)) first = part
  return first
}

/** True when only markup or empty elements lie between an element and a block. */
function isNextTo(el: El, block: El): boolean {
  for (let e = el; e.parent; e = e.parent) {
    const place = e.parent.children.indexOf(e)
    const to = e.parent.children.findIndex((c) => c === block || contains(c, block))
    if (e.parent.texts.some((t) => t.value.trim() !== '' && t.before > place && (to < 0 || t.before <= to))) return false
    if (e.parent.children.slice(place + 1, to < 0 ? undefined : to).some((c) => !isEmpty(c))) return false
    if (to >= 0) {
      for (let inner = e.parent.children[to]!; inner !== block;) {
        const next = inner.children.find((c) => c === block || contains(c, block))!
        if (inner.children.slice(0, inner.children.indexOf(next)).some((c) => !isEmpty(c))) return false
        inner = next
      }
      return true
    }
  }
  return false
}

const headingAfter = (el: El, headings: El[]): El | null => headings.find((h) => h.order > el.order) ?? null

/** Without one heading for all of it, the menu's label is the title. */
function titleIn(el: El, heading: El | null, label: string, headings: readonly El[]): string {
  const own = headings.filter((h) => contains(el, h))
  const isOneOfMany = heading !== null && heading !== el && own.filter((h) => h.level === heading.level).length > 1
  const isSaid = label !== '' && (heading ? isOneOfMany && own.every((h) => h.level >= heading.level) : !el.attrs.get('aria-label'))
  return isSaid ? label : titleOf(el, heading)
}
