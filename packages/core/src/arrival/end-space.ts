/** Room at the page's end: what is missing there, and what to leave so that every section reaches its place. */
import type { Candidate, PageReading } from '../page/index.ts'
import type { EndSpace, Section, SitePage } from '../site/index.ts'
import { viewHeight, type Survey } from '../survey/index.ts'
import { partsByAt } from './part.ts'
import { roomAtEnd, solveArrivals, type Arrival } from './solve.ts'

/** What of a page's room its style leaves on a screen, in px. */
export function endSpaceOn(page: SitePage, { screen, height }: Pick<Survey, 'screen' | 'height'>): number {
  const said = page.endSpace?.on.find((o) => o.screen === screen)
  return said ? Math.max(0, height - said.fits) : 0
}

/**
 * What ends where a section does: its element, or what holds that and its text; `body` where no tag stands for it. Null where the section holds all
 * of its content itself: a heading that were given room, or an anchor in it, would be parted from its text.
 */
export const endSpaceHolder = (section: Section, reading: PageReading): Candidate['holder'] =>
  section.block === undefined ? (reading.candidates.find((c) => c.at === section.at)?.holder ?? null) : null

/** The last section that can hold it: an element with a box. */
const lastWithBox = (page: SitePage, surveys: readonly Survey[]): Section | undefined =>
  page.sections.findLast((s) => !s.point && surveys.every((survey) => partsByAt(survey).get(s.at)?.hasBox))

/**
 * What to leave on all screens that were measured, so that every section that is linked reaches its place there.
 * @returns null where nothing is missing, or no section can hold it
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
    // Up to which height the page is long enough without it.
    return {
      screen: survey.screen,
      fits: Math.floor(survey.height - left - missing(solveArrivals(page, survey), survey)),
      base: rounded(base),
    }
  })
  // What goes by one screen gets the room of whichever needs most: larger text on it may.
  const on = [...new Set(said.map((s) => s.screen))].map((screen) => {
    const all = said.filter((s) => s.screen === screen)
    return { screen, fits: Math.min(...all.map((s) => s.fits)), base: Math.max(...all.map((s) => s.base)) }
  })
  return { section: section.key, as, on }
}

const rounded = (px: number): number => Math.max(0, Math.round(px * 100) / 100)

/** How much is missing for the one that reaches its place last, in px; negative for what is to spare. */
function missing(arrivals: readonly Arrival[], survey: Survey): number {
  // A page that does not fill the screen ends before that does.
  const end = survey.maxScroll - Math.max(0, viewHeight(survey) - survey.ownHeight)
  return arrivals.reduce((most, a) => Math.max(most, a.movesPage ? a.place - end : -end), -end)
}
