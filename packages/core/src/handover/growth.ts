/** How the page's header changes after scrolling. */
import { coverOf, shiftOf } from '../arrival/index.ts'
import type { Screen } from '../site/index.ts'
import type { HandoverInput } from './input.ts'

/** In px; null if not measured. */
export type Growth = { by: number; shifts: number } | null

export function growthOn({ page, surveys }: HandoverInput, screen: Screen): Growth {
  const survey = surveys[screen.key]
  if (!survey) return null
  const { ownMoved, ownRest } = coverOf(page, survey)
  return { by: ownMoved - ownRest, shifts: shiftOf(page, survey) }
}

/** True if the header has more than one size on some screen, or may have. */
export const mayChange = (input: HandoverInput): boolean =>
  hasHeader(input) && input.screens.some((screen) => growthOn(input, screen)?.by !== 0)

/** True if the page has a header in its source or built by scripts. */
const hasHeader = ({ page, surveys }: HandoverInput): boolean =>
  page.header !== null || Object.values(surveys).some(({ header }) => header?.at === null && /sticky|fixed/.test(header.position))
