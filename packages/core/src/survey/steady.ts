/** What a survey is where the page's header keeps the place that it has at its full size. */
import type { Survey } from './survey.ts'

/** The same where it does not become smaller, or nothing can make up for that. */
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
