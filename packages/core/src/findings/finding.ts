/** Findings, and the rules that find them. */
import type { ElementAt, Place } from '../page/index.ts'
import type { Command } from '../site/index.ts'
import type { PageFacts, SiteFacts } from './facts.ts'

/** Ordered by cost to a visitor. */
export type Severity = 'error' | 'warning' | 'note'

/** The task that a finding belongs to. */
export type Task = 'sections' | 'menus' | 'travel' | 'highlight' | 'walk' | 'handover'

/** What a finding is about; the whole page without any of these. */
export interface Where {
  /** An element: a section, a link or another. */
  at?: ElementAt
  /** Keys. */
  section?: string
  item?: { menu: string; item: string }
  screen?: string
  /** A scroll position, in px. */
  scroll?: number
}

/** The command that resolves a finding, and its button's label. */
export interface Fix {
  label: string
  command: Command
}

/** A finding from its rule. */
export interface Draft extends Place {
  message: string
  where: Where
  fix: Fix | null
  /** If it differs from the rule's. */
  severity?: Severity
}

export interface Rule {
  severity: Severity
  task: Task
  /** Finds it in a page as it came; without fixes, because there is no site yet. */
  inPage?: (page: PageFacts) => Draft[]
  /** What remains of one while a site is worked on, with its fix; null if resolved. Without this it stays. */
  whileOpen?: (draft: Draft, site: SiteFacts) => Draft | null
  /** Applies with and without sections. */
  always?: true
  /** Finds what only shows in a site. */
  inSite?: (site: SiteFacts) => Draft[]
}
