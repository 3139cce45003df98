/**
 * Targets that a section's own element is not: points, and former IDs. Each stands, where that can be, as the ID of an element that has none:
 * a point as that of the element that it stands before, a former ID as that of the section's heading, with a `scroll-margin-top` for the
 * difference. Nothing on the page moves for an ID that no style names, and every browser goes there.
 *
 * Otherwise it is a `meta` in the head, which CSS gives a box without size, out of the flow, at the top of the element that it stands for. In the
 * head since any place in the body would give some element another neighbour, or no longer let it be the first or last, and styles may go by that.
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
  /** The element whose ID it is. */
  host: ElementAt | null
  /** How far the section begins below the host's top on each screen, by its key, in px. */
  below: Readonly<Record<string, number>>
  /** Without a host: the element that it stands for, by the number that an attribute of it says, and how far below its top, in px. */
  placed: { at: ElementAt; number: number; shift: number } | null
}

/** In page order; a former ID that anything else on the page has now is left out, since links go to that. */
export function anchorsOf(input: HandoverInput): Anchor[] {
  const { page, reading, named } = input
  if (!page.sections.some((s) => s.point || s.former.length)) return []
  const changed = new Map(page.sections.filter((s) => !s.point).map((s) => [s.at, s.id]))
  const ours = hostedIds(input.reading)
  const taken = new Set([
    ...reading.ids.filter((i) => ours.get(i.id) !== i.at).map((i) => changed.get(i.at) ?? i.id),
    ...page.sections.filter((s) => !s.point).map((s) => s.id),
  ])
  // Elements that have an ID, or are to have one.
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

/** The section's heading, where it was measured on every screen. */
function hostOfFormer(section: Section, { page, screens, surveys }: HandoverInput): Host | null {
  const { heading, point } = section
  if (heading === null || heading === section.at || point) return null
  if (section.toTop) return { host: heading, below: {} }
  const below: Record<string, number> = {}
  for (const { key } of screens) {
    const part = surveys[key]?.parts.find((p) => p.at === section.at)
    if (!part?.hasBox || !part.heading) return null
    // By the page's own offsets the section has its own margin.
    below[key] = part.top + part.shift - part.heading.top - (isOwnTravel(page) ? part.margin : 0)
  }
  return { host: heading, below }
}
