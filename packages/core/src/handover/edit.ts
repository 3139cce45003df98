/** Edits of elements. They become byte splices in the file and patches in the live page, so both give the same page. */
import type { PieceRole } from '../contract/index.ts'
import type { PiecePlace } from '../menus/index.ts'
import type { ElementAt } from '../page/index.ts'
import type { MadeLink } from '../site/index.ts'

/** A copy of a menu entry with its own link and label, without IDs. */
export interface NewEntry {
  like: ElementAt
  link: ElementAt
  label: string
  /** The link's attributes; null removes one that the copied link has. */
  attributes: Record<string, string | null>
}

export type PageEdit =
  /** Null removes the attribute. */
  | { kind: 'attribute'; at: ElementAt; name: string; value: string | null }
  /** The element's first visible text. */
  | { kind: 'label'; at: ElementAt; text: string }
  /** A list's entries: as in the source, and in the wanted order. */
  | { kind: 'entries'; list: ElementAt; from: ElementAt[]; to: (ElementAt | NewEntry)[] }
  /** Swapped elements: `to[i]` moves to the place of `from[i]`. Both have the same elements. */
  | { kind: 'exchange'; from: ElementAt[]; to: ElementAt[] }
  /** A made link: around an element or its words; a button becomes one. */
  | { kind: 'link'; at: ElementAt; of: MadeLink['of']; words: string; attributes: Record<string, string> }
  /** One of our pieces. `text` is its content (markup for a menu); pieces of the same role differ by key. */
  | { kind: 'piece'; role: PieceRole; place: PiecePlace; text: string; key?: string; attributes?: Record<string, string> }

/** What an edit is for, by key; the page without any. */
export interface For {
  section?: string
  menu?: string
  item?: string
}

/** An edit and its reason. */
export interface PlannedEdit {
  edit: PageEdit
  /** A sentence for the list of changes. */
  why: string
  for: For
  /** The part that affects layout, as text to compare; null for none. */
  layout: string | null
}
