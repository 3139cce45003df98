/** A section's position on a screen. */
import type { ElementAt } from '../page/index.ts'
import type { Section } from '../site/index.ts'
import type { Survey, SurveyPart } from '../survey/index.ts'

/** Surveys don't change, so lookups are cached. */
const known = new WeakMap<Survey['parts'], ReadonlyMap<ElementAt, SurveyPart>>()

export function partsByAt({ parts }: Survey): ReadonlyMap<ElementAt, SurveyPart> {
  let byAt = known.get(parts)
  if (!byAt) known.set(parts, (byAt = new Map(parts.map((p) => [p.at, p]))))
  return byAt
}

/** True when the target is above its block, because the page moved it up. */
export const standsAbove = ({ block }: Section, { shift }: SurveyPart): boolean => shift > 0 && block === undefined

/**
 * A section's measurements; null for none. A point has no size and lies at its shift below its element's top. A target that the page
 * moved up by its header starts where its block does.
 */
export function partOf(section: Section, parts: ReadonlyMap<ElementAt, SurveyPart>): SurveyPart | null {
  const part = parts.get(section.at)
  if (!part) return null
  if (!section.point) return part.shift ? { ...part, top: part.top + part.shift, movedTop: part.movedTop + part.shift } : part
  const { shift } = section.point
  return { ...part, top: part.top + shift, bottom: part.top + shift, movedTop: part.movedTop + shift, margin: 0 }
}
