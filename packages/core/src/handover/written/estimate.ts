/** Estimated heights of parts that the browser lays out late, so that links know the distance. */
import { ESTIMATE } from '../../contract/index.ts'
import type { ElementAt } from '../../page/index.ts'
import type { SitePage } from '../../site/index.ts'
import { wrongEstimates, type Survey } from '../../survey/index.ts'
import type { PlannedEdit } from '../edit.ts'
import type { Range } from '../ranges.ts'
import type { WritingInput } from '../writing.ts'
import { forScreens, px, rule } from './css.ts'

type Surveys = Readonly<Record<string, Survey>>

const saidOf = (page: SitePage, surveys: Surveys): ElementAt[] => (page.travel.estimates ? wrongEstimates(Object.values(surveys)) : [])

export function planEstimates({ page, reading, surveys }: WritingInput): PlannedEdit[] {
  const edit = (at: ElementAt, value: string | null, why: string): PlannedEdit => ({
    edit: { kind: 'attribute', at, name: ESTIMATE, value },
    why,
    for: {},
    // Surveys lay out all parts.
    layout: null,
  })
  const said = saidOf(page, surveys)
  return [
    ...reading.written.estimates.flatMap((at) =>
      said.includes(at) ? [] : edit(at, null, 'The page sets its height until it is laid out.'),
    ),
    ...said.map((at, i) => edit(at, String(i + 1), 'Sets its height until it is laid out.')),
  ]
}

export function estimateRules(page: SitePage, ranges: readonly Range[], surveys: Surveys): string[] {
  return saidOf(page, surveys).flatMap((at, i) => {
    const heights = ranges.map(({ screen }) => surveys[screen.key]?.estimates.find((e) => e.at === at)?.height ?? null)
    const rules = heights.map((height) =>
      height === null ? null : rule(`[${ESTIMATE}="${i + 1}"]`, [`contain-intrinsic-height: auto ${px(height)} !important;`]),
    )
    return forScreens(ranges, rules)
  })
}
