/** Input of a handover. */
import type { PageReading } from '../page/index.ts'
import type { Screen, SitePage } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'

/**
 * Parts of the script that a page carries only when it needs them, in the order of a built script's name. `sticky` comes with all but
 * `shrinks` and `travel`; those after `travel` are separate scripts.
 */
export const SCRIPT_PARTS = [
  'anchors',
  'classes',
  'header',
  'lists',
  'made',
  'scripts',
  'scroller',
  'shrinks',
  'sticky',
  'travel',
  'moves',
  'presses',
  'shuts',
  'steady',
] as const
export type ScriptPart = (typeof SCRIPT_PARTS)[number]

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
  /** The built script with exactly these parts. */
  runtime: (parts: readonly ScriptPart[]) => string
}
