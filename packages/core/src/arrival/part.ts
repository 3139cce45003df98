/** Where a section is on a screen. */
import type { ElementAt } from '../page/index.ts'
import type { Section } from '../site/index.ts'
import type { Survey, SurveyPart } from '../survey/index.ts'

/** What was measured does not change. */
const known = new WeakMap<Survey['parts'], ReadonlyMap<ElementAt, SurveyPart>>()

export function partsByAt({ parts }: Survey): ReadonlyMap<ElementAt, SurveyPart> {
  let byAt = known.get(parts)
  if (!byAt) known.set(parts, (byAt = new Map(parts.map((p) => [p.at, p]))))
  return byAt
}

/** Its target stands above what it is about, where the page moved it. */
export const standsAbove = ({ block }: Section, { shift }: SurveyPart): boolean => shift > 0 && block === undefined

/**
 * What was measured of a section, null where nothing was. A point has no size; it is as far from its element's top as it was shifted. What a
 * page shifted up by its header begins where its block does.
 */
export function partOf(section: Section, parts: ReadonlyMap<ElementAt, SurveyPart>): SurveyPart | null {
  const part = parts.get(section.at)
  if (!part) return null
  if (!section.point) return part.shift ? { ...part, top: part.top + part.shift, movedTop: part.movedTop + part.shift } : part
  const { shift } = section.point
  return { ...part, top: part.top + shift, bottom: part.top + shift, movedTop: part.movedTop + shift, margin: 0 }
}
