/** Where the page's header does what it was given to do. */
import { firstSection, type SitePage } from '../site/index.ts'
import type { Survey, SurveyPart } from '../survey/index.ts'

/** The first section, where it can begin under the header on the screen of a survey: it does already, or near enough to the page's top. */
export function partUnder(page: Pick<SitePage, 'sections'>, { parts }: Survey): SurveyPart | undefined {
  const first = firstSection(page)
  return parts.find((p) => p.at === first?.at && p.hasBox && (p.lead > 0 || p.top < 1))
}

/** The scroll position on the screen of a survey, in px, for a header that does something once the page has been scrolled. */
export function onScrollFrom(page: Pick<SitePage, 'header' | 'sections'>, survey: Survey): number {
  const { onScroll } = page.header!
  const first = onScroll!.over && firstSection(page)
  const part = first && survey.parts.find((p) => p.at === first.at)
  return part ? Math.max(0, part.bottom - (survey.header?.height ?? 0)) : onScroll!.after
}
