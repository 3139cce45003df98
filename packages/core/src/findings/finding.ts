/** What a finding is, and what a rule that finds it has to say. */
import type { ElementAt, Place } from '../page/index.ts'
import type { Command } from '../site/index.ts'
import type { PageFacts, SiteFacts } from './facts.ts'

/** In the order of what they cost a visitor. */
export type Severity = 'error' | 'warning' | 'note'

/** The step of the work that a finding belongs to. */
export type Task = 'sections' | 'menus' | 'travel' | 'highlight' | 'walk' | 'handover'

/** What a finding is about, as far as it is about one of these; without any it is about the page. */
export interface Where {
  /** An element of the page: a section's, a link's or another. */
  at?: ElementAt
  /** Keys. */
  section?: string
  item?: { menu: string; item: string }
  screen?: string
  /** A scroll position, in px. */
  scroll?: number
}

/** The command that ends a finding, and what its button says. */
export interface Fix {
  label: string
  command: Command
}

/** A finding as its rule gives it. */
export interface Draft extends Place {
  message: string
  where: Where
  fix: Fix | null
  /** Where it is not the rule's own. */
  severity?: Severity
}

export interface Rule {
  severity: Severity
  task: Task
  /** What it finds in a page as it was brought in; without fixes, since there is no site yet that a command could change. */
  inPage?: (page: PageFacts) => Draft[]
  /** What is left of one of those while a site is worked on, with its fix; null where the work has settled it. Without this it stays. */
  whileOpen?: (draft: Draft, site: SiteFacts) => Draft | null
  /** It is so whether or not there are sections. */
  always?: true
  /** What only shows in a site. */
  inSite?: (site: SiteFacts) => Draft[]
}
