/** What to try on a screen: every link, from the page's top and from its end. */
import { hashOf } from '../contract/index.ts'
import { sectionOf, type Section, type SitePage } from '../site/index.ts'

export type Start = 'above' | 'below'

/** Beyond any page, in px: scrolling there reaches the end. */
export const FAR = 1e7

export interface WalkStep {
  section: Section
  hash: string
  start: Start
  /** Start position in px. */
  from: number
  /** An item leads there, and our script should mark it. */
  isLinked: boolean
}

export function walkPlan(page: SitePage): WalkStep[] {
  // The page's own marks are checked by the quick walk; step links mark nothing.
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
