/** Edits that speak of elements. The same ones become byte splices in the file and patches in the live page, so that both show one result. */
import type { PieceRole } from '../contract/index.ts'
import type { PiecePlace } from '../menus/index.ts'
import type { ElementAt } from '../page/index.ts'
import type { MadeLink } from '../site/index.ts'

/** A copy of one of a menu's own entries, with a link and label of its own and without its IDs. */
export interface NewEntry {
  like: ElementAt
  link: ElementAt
  label: string
  /** Of the link; null takes away what it has of the one that it is made like. */
  attributes: Record<string, string | null>
}

export type PageEdit =
  /** Null takes the attribute away. */
  | { kind: 'attribute'; at: ElementAt; name: string; value: string | null }
  /** The one run of visible text in the element. */
  | { kind: 'label'; at: ElementAt; text: string }
  /** The entries of a list: those the source has, in its order, and those it is to have. */
  | { kind: 'entries'; list: ElementAt; from: ElementAt[]; to: (ElementAt | NewEntry)[] }
  /** Elements that change places: where `from[i]` stood, `to[i]` is to stand. Both hold the same ones. */
  | { kind: 'exchange'; from: ElementAt[]; to: ElementAt[] }
  /** A link made of what is none: the element stands in it, or words of its; a button becomes it. */
  | { kind: 'link'; at: ElementAt; of: MadeLink['of']; words: string; attributes: Record<string, string> }
  /** A piece of ours. `text` is what stands between its tags; a menu's is markup. Of several of a role each has its key. */
  | { kind: 'piece'; role: PieceRole; place: PiecePlace; text: string; key?: string; attributes?: Record<string, string> }

/** What of the document an edit is for, by key; the page where none is named. */
export interface For {
  section?: string
  menu?: string
  item?: string
}

/** An edit with its reason. */
export interface PlannedEdit {
  edit: PageEdit
  /** A sentence for a list of changes. */
  why: string
  for: For
  /** What of it bears on where things stand on the page, as text to compare; null where nothing does. */
  layout: string | null
}
