/** What the application and the agent in a live page say to each other, over a port that the page cannot see. */
import type { MarkClass, NoLink, PageEdit, Screen, Survey, Tried, Visit } from '@waybell/core'

/** What is to be measured. */
export interface SurveyRequest {
  screen: string
  /** The viewport, in CSS px. */
  width: number
  height: number
  /** `block` is what an empty target stands for. */
  parts: { at: number; heading: number | null; block: number | null }[]
  /** The bar above the content, as the source has it. */
  header: number | null
  /** Menus that the page has. */
  menus: number[]
  /** Whether headings are looked for by their look. */
  looks: boolean
}

/** What of a screen a frame has not by its size. */
export type Emulated = Pick<Screen, 'touch' | 'text'>

/** What the site says of the page's own menus. */
export interface KnownMenus {
  /** Menus that the page marks by itself, and how. */
  marked: { at: number; mark: MarkClass }[]
  /** Links that are items which lead to a place of this page. */
  items: number[]
}

/** An element that was pointed at. */
export interface PickedElement {
  at: number
  tag: string
  /** Null without one, or where another element has it first. */
  id: string | null
  title: string
  heading: number | null
  /** Why it cannot be made a link; null where it can. */
  noLink: NoLink | null
  /** Of the one that is picked, its runs of words that may be linked, one to a line, white space folded. */
  words: string
}

/** A menu by the elements that it stands in, or by its number among those that are made; 0 for one of the page's own. */
export interface MenuPlace {
  elements: number[]
  made: number
}

export type PickStep = 'parent' | 'child' | 'next' | 'previous'

export type ToAgent =
  /** Measures the page as it came, on a screen: its header in every state too. */
  | { type: 'probe'; turn: number; request: SurveyRequest; emulated: Emulated }
  /** Measures it again as it is, on a screen that was probed. */
  | { type: 'remeasure'; turn: number; request: SurveyRequest; emulated: Emulated }
  | { type: 'patch'; turn: number; edits: readonly PageEdit[] }
  /** Elements that are told of when the pointer is over them, by their position. */
  | { type: 'watch'; parts: number[]; emulated: Emulated }
  | { type: 'scroll'; y: number }
  | { type: 'follow'; hash: string }
  /** Follows a hash from rest at `from`, and says what came of it. */
  | { type: 'visit'; turn: number; hash: string; from: number }
  /** Presses one link of the menus, by its place among them, and says what became of it; where it is to be sure, with longer waits. */
  | { type: 'try'; turn: number; place: number; isPatient: boolean; menus: KnownMenus }
  /** Draws a box around an element of the page, and brings it into view where it is to be shown; null takes the box away. */
  | { type: 'point'; at: number | null; show: boolean }
  /** Shows the items of a menu in a look, by declarations of a style; without a menu as they are. */
  | { type: 'show-state'; menu: MenuPlace | null; declarations: string[] }
  /** Begins or ends picking an element by pointing at it. */
  | { type: 'pick'; on: boolean }
  /** Moves what is picked: by a step in the tree, or to an element. */
  | { type: 'pick-step'; to: PickStep | number }

export type FromAgent =
  | { type: 'ready' }
  /**
   * @param survey null where it is the same as the last one of this screen at this size
   * @param isRestless of a page that was another at every look just then
   */
  | { type: 'survey'; turn: number; survey: Survey | null; isRestless: boolean }
  | { type: 'patched'; turn: number }
  | { type: 'scrolled'; y: number }
  /** A link to a place of the page was clicked, and is followed. */
  | { type: 'followed'; hash: string }
  /** The pointer is over one of the parts asked for, or over none. */
  | { type: 'hover'; at: number | null }
  /** A link away from the page was clicked; the page stays. */
  | { type: 'outside'; href: string }
  /** What the picker is over, with the way down to it; `done` when it was taken, `left` when picking was given up. */
  | { type: 'picking'; way: PickedElement[]; state: 'over' | 'done' | 'left' }
  | { type: 'visited'; turn: number; visit: Visit }
  /** Null where there is no such link. */
  | { type: 'tried'; turn: number; tried: Tried | null }
  | { type: 'failed'; turn: number; message: string }
