/** Identifies what a survey measured: the same key needs no new measurement. */
import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'
import { SURVEY_FORMAT } from './survey.ts'

/** Browsers' default text size, in px. */
const TEXT_SIZE = 16

export interface Conditions {
  /** SHA-256 of the page's bytes, and of all files that it may load. */
  source: string
  assets: string
  /** Viewport in CSS px, and text size in percent; absent for 100. */
  screen: { width: number; height: number; touch: boolean; text?: number }
  /** The page's own scripts run. */
  scripts: boolean
  /** Edits that affect layout. */
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
