/** A survey with the header's space kept at full size. */
import type { Survey } from './survey.ts'

/** Unchanged if the header doesn't shrink, or nothing can compensate. */
export function steadied(survey: Survey): Survey {
  const { makesUp } = survey.header ?? {}
  if (!makesUp) return survey
  return {
    ...survey,
    maxScroll: survey.maxScroll + makesUp,
    parts: survey.parts.map((p) => ({ ...p, movedTop: p.top })),
    built: { ...survey.built, targets: survey.built.targets.map((t) => ({ ...t, movedTop: t.top })) },
  }
}
