/**
 * Targets that the page has no element for: points, and former IDs. Each is a `meta` in the head, which CSS gives a box without size,
 * out of the flow, at the top of the element that it stands for. In the head since any place in the body would give some element
 * another neighbour, or no longer let it be the first or last, and styles may go by that; so nothing on the page moves.
 * @see CSS Anchor Positioning
 */
import type { ElementAt, PageReading } from '../page/index.ts'
import type { Section, SitePage } from '../site/index.ts'

export interface Anchor {
  id: string
  /** The element that it stands for. */
  at: ElementAt
  /** Number of that element, for the attribute that says so. */
  number: number
  /** How far below the element's top, in px. */
  shift: number
  section: Section
  isFormer: boolean
}

/** In page order; a former ID that anything on the page has now is left out, since links go to that. */
export function anchorsOf(page: SitePage, reading: PageReading): Anchor[] {
  if (!page.sections.some((s) => s.point || s.former.length)) return []
  const changed = new Map(page.sections.filter((s) => !s.point).map((s) => [s.at, s.id]))
  const taken = new Set([...reading.ids.map((i) => changed.get(i.at) ?? i.id), ...page.sections.map((s) => s.id)])
  const numbers = new Map<ElementAt, number>()
  const out: Anchor[] = []
  for (const section of page.sections) {
    const { at, point, id } = section
    const add = (name: string, isFormer: boolean) => {
      if (!numbers.has(at)) numbers.set(at, numbers.size + 1)
      out.push({ id: name, at, number: numbers.get(at)!, shift: point?.shift ?? 0, section, isFormer })
    }
    if (point) add(id, false)
    for (const former of section.former) {
      if (taken.has(former)) continue
      taken.add(former)
      add(former, true)
    }
  }
  return out
}
