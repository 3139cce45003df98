/** Input of a handover. */
import type { PageReading } from '../page/index.ts'
import type { Screen, SitePage } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'

/**
 * Parts of the script that a page carries only when it needs them, in the order of a built script's name. Without `arrivals` it only
 * marks: only then are there `bar`, `shifted`, `slides` and `tops`, and no `made`, `scripts`, `scroller`, `shrinks`, `sticky` and
 * `travel`. `sticky` comes with all but `shrinks` and `travel`; those after `travel` are separate scripts.
 */
export const SCRIPT_PARTS = [
  'arrivals',
  'anchors',
  'bar',
  'classes',
  'header',
  'lists',
  'made',
  'scripts',
  'scroller',
  'shifted',
  'shrinks',
  'slides',
  'sticky',
  'tops',
  'travel',
  'moves',
  'presses',
  'shuts',
  'steady',
] as const
export type ScriptPart = (typeof SCRIPT_PARTS)[number]

/** Scripts for a live page, each with every part: one that only marks, and one that also corrects arrivals. */
export interface LiveScripts {
  plain: string
  arrivals: string
}

export const liveScriptWith =
  ({ plain, arrivals }: LiveScripts) =>
  (parts: readonly ScriptPart[]): string =>
    parts.includes('arrivals') ? arrivals : plain

export interface HandoverInput {
  page: SitePage
  /** All pages of the site. */
  pages: readonly SitePage[]
  /** Start of links to other pages; absent for relative links. */
  address?: string
  reading: PageReading
  screens: readonly Screen[]
  /** IDs used by the page's styles. */
  named: readonly string[]
  /** By screen key; other screens are estimated. */
  surveys: Readonly<Record<string, Survey>>
  /** The built script with exactly these parts; `why` it corrects arrivals, as the end of a sentence. */
  runtime: (parts: readonly ScriptPart[], why: string | null) => string
}
