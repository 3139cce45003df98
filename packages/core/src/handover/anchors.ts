/**
 * Targets other than a section's own element: points and former IDs. If possible, each becomes the ID of an element without one: a point
 * that of its element, a former ID that of the section's heading, with a `scroll-margin-top` for the difference. That moves nothing, and
 * works in every browser. Otherwise it's a `meta` in the head that CSS places at its element's top, without size and out of the flow. In
 * the head because in the body it would change `:first-child` and the like.
 * @see CSS Anchor Positioning
 */
import { isOwnTravel } from '../arrival/index.ts'
import { hostedIds, type ElementAt } from '../page/index.ts'
import type { Section } from '../site/index.ts'
import type { HandoverInput } from './input.ts'

export interface Anchor {
  id: string
  section: Section
  isFormer: boolean
  /** The element that has the ID. */
  host: ElementAt | null
  /** px from the host's top to the section, by screen key. */
  below: Readonly<Record<string, number>>
  /** Without a host: the element's number in its attribute, and px below its top. */
  placed: { at: ElementAt; number: number; shift: number } | null
}

/** In page order, without former IDs that something else has now. */
export function anchorsOf(input: HandoverInput): Anchor[] {
  const { page, reading, named } = input
  if (!page.sections.some((s) => s.point || s.former.length)) return []
  const changed = new Map(page.sections.filter((s) => !s.point).map((s) => [s.at, s.id]))
  const ours = hostedIds(input.reading)
  const taken = new Set([
    ...reading.ids.filter((i) => ours.get(i.id) !== i.at).map((i) => changed.get(i.at) ?? i.id),
    ...page.sections.filter((s) => !s.point).map((s) => s.id),
  ])
  // Elements that have or get an ID.
  const hasId = new Set([...reading.ids.filter((i) => ours.get(i.id) !== i.at).map((i) => i.at), ...changed.keys()])
  const numbers = new Map<ElementAt, number>()
  const out: Anchor[] = []
  const add = (section: Section, id: string, isFormer: boolean) => {
    if (taken.has(id)) return
    taken.add(id)
    const found = named.includes(id) ? null : isFormer ? hostOfFormer(section, input) : hostOfPoint(section, input)
    const isFree = found && !hasId.has(found.host)
    if (found && isFree) {
      hasId.add(found.host)
      out.push({ id, section, isFormer, ...found, placed: null })
      return
    }
    const { at, point } = section
    if (!numbers.has(at)) numbers.set(at, numbers.size + 1)
    out.push({ id, section, isFormer, host: null, below: {}, placed: { at, number: numbers.get(at)!, shift: point?.shift ?? 0 } })
  }
  for (const section of page.sections) {
    if (section.point) add(section, section.id, false)
    for (const former of section.former) add(section, former, true)
  }
  return out
}

type Host = { host: ElementAt; below: Record<string, number> }

function hostOfPoint({ at, point }: Section, { screens }: HandoverInput): Host {
  return { host: at, below: Object.fromEntries(screens.map((s) => [s.key, point!.shift])) }
}

/** The section's heading, if it was measured on every screen. */
function hostOfFormer(section: Section, { page, screens, surveys }: HandoverInput): Host | null {
  const { heading, point } = section
  if (heading === null || heading === section.at || point) return null
  if (section.toTop) return { host: heading, below: {} }
  const below: Record<string, number> = {}
  for (const { key } of screens) {
    const part = surveys[key]?.parts.find((p) => p.at === section.at)
    if (!part?.hasBox || !part.heading) return null
    // With the page's own offsets, the section has its own margin.
    below[key] = part.top + part.shift - part.heading.top - (isOwnTravel(page) ? part.margin : 0)
  }
  return { host: heading, below }
}
