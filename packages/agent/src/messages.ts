/** Messages between the application and the agent in a live page, over a port that the page can't see. */
import type { MarkClass, NoLink, PageEdit, Screen, Survey, Tried, Visit } from '@waybell/core'

/** What to measure. */
export interface SurveyRequest {
  screen: string
  /** The viewport, in CSS px. */
  width: number
  height: number
  /** `block` is an empty target's block. */
  parts: { at: number; heading: number | null; block: number | null }[]
  /** The bar above the content, from the source. */
  header: number | null
  /** Menus of the page. */
  menus: number[]
  /** Look for headings by look. */
  looks: boolean
}

/** Properties of a screen that a frame's size doesn't give. */
export type Emulated = Pick<Screen, 'touch' | 'text'>

/** What the site knows about the page's own menus. */
export interface KnownMenus {
  /** Menus that the page marks itself, and how. */
  marked: { at: number; mark: MarkClass }[]
  /** Links of items that lead to this page. */
  items: number[]
}

/** An element under the pointer. */
export interface PickedElement {
  at: number
  tag: string
  /** Null without one, or if an earlier element has it. */
  id: string | null
  title: string
  heading: number | null
  /** Why it can't be a link; null if it can. */
  noLink: NoLink | null
  /** For the picked element: its linkable texts, one per line, white space collapsed. */
  words: string
}

/** A menu, by its elements or its number among made menus; 0 for found ones. */
export interface MenuPlace {
  elements: number[]
  made: number
}

export type PickStep = 'parent' | 'child' | 'next' | 'previous'

export type ToAgent =
  /** Measures the page as it came, with all states of its header. */
  | { type: 'probe'; turn: number; request: SurveyRequest; emulated: Emulated }
  /** Measures again with edits, on a probed screen. */
  | { type: 'remeasure'; turn: number; request: SurveyRequest; emulated: Emulated }
  | { type: 'patch'; turn: number; edits: readonly PageEdit[] }
  /** Reports when the pointer is over these elements. */
  | { type: 'watch'; parts: number[]; emulated: Emulated }
  | { type: 'scroll'; y: number }
  | { type: 'follow'; hash: string }
  /** Follows a hash from rest at `from`, and reports the result. */
  | { type: 'visit'; turn: number; hash: string; from: number }
  /** Tries one menu link by its index; with longer waits to be sure. */
  | { type: 'try'; turn: number; place: number; isPatient: boolean; menus: KnownMenus }
  /** Draws a box around an element, and scrolls to it if `show`; null removes it. */
  | { type: 'point'; at: number | null; show: boolean }
  /** Shows a menu's items in a state, by CSS declarations; without a menu, undoes it. */
  | { type: 'show-state'; menu: MenuPlace | null; declarations: string[] }
  /** Starts or stops picking an element. */
  | { type: 'pick'; on: boolean }
  /** Moves the picked element: by a step in the tree, or to an element. */
  | { type: 'pick-step'; to: PickStep | number }

export type FromAgent =
  | { type: 'ready' }
  /** @param survey null if it equals the last one of this screen and size @param isRestless the page differed at every measurement */
  | { type: 'survey'; turn: number; survey: Survey | null; isRestless: boolean }
  | { type: 'patched'; turn: number }
  | { type: 'scrolled'; y: number }
  /** A link to this page was clicked and is followed. */
  | { type: 'followed'; hash: string }
  /** The watched element under the pointer; null for none. */
  | { type: 'hover'; at: number | null }
  /** A link away from the page was clicked; the page stays. */
  | { type: 'outside'; href: string }
  /** The element under the picker, and its ancestors; `done` when taken, `left` when cancelled. */
  | { type: 'picking'; way: PickedElement[]; state: 'over' | 'done' | 'left' }
  | { type: 'visited'; turn: number; visit: Visit }
  /** Null when there is no such link. */
  | { type: 'tried'; turn: number; tried: Tried | null }
  | { type: 'failed'; turn: number; message: string }
