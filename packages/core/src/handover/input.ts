/** What a handover is made from. */
import type { PageReading } from '../page/index.ts'
import type { Screen, SitePage } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'

/** What of the script a page carries only where it has use for it, or for `sticky`, which comes with all but `shrinks` and `travel`, in the order in which a built script names them. Those behind `travel` stand alone behind the rest. */
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
  /** What links to other pages of the site begin with; absent where they say the way from the page. */
  address?: string
  reading: PageReading
  screens: readonly Screen[]
  /** IDs that the page's own styles name. */
  named: readonly string[]
  /** By screen key; a screen that was not measured is estimated. */
  surveys: Readonly<Record<string, Survey>>
  /** The built script with these parts and no others. */
  runtime: (parts: readonly ScriptPart[]) => string
}
