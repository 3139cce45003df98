/** Estimated heights of late parts that differ from the real ones. */
import type { ElementAt } from '../page/index.ts'
import type { Survey } from './survey.ts'

/** In page order; wrong by at least 1 px on some screen. */
export const wrongEstimates = (surveys: readonly Survey[]): ElementAt[] =>
  [...new Set(surveys.flatMap((s) => s.estimates.flatMap((e) => (Math.abs(e.height - e.said) >= 1 ? e.at : []))))].sort((a, b) => a - b)
