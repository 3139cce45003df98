/** The survey: what was measured of one page on one screen. All lengths are CSS px, positions from the page's top: where it scrolls in an element, from the top of what is in that. */
import type { MarkClass, MarkStyle } from '../contract/index.ts'
import type { ElementAt } from '../page/index.ts'

export interface SurveyPart {
  at: ElementAt
  /** Border box with the page at rest at its top. */
  top: number
  bottom: number
  /** From the left edge of the viewport, at rest. */
  left: number
  /** Top when the page has moved and its header has taken the state that goes with it. */
  movedTop: number
  /** It, or what it stands in, sticks: its place is that where it does not. */
  sticks: boolean
  /** Computed `scroll-margin-top` of the page itself. */
  margin: number
  /** False for a target without a box: the browser does not scroll to it. */
  hasBox: boolean
  heading: { top: number; bottom: number } | null
  /** Of an empty target before a block: how far above that it stands, as pages shift theirs by their header; 0 for all else. */
  shift: number
  /** Of one near the page's top: where it would begin without margins, its own and those that show through it, as before any edit; 0 for all else. */
  lead: number
  /** Its padding at the top and at the bottom, and what of its height is padding and border where its style's heights are without them, else 0. */
  head: number
  foot: number
  frame: number
  /** The page's own background there, as `rgb()` or `rgba()`. */
  background: string
  /** Colours of a gradient or a picture that it has behind its words, the first of them on the whole; none where it has neither. */
  grounds: string[]
}

export interface SurveyHeader {
  /** The page's element, where it is one that the source has. */
  at: ElementAt | null
  /** What else of the source stays at the viewport's top. */
  others: ElementAt[]
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
  /** One that stays over more than half of what is seen, so that no link can arrive below it; of its other figures only the height says so. */
  isOver: boolean
  /**
   * What it could give up of its height: the padding of an element in it, or its own, and the margin of its own that then makes up for that, so that
   * nothing on the page moves; null without one where it is out of the flow. Null where nothing can be given.
   */
  gives: { at: ElementAt; top: number; bottom: number; margin: { side: 'top' | 'bottom'; own: number } | null } | null
  /** Of one in the flow: so much smaller it is once the page has moved, in px, and a margin below it makes up for that; null where it takes nothing from the page, or none does. */
  makesUp: number | null
  /** How far it reaches, at rest and moved, while what a visitor can close in it is closed; null where nothing can be. */
  shut: { rest: number; moved: number } | null
  /** What of its own style does not change at once, as a style says it; empty where all does. */
  transition: string
  /** True where nothing opaque is painted behind its text. */
  transparent: boolean
  /** Text colour, as `rgb()`. */
  color: string
}

/** A menu of the page's own, as it marks its items before anything is written. */
export interface SurveyMenu {
  at: ElementAt
  /** Some of its links are drawn on this screen. */
  isDrawn: boolean
  /** Marks that show on its links: the page's styles let them. */
  shows: MarkStyle[]
  /** What an item's words are written in, and what is painted behind them within the menu and what holds it, the undermost first; null where that is a picture. */
  ink: string
  grounds: string[] | null
  /** It stays in view while the page scrolls, so that everything comes by behind it. */
  stays: boolean
  /** How it marks an item already; null where it marks none. */
  pageMark: PageMark | null
}

export interface PageMark extends MarkClass {
  /** A script of the page moves it while the page scrolls; else it stands where it stands. An empty name is `aria-current`. */
  followsScroll: boolean
  /** It moves, and after each of the menu's links has been followed it is on that link, and on no other. */
  isRight: boolean
  /** What it is on looks unlike what it is not on. */
  isSeen: boolean
}

/** A menu that a script of the page built: two or more links to places of this page, which the source does not have. */
export interface BuiltMenu {
  /** The element of the source that holds it and nothing that it leads to; null without one. */
  at: ElementAt | null
  links: {
    label: string
    /** As the script wrote it. */
    href: string
    /** What it leads to, where the source has that. */
    target: ElementAt | null
    /** The page has what it leads to. */
    arrives: boolean
  }[]
}

/** What a script of the page built and a link leads to. */
export interface BuiltTarget {
  id: string
  top: number
  bottom: number
  /** Top when the page has moved and its header has taken the state that goes with it. */
  movedTop: number
}

/** A picture of which neither markup nor style says how high it is, so that what stands below moves when it comes in. */
export interface SurveyPicture {
  at: ElementAt
  /** Its own, as its file says it, in px. */
  width: number
  height: number
  /** With that said in the markup nothing on the page moves. */
  fits: boolean
}

/** An element that the browser lays out only when it is near. @see CSS Containment Level 2, `content-visibility: auto` */
export interface SurveyEstimate {
  at: ElementAt
  /** Of its content box: what it is, and what the page says of it until it is laid out, in px. */
  height: number
  said: number
}

/** Counts up when what is measured, or how, changes: what an earlier agent measured is measured again. */
export const SURVEY_FORMAT = 16

export interface Survey {
  format: typeof SURVEY_FORMAT
  screen: string
  width: number
  height: number
  /** The element in which the page scrolls, where the source has it, and how high what is seen in it is; null where the document scrolls. */
  scroller: { at: ElementAt | null; height: number } | null
  pageHeight: number
  /** How high what is on the page is, also where that does not fill what is seen of it. */
  ownHeight: number
  /** Furthest scroll position, read there. */
  maxScroll: number
  parts: SurveyPart[]
  /** The page's own header; null without one. A menu's bar made by Way Bell is not in it. */
  header: SurveyHeader | null
  /** Sections that arrive so near the top that the header is still in another state than `moved`: how far it reaches there. */
  near: { at: ElementAt; cover: number }[]
  /** How far up what stays at the bottom of what is seen reaches, across it, once the page has moved; 0 without. */
  bottom: number
  menus: SurveyMenu[]
  pictures: SurveyPicture[]
  estimates: SurveyEstimate[]
  /** The `scroll-padding-top` in px that the page has of its own where it scrolls, and whether it scrolls smoothly by itself. */
  padding: number
  smooth: boolean
  /** What the page's own scripts built: menus, headings by their words, and what links lead to, in page order. */
  built: { menus: BuiltMenu[]; headings: string[]; targets: BuiltTarget[] }
  /** A script of the page writes the address anew while the page is scrolled. */
  rewrites: boolean
  /** A script of the page puts it back to its top wherever anything else moves it. */
  isHeld: boolean
  /** What looks like a heading and does not say so, with the level that it seems to have; asked for where a page has none that say so. */
  looks: { at: ElementAt; level: number }[]
  /** The page's text colour and background. */
  color: string
  background: string
}
