/** What a kind of item declares. */
import type { Shape, Shapes } from '../../shape/index.ts'

/** How addresses are written, seen from the item's page. */
export interface Ways {
  /** ID of a section of the same page. */
  idOf: (section: string) => string
  /** Address of another page, or of a section of it. */
  addressOf: (place: Elsewhere) => string
}

/** Another page of the site, by key, and a section of it; null for the whole page. */
export interface Elsewhere {
  page: string
  section: string | null
}

export interface TargetFault<T> {
  /** What is wrong, as the rest of a sentence. */
  why: string
  /** The likely intention, if any. */
  meant: T | null
}

export interface ItemKind<T extends { kind: string }> {
  shape: (s: Shapes) => { [K in Exclude<keyof T, 'kind'>]: Shape }
  /** The `href`; null when a link keeps its own. */
  href: (target: T, ways: Ways) => string | null
  /** Key of the section of the same page; null for none. */
  section: (target: T) => string | null
  /** The place on another page; absent for none. */
  elsewhere?: (target: T) => Elsewhere
  /** It opens in a new tab. */
  isNewTab?: (target: T) => boolean
  /** Why it can't be written; null if it can. */
  fault?: (target: T) => TargetFault<T> | null
}
