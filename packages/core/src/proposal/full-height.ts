/** Sections as high as the viewport: space above them would show a strip of the section before. */
import { coverOf, partsByAt } from '../arrival/index.ts'
import type { Section, SetUp, SitePage } from '../site/index.ts'
import { viewHeight, type Survey } from '../survey/index.ts'

/**
 * True for a section that is as high as the viewport, or as what the page’s header leaves of it, on at least half of the screens and never lower.
 * One screen or several of one height prove nothing.
 */
function isFullHeight(section: Section, page: SitePage, surveys: readonly Survey[]): boolean {
  if (section.point || section.toTop) return false
  const heights = surveys.map((survey) => {
    const part = partsByAt(survey).get(section.at)
    const view = viewHeight(survey)
    return { view, left: view - coverOf(page, survey).ownRest, height: part?.hasBox ? part.bottom - part.top : 0 }
  })
  const equal = heights.filter(({ view, left, height }) => Math.abs(height - view) <= 1 || Math.abs(height - left) <= 1)
  return (
    equal.length * 2 >= heights.length &&
    new Set(equal.map((h) => h.view)).size > 1 &&
    heights.every(({ left, height }) => height >= left - 1)
  )
}

/** The set-up in which links to full-height sections arrive flush with the header: all sections, or these alone. */
export function flushSections(setUp: SetUp, page: SitePage, surveys: readonly Survey[]): SetUp {
  const full = new Set(setUp.sections.filter((s) => isFullHeight(s, page, surveys)))
  const others = setUp.sections.filter((s) => !s.toTop && !full.has(s))
  if (!full.size) return setUp
  if (!others.length) return { ...setUp, travel: { ...setUp.travel, breathing: 0 } }
  const adjust = { by: -setUp.travel.breathing }
  return { ...setUp, sections: setUp.sections.map((s) => (full.has(s) ? { ...s, adjust } : s)) }
}
