/** What a form of made menus declares. */
import type { ElementAt } from '../../page/index.ts'
import type { Shape, Shapes } from '../../shape/index.ts'

/** A setting of a form: one of several words (the first is the default), a length in px, or a text. */
export type FormField = { options: readonly string[] } | { least: number; most: number; usual: number } | { usual: string }

/** A setting of a look, which may also be a colour. */
export type Field = FormField | { colour: true }

export const HEX = /^#[0-9a-f]{6}$/

/** Reads a setting; undefined if the word is invalid for it. */
export function readField(field: Field, word: string): string | number | undefined {
  if ('options' in field) return field.options.find((o) => o === word)
  if ('colour' in field) return HEX.test(word) ? word : undefined
  if (!('least' in field)) return word.slice(0, 2000)
  const n = Number(word)
  return word !== '' && Number.isInteger(n) && n >= field.least && n <= field.most ? n : undefined
}

export interface Look {
  /** Selects exactly the menu. */
  nav: string
  /** The page's text colour, and the menu's background. */
  color: string
  backing: string
  /** The page scrolls in an element. */
  isInner: boolean
  /** It appears after scrolling, and takes no space. */
  isLate: boolean
}

/** After or before an element, or in it as first or last. */
export type PiecePlace =
  'head' | 'body-start' | 'body-end' | { after: ElementAt } | { before: ElementAt } | { into: ElementAt; last?: true }

/** What determines a menu's place. */
export interface Surroundings {
  header: ElementAt | null
  /** The element in which the page scrolls; null for the document. */
  scroller: ElementAt | null
  firstSection: ElementAt | null
}

/** What a menu does in narrow viewports. */
export const SMALL = ['same', 'scrolls', 'folds', 'away'] as const
export type Small = (typeof SMALL)[number]

export interface MadeForm<F extends { kind: string }> {
  fields: { [K in Exclude<keyof F, 'kind'>]: FormField }
  /** Where its markup goes. */
  place: (form: F, around: Surroundings) => PiecePlace
  /** Max levels of items. */
  levels: number
  /** Choices for small screens; the first is the default. */
  small: readonly Small[]
  /** A button that opens a list on every screen. */
  isFolded?: true
  /** Its lists open on press, one at a time; otherwise they're always open. */
  opens?: true
  /** Rules of its style. */
  style: (form: F, look: Look) => string[]
  /** Padding of the page that makes space for it, in px. */
  pagePadding?: (form: F, look: Look) => { of: string; side: 'top' | 'left' | 'right'; by: number } | null
  /** Not printed. */
  isScreenOnly?: true
  /** CSS rules for a row that scrolls sideways on small screens. */
  sideways?: (form: F, look: Look) => string[]
  /** For a menu across the viewport's top. */
  covers?: {
    /** Covered height in px, below the page's own header. */
    height: (form: F) => number
    /** How far it moves the page's content down, in px. */
    contentShift: (form: F) => number
    /** True below the page's own header. */
    isBelowHeader: (form: F) => boolean
  }
}

const COLOUR: Field = { colour: true }
const PERCENT: Field = { least: 0, most: 100, usual: 100 }

/** For the whole menu: text colour, background and its opacity in %, sizes in px. */
export const LOOK_FIELDS = {
  ink: COLOUR,
  ground: COLOUR,
  opacity: PERCENT,
  size: { least: 10, most: 40, usual: 16 },
  letters: { options: ['as-typed', 'upper'] },
  spacing: { least: 0, most: 60, usual: 12 },
  corner: { least: 0, most: 40, usual: 0 },
  shadow: { options: ['none', 'soft'] },
} as const satisfies Record<string, Field>

/** For items in a state. */
export const STATE_FIELDS = {
  ink: COLOUR,
  weight: { options: ['normal', 'bold'] },
  line: { options: ['none', 'under', 'over'] },
  mark: { options: ['none', 'bar', 'dot', 'dome'] },
  backing: COLOUR,
  opacity: PERCENT,
  corner: { least: 0, most: 40, usual: 0 },
} as const satisfies Record<string, Field>

/** Later states override earlier ones. */
export const STATES = ['rest', 'visited', 'within', 'current', 'hover', 'focus', 'pressed', 'held'] as const
export type ItemState = (typeof STATES)[number]
/** States that can be styled in found menus. */
export const FOUND_STATES = ['visited', 'within', 'current', 'hover', 'focus', 'pressed'] as const satisfies readonly ItemState[]

/** @param isWhole every field is required */
export const shapeOfFields = (s: Shapes, fields: Readonly<Record<string, Field>>, isWhole: boolean): Record<string, Shape> =>
  Object.fromEntries(
    Object.entries(fields).map(([name, field]) => {
      const shape =
        'options' in field
          ? s.oneOf(...field.options)
          : 'colour' in field
            ? s.hex
            : 'least' in field
              ? s.count(field.least, field.most)
              : s.text
      return [name, isWhole ? shape : s.optional(shape)]
    }),
  )
