/** Space at the page's end: how much is missing, and how much to add so that every section can arrive. */
import type { Candidate, PageReading } from '../page/index.ts'
import type { EndSpace, Section, SitePage } from '../site/index.ts'
import { viewHeight, type Survey } from '../survey/index.ts'
import { partsByAt } from './part.ts'
import { roomAtEnd, solveArrivals, type Arrival } from './solve.ts'

/** Space in px that the page's style adds on a screen. */
export function endSpaceOn(page: SitePage, { screen, height }: Pick<Survey, 'screen' | 'height'>): number {
  const said = page.endSpace?.on.find((o) => o.screen === screen)
  return said ? Math.max(0, height - said.fits) : 0
}

/**
 * The element that ends where a section ends: its own, or the one that holds it with its text; `body` if no tag does. Null for a section
 * that holds its content itself: space added to a heading or an anchor would separate it from its text.
 */
export const endSpaceHolder = (section: Section, reading: PageReading): Candidate['holder'] =>
  section.block === undefined ? (reading.candidates.find((c) => c.at === section.at)?.holder ?? null) : null

/** The last section with a box. */
const lastWithBox = (page: SitePage, surveys: readonly Survey[]): Section | undefined =>
  page.sections.findLast((s) => !s.point && surveys.every((survey) => partsByAt(survey).get(s.at)?.hasBox))

/**
 * The space to add on all measured screens so that every linked section can arrive.
 * @returns null if nothing is missing, or no section can hold it
 */
export function endSpaceFor(page: SitePage, measured: Iterable<Survey>, as: EndSpace['as']): EndSpace | null {
  const surveys = [...measured]
  const section = lastWithBox(page, surveys)
  if (!section || !surveys.some((s) => roomAtEnd(solveArrivals(page, s)) >= 1)) return null
  const was = page.endSpace?.section === section.key ? page.endSpace : undefined
  const said = surveys.map((survey) => {
    const left = was ? endSpaceOn(page, survey) : 0
    const part = partsByAt(survey).get(section.at)!
    const base = as === 'padding' ? part.foot - (was?.as === 'padding' ? left : 0) : part.bottom - part.top - part.frame - left
    // `fits`: the viewport height up to which the page is long enough without it.
    return {
      screen: survey.screen,
      fits: Math.floor(survey.height - left - missing(solveArrivals(page, survey), survey)),
      base: rounded(base),
    }
  })
  // Screens that share a decision get the largest need; larger text may need more.
  const on = [...new Set(said.map((s) => s.screen))].map((screen) => {
    const all = said.filter((s) => s.screen === screen)
    return { screen, fits: Math.min(...all.map((s) => s.fits)), base: Math.max(...all.map((s) => s.base)) }
  })
  return { section: section.key, as, on }
}

const rounded = (px: number): number => Math.max(0, Math.round(px * 100) / 100)

/** Missing px for the section that needs most; negative for spare px. */
function missing(arrivals: readonly Arrival[], survey: Survey): number {
  // A page shorter than the screen ends before the screen does.
  const end = survey.maxScroll - Math.max(0, viewHeight(survey) - survey.ownHeight)
  return arrivals.reduce((most, a) => Math.max(most, a.movesPage ? a.place - end : -end), -end)
}
