/** What the page says of the height of parts that are laid out late, where it is not what they have. */
import type { ElementAt } from '../page/index.ts'
import type { Survey } from './survey.ts'

/** In page order; it is wrong where it is by a px or more on one screen. */
export const wrongEstimates = (surveys: readonly Survey[]): ElementAt[] =>
  [...new Set(surveys.flatMap((s) => s.estimates.flatMap((e) => (Math.abs(e.height - e.said) >= 1 ? e.at : []))))].sort((a, b) => a - b)
