/** What a form of a menu that is made has to say. */
import type { ElementAt } from '../../page/index.ts'
import type { Shape, Shapes } from '../../shape/index.ts'

/** What can be chosen of a form: one of several words, the first of which a new one has, a length in px, or a text. */
export type FormField = { options: readonly string[] } | { least: number; most: number; usual: number } | { usual: string }

/** The same of a look, which may also be a colour. */
export type Field = FormField | { colour: true }

export const HEX = /^#[0-9a-f]{6}$/

/** What a word says of a field; undefined where that is nothing that the field may be. */
export function readField(field: Field, word: string): string | number | undefined {
  if ('options' in field) return field.options.find((o) => o === word)
  if ('colour' in field) return HEX.test(word) ? word : undefined
  if (!('least' in field)) return word.slice(0, 2000)
  const n = Number(word)
  return word !== '' && Number.isInteger(n) && n >= field.least && n <= field.most ? n : undefined
}

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
  pagePadding?: (form: F, look: Look) => { of: string; side: 'top' | 'left' | 'right'; by: number } | null
  /** It is not on paper. */
  isScreenOnly?: true
  /** Rules of its style where it scrolls sideways, on small screens. */
  sideways?: (form: F, look: Look) => string[]
  /** Of what lies across the viewport's top. */
  covers?: {
    /** How much of the viewport's top it covers, in px, below what the page's own header covers. */
    height: (form: F) => number
    /** By how much it moves the page's content down, in px. */
    contentShift: (form: F) => number
    /** True where it begins below the page's own header. */
    isBelowHeader: (form: F) => boolean
  }
}

const COLOUR: Field = { colour: true }
const PERCENT: Field = { least: 0, most: 100, usual: 100 }

/** Of the menu: what words are written in and on, in % how opaque that is; sizes in px. */
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

/** Of an item in a state. */
export const STATE_FIELDS = {
  ink: COLOUR,
  weight: { options: ['normal', 'bold'] },
  line: { options: ['none', 'under', 'over'] },
  mark: { options: ['none', 'bar', 'dot', 'dome'] },
  backing: COLOUR,
  opacity: PERCENT,
  corner: { least: 0, most: 40, usual: 0 },
} as const satisfies Record<string, Field>

/** In the order in which one wins over the one before it. */
export const STATES = ['rest', 'visited', 'within', 'current', 'hover', 'focus', 'pressed', 'held'] as const
export type ItemState = (typeof STATES)[number]
/** Those that a menu of the page's own can be given a look for: at rest its items are as the page has them. */
export const FOUND_STATES = ['visited', 'within', 'current', 'hover', 'focus', 'pressed'] as const satisfies readonly ItemState[]

/** @param isWhole every field is said */
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
