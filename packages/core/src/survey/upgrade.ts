/** Stored surveys of earlier formats. */
import { SURVEY_FORMAT, type Survey } from './survey.ts'

/** The survey as it is read now; null for one that lacks what is measured today, so that the page is measured again. */
export function upgradeSurvey(stored: unknown): Survey | null {
  return (stored as { format?: unknown } | null)?.format === SURVEY_FORMAT ? (stored as Survey) : null
}
