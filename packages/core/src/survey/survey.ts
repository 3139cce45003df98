/** The survey: what was measured of one page on one screen. All lengths are CSS px, positions from the document's top. */
import type { ElementAt } from '../page/index.ts'

export interface SurveyPart {
  at: ElementAt
  /** Border box with the page at rest at its top. */
  top: number
  bottom: number
  /** Top when the page has moved and its header has taken the state that goes with it. */
  movedTop: number
  /** Computed `scroll-margin-top` of the page itself. */
  margin: number
  /** False for a target without a box: the browser does not scroll to it. */
  hasBox: boolean
  heading: { top: number; bottom: number } | null
  /** The page's own background there, as `rgb()` or `rgba()`. */
  background: string
}

export interface SurveyHeader {
  /** The page's element, where it is one that the source has. */
  at: ElementAt | null
  position: 'static' | 'absolute' | 'sticky' | 'fixed'
  /** Border-box height at rest. */
  height: number
  /** How far it reaches down when it stays, at rest. */
  rest: number
  /** The same when the page has moved down. */
  moved: number
  /** True where it is out of sight after moving down and comes back on the way up. */
  hides: boolean
  /** One that does not stay, and would if it were sticky, or fixed where it lies over the page: nothing clips it and its parent is long enough. */
  canStay: boolean
  /** True where nothing opaque is painted behind its text. */
  transparent: boolean
  /** Text colour, as `rgb()`. */
  color: string
}

/** Counts up when what is measured, or how, changes: what an earlier agent measured is measured again. */
export const SURVEY_FORMAT = 2

export interface Survey {
  format: typeof SURVEY_FORMAT
  screen: string
  width: number
  height: number
  pageHeight: number
  /** Furthest scroll position, read there. */
  maxScroll: number
  parts: SurveyPart[]
  /** The page's own header; null without one. A menu's bar made by Way Bell is not in it. */
  header: SurveyHeader | null
  /** Sections that arrive so near the top that the header is still in another state than `moved`: how far it reaches there. */
  near: { at: ElementAt; cover: number }[]
  /** The page's text colour and background. */
  color: string
  background: string
}
