/** What a handover is made from. */
import { isOwnTravel } from '../arrival/index.ts'
import type { ElementAt, PageReading } from '../page/index.ts'
import type { Screen, SitePage } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'
import { anchorsOf, type Anchor } from './anchors.ts'

/** What of the script a page carries only where it has use for it, in the order in which a built script names them. */
export const SCRIPT_PARTS = ['anchors', 'classes', 'header', 'lists', 'scripts', 'shrinks'] as const
export type ScriptPart = (typeof SCRIPT_PARTS)[number]

export interface HandoverInput {
  page: SitePage
  /** All pages of the site. */
  pages: readonly SitePage[]
  reading: PageReading
  screens: readonly Screen[]
  /** IDs that the page's own styles name. */
  named: readonly string[]
  /** By screen key; a screen that was not measured is estimated. */
  surveys: Readonly<Record<string, Survey>>
  /** The built script with these parts and no others. */
  runtime: (parts: readonly ScriptPart[]) => string
}

/** The same with what several of those that write ask of it. */
export interface WritingInput extends HandoverInput {
  anchors: readonly Anchor[]
  /** By key of the section. */
  idOf: (section: string) => string
  /** The ID that each element has in the source, or the name by which links find it. */
  ownId: ReadonlyMap<ElementAt, string>
}

export function writingInput(input: HandoverInput): WritingInput {
  const { page, reading } = input
  const ids = new Map(page.sections.map((s) => [s.key, s.id]))
  return { ...input, anchors: anchorsOf(input), idOf: (section) => ids.get(section)!, ownId: ownIdsOf(reading) }
}

/** Of a page that marks its items and keeps its offsets by itself there is nothing left for a script to do. */
export const needsScript = ({ page, anchors }: WritingInput): boolean => !page.highlight.own || !isOwnTravel(page) || anchors.length > 0

// A reading never changes, and on a large page this is most of the work.
const known = new WeakMap<PageReading, ReadonlyMap<ElementAt, string>>()

function ownIdsOf(reading: PageReading): ReadonlyMap<ElementAt, string> {
  const there = known.get(reading)
  if (there) return there
  const named = reading.candidates.flatMap((c) => (c.id === null ? [] : [[c.at, c.id] as const]))
  const own = new Map([...reading.ids.map((i) => [i.at, i.id] as const), ...named])
  known.set(reading, own)
  return own
}

/** The widest viewport that takes its figures from `screen`: half way to the next wider one. */
export const boundary = (screen: Screen, wider: Screen | undefined): number => (wider ? Math.round((screen.width + wider.width) / 2) : 1e6)
