/** What a form of a menu that is made has to say. */
import type { ElementAt } from '../../page/index.ts'
import type { Shape, Shapes } from '../../shape/index.ts'

export interface Link {
  href: string
  label: string
  isNewTab: boolean
  /** Said under the pointer: what the designer says, or the whole of what the label says in short. */
  title?: string
  lang?: string
}

export interface Look {
  /** The page's text colour, and what the menu is painted on. */
  color: string
  backing: string
  /** The page scrolls in an element. */
  isInner: boolean
}

/** Behind an element, or in it as the first. */
export type PiecePlace = 'head' | 'body-start' | { after: ElementAt } | { into: ElementAt }

/** What of the page a menu is placed by. */
export interface Surroundings {
  header: ElementAt | null
  /** In which the page scrolls, null for the document. */
  scroller: ElementAt | null
}

export interface MadeForm<F extends { kind: string }> {
  shape: (s: Shapes) => { [K in Exclude<keyof F, 'kind'>]: Shape }
  /** Where in the page its markup stands. */
  place: (form: F, around: Surroundings) => PiecePlace
  /** What stands inside the menu's `nav`. */
  markup: (links: readonly Link[]) => string
  /** Rules of its style. */
  style: (form: F, look: Look) => string[]
  /** How much of the viewport's top it covers, in px, below what the page's own header covers. */
  cover: number
  /** By how much it moves the page's content down, in px. */
  room: (form: F) => number
  /** True where it begins below the page's own header. */
  isBelowHeader: (form: F) => boolean
}
