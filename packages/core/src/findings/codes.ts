/** What a finding is. */
import type { ElementAt, Place } from '../page/index.ts'
import type { Command } from '../site/index.ts'

export type FindingCode =
  | 'link-broken'
  | 'link-case'
  | 'id-duplicate'
  | 'id-empty'
  | 'id-space'
  | 'id-hash'
  | 'id-selector'
  | 'id-case'
  | 'id-reserved'
  | 'id-shadow'
  | 'id-in-use'
  | 'heading-missing'
  | 'section-empty'
  | 'section-hidden'
  | 'former-clash'
  | 'asset-missing'
export type Severity = 'error' | 'warning' | 'note'

export interface Finding extends Place {
  code: FindingCode
  severity: Severity
  message: string
  /** The element that it is about. */
  at: ElementAt | null
  /** The command that ends it, where one does, and what its button says. */
  fix: { label: string; command: Command } | null
}
