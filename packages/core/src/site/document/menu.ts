/** Menus and their items. */
import type { Mark, Motion } from '../../contract/index.ts'
import type { MadeMenuForm } from '../../menus/forms/index.ts'
import type { ItemState, LOOK_FIELDS, Small, STATE_FIELDS } from '../../menus/forms/form.ts'
import type { ItemTarget } from '../../menus/items/index.ts'
import type { ElementAt } from '../../page/index.ts'

export interface Item {
  key: string
  label: string
  target: ItemTarget
  /** The page's links for it, one in each element of its menu; empty for an added item. */
  links: ElementAt[]
  /** Tooltip, and the label's language as a BCP 47 tag; empty for none, absent to keep the page's. */
  tooltip?: string
  lang?: string
  /** In a made menu, how deep it is nested; absent at the top level. */
  depth?: number
  /** Keys of screens that it isn't on; absent for none. */
  off?: string[]
  /** Motion of its link, if it differs from the menu's. */
  motion?: Motion
  /** Its target was found by label or address, not by hash, and isn't confirmed yet. */
  assumed?: true
}

export interface Menu {
  key: string
  name: string
  form: MenuForm
  /** Where a made menu is visible; absent for everywhere. */
  shown?: Shown
  look?: MenuLook
  /** Motion of its links, if it differs from the page's. */
  motion?: Motion
  /** The menu whose items a made menu copies; it may be on another page. */
  syncedWith?: SyncSource
  /** False for a made menu that gets no item when a section is added. */
  grows?: false
  items: Item[]
}

export interface SyncSource {
  page: string
  menu: string
  /** Labels that differ from the source's, by the key of the source's item. */
  labels: { item: string; label: string }[]
}

export interface Shown {
  /** Keys of the first and last section it is visible at; absent for the page's start and end. */
  from?: string
  until?: string
  /** Scroll position from which it is visible, in px; absent for the start. */
  after?: number
  /** Keys of screens that it isn't on. */
  off?: string[]
  /** What it does in viewports up to a width in px; absent for its form's default. */
  small?: { upTo: number; as: Small }
  /** Items of sections the visitor hasn't reached are disabled; reached ones are remembered for the visit or in the browser. */
  holds?: Holds
}

/** Differences from the form's look. Colours as `#rrggbb`, opacities in %, lengths in px. */
export type MenuLook = LookOf<typeof LOOK_FIELDS> & { states?: { [S in ItemState]?: StateLook } }
export type StateLook = LookOf<typeof STATE_FIELDS>
type LookOf<F> = { [K in keyof F]?: F[K] extends { options: readonly (infer O)[] } ? O : F[K] extends { least: number } ? number : string }

export const HOLDS = ['visit', 'browser'] as const
export type Holds = (typeof HOLDS)[number]

/** One of the page's own menus. It may have several elements, for example one for wide and one for narrow viewports. */
export interface FoundForm {
  kind: 'found'
  elements: ElementAt[]
  /** How its current item is marked; absent for a line. */
  mark?: Mark
  /** What to press to close it after a link was followed, if it stays open by itself. */
  shutBy?: ElementAt
}

export type MenuForm = FoundForm | MadeMenuForm

export const isFound = (menu: Menu): menu is Menu & { form: FoundForm } => menu.form.kind === 'found'
export const isMade = (menu: Menu): menu is MadeMenu => menu.form.kind !== 'found'

/** A menu that Way Bell makes. */
export type MadeMenu = Menu & { form: MadeMenuForm }

/** The made menu that is a bar across the viewport's top; there is at most one. */
export const madeBar = ({ menus }: { menus: readonly Menu[] }): MadeMenu | undefined =>
  menus.filter(isMade).find((m) => m.form.kind === 'bar')

export type { MadeMenuForm }
