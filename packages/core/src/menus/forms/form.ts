/** What a form of a menu that is made has to say. */
import type { ElementAt } from '../../page/index.ts'
import type { Shape, Shapes } from '../../shape/index.ts'

/** What can be chosen of a form: one of several words, the first of which a new one has, a length in px, or a text. */
export type FormField = { options: readonly string[] } | { least: number; most: number; usual: number } | { usual: string }

export interface Look {
  /** Selects the menu, and nothing else. */
  nav: string
  /** The page's text colour, and what the menu is painted on. */
  color: string
  backing: string
  /** The page scrolls in an element. */
  isInner: boolean
  /** It is not seen from the page's beginning on, and takes no room there. */
  isLate: boolean
}

/** Behind an element, before it, or in it as the first or the last. */
export type PiecePlace =
  'head' | 'body-start' | 'body-end' | { after: ElementAt } | { before: ElementAt } | { into: ElementAt; last?: true }

/** What of the page a menu is placed by. */
export interface Surroundings {
  header: ElementAt | null
  /** In which the page scrolls, null for the document. */
  scroller: ElementAt | null
  firstSection: ElementAt | null
}

/** What a menu does where the viewport is narrow. */
export const SMALL = ['same', 'scrolls', 'folds', 'away'] as const
export type Small = (typeof SMALL)[number]

export interface MadeForm<F extends { kind: string }> {
  fields: { [K in Exclude<keyof F, 'kind'>]: FormField }
  /** Where in the page its markup stands. */
  place: (form: F, around: Surroundings) => PiecePlace
  /** How many levels of items it has. */
  levels: number
  /** What it may do on small screens; the first is what a new one does. */
  small: readonly Small[]
  /** It is a button that opens a list, on every screen. */
  isFolded?: true
  /** Lists in it open when they are pressed, one of them at a time; else they stand open. */
  opens?: true
  /** Rules of its style. */
  style: (form: F, look: Look) => string[]
  /** What of the page makes room for it, where something does: a padding, in px. */
  room?: (form: F, look: Look) => { of: string; side: 'top' | 'left' | 'right'; by: number } | null
  /** It is not on paper. */
  isScreenOnly?: true
  /** Rules of its style where it scrolls sideways, on small screens. */
  sideways?: (form: F, look: Look) => string[]
  /** Of what lies across the viewport's top. */
  covers?: {
    /** How much of the viewport's top it covers, in px, below what the page's own header covers. */
    height: (form: F) => number
    /** By how much it moves the page's content down, in px. */
    room: (form: F) => number
    /** True where it begins below the page's own header. */
    isBelowHeader: (form: F) => boolean
  }
}

export const shapeOfForm = (s: Shapes, fields: Readonly<Record<string, FormField>>): Record<string, Shape> =>
  Object.fromEntries(
    Object.entries(fields).map(([name, field]) => [
      name,
      'options' in field ? s.oneOf(...field.options) : 'least' in field ? s.count(field.least, field.most) : s.text,
    ]),
  )
