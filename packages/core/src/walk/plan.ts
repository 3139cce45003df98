/** What to try on a screen: every link, from the page's top and from its end. */
import { hashOf } from '../contract/index.ts'
import { sectionOf, type Section, type SitePage } from '../site/index.ts'

export type Start = 'above' | 'below'

/** Further than any page reaches, in px: who scrolls there stands at the end. */
export const FAR = 1e7

export interface WalkStep {
  section: Section
  hash: string
  start: Start
  /** Where the page is to stand before, in px. */
  from: number
  /** An item leads there, and is to be marked by us. */
  isLinked: boolean
}

export function walkPlan(page: SitePage): WalkStep[] {
  // What the page marks by itself is seen when its links are tried; a link to the next section marks nothing.
  const marking = page.highlight.pageMark ? [] : page.menus.filter((m) => m.form.kind !== 'steps')
  const linked = new Set(marking.flatMap((m) => m.items.map((i) => sectionOf(i.target))))
  const starts: [Start, number][] = [
    ['above', 0],
    ['below', FAR],
  ]
  return page.sections.flatMap((section) =>
    starts.map(([start, from]) => ({ section, hash: hashOf(section.id), start, from, isLinked: linked.has(section.key) })),
  )
}
