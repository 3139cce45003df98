/** What a kind of item has to say. */
import type { Shape, Shapes } from '../../shape/index.ts'

/** What is written as addresses, seen from the page that an item stands on. */
export interface Ways {
  /** The ID of a section of that page. */
  idOf: (section: string) => string
  /** The address of another page of the site, of a section of it where one is named. */
  addressOf: (place: Elsewhere) => string
}

/** Another page of the site, by its key, and a section of it; null is the page as a whole. */
export interface Elsewhere {
  page: string
  section: string | null
}

export interface TargetFault<T> {
  /** What is wrong, as the rest of a sentence. */
  why: string
  /** What is probably meant, where that can be told. */
  meant: T | null
}

export interface ItemKind<T extends { kind: string }> {
  shape: (s: Shapes) => { [K in Exclude<keyof T, 'kind'>]: Shape }
  /** What is written as its `href`; null where a link stays as the page has it. */
  href: (target: T, ways: Ways) => string | null
  /** Key of the section of its own page that it leads to; null where it leads to none. */
  section: (target: T) => string | null
  /** Where on the site's other pages it leads; nothing where it leads to none. */
  elsewhere?: (target: T) => Elsewhere
  /** It opens in a tab of its own. */
  isNewTab?: (target: T) => boolean
  /** What keeps it from being written; null for nothing. */
  fault?: (target: T) => TargetFault<T> | null
}
