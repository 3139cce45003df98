/** What becomes of the page's header once the page has moved. */
import { coverOf, shiftOf } from '../arrival/index.ts'
import type { Screen } from '../site/index.ts'
import type { HandoverInput } from './input.ts'

/** In px; null where nobody measured it. */
export type Growth = { by: number; shifts: number } | null

export function growthOn({ page, surveys }: HandoverInput, screen: Screen): Growth {
  const survey = surveys[screen.key]
  if (!survey) return null
  const { ownMoved, ownRest } = coverOf(page, survey)
  return { by: ownMoved - ownRest, shifts: shiftOf(page, survey) }
}

/** On some screen it has more than one size, or may have. */
export const mayChange = (input: HandoverInput): boolean =>
  hasHeader(input) && input.screens.some((screen) => growthOn(input, screen)?.by !== 0)

/** The page has a header in its source, or its scripts make one that stays. */
const hasHeader = ({ page, surveys }: HandoverInput): boolean =>
  page.header !== null || Object.values(surveys).some(({ header }) => header?.at === null && /sticky|fixed/.test(header.position))
