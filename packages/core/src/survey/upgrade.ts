/** Stored surveys of earlier formats. */
import { SURVEY_FORMAT, type Survey } from './survey.ts'

/** The survey; null for an older format, so that the page is measured again. */
export function upgradeSurvey(stored: unknown): Survey | null {
  return (stored as { format?: unknown } | null)?.format === SURVEY_FORMAT ? (stored as Survey) : null
}
