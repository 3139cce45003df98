/** Positions at which the header changes. */
import { firstSection, type SitePage } from '../site/index.ts'
import type { Survey, SurveyPart } from '../survey/index.ts'

/** The first section, if it can start under the header: it does, or is close to the page's top. */
export function partUnder(page: Pick<SitePage, 'sections'>, { parts }: Survey): SurveyPart | undefined {
  const first = firstSection(page)
  return parts.find((p) => p.at === first?.at && p.hasBox && (p.lead > 0 || p.top < 1))
}

/** Scroll position in px from which the header changes. */
export function onScrollFrom(page: Pick<SitePage, 'header' | 'sections'>, survey: Survey): number {
  const { onScroll } = page.header!
  const first = onScroll!.over && firstSection(page)
  const part = first && survey.parts.find((p) => p.at === first.at)
  return part ? Math.max(0, part.bottom - (survey.header?.height ?? 0)) : onScroll!.after
}
