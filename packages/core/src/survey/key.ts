/** What a survey is a survey of: what was measured under the same key need not be measured again. */
import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'
import { SURVEY_FORMAT } from './survey.ts'

/** Size of unscaled text in a browser that nobody changed, in px. */
const TEXT_SIZE = 16

export interface Conditions {
  /** SHA-256 of the page's bytes, and a name for all files that it may load, as they are. */
  source: string
  assets: string
  /** The viewport, in CSS px, and its text in percent of the usual; absent for 100. */
  screen: { width: number; height: number; touch: boolean; text?: number }
  /** The page's own scripts run. */
  scripts: boolean
  /** What of the work bears on where things stand. */
  layout: string
}

export function surveyKey({ source, assets, screen, scripts, layout }: Conditions): string {
  const conditions = [
    SURVEY_FORMAT,
    source,
    assets,
    screen.width,
    screen.height,
    screen.touch,
    (TEXT_SIZE * (screen.text ?? 100)) / 100,
    scripts,
    layout,
  ]
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify(conditions))))
}
