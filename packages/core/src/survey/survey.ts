/**
 * The survey: measurements of one page on one screen. Lengths in CSS px, positions from the page's top, or from the top of the
 * scroller's content.
 */
import type { MarkClass, MarkStyle } from '../contract/index.ts'
import type { ElementAt } from '../page/index.ts'

export interface SurveyPart {
  at: ElementAt
  /** Border box, with the page at its top. */
  top: number
  bottom: number
  /** From the viewport's left edge, at the top. */
  left: number
  /** Top after scrolling, when the header has its scrolled state. */
  movedTop: number
  /** It or an ancestor is sticky; positions are those when not stuck. */
  sticks: boolean
  /** The page's own computed `scroll-margin-top`. */
  margin: number
  /** False for a target without a box: browsers don't scroll to it. */
  hasBox: boolean
  heading: { top: number; bottom: number } | null
  /** For an empty target before a block: its distance above, as pages do for their header; else 0. */
  shift: number
  /** Near the page's top: where it would start without margins, before any edit; else 0. */
  lead: number
  /**
   * Padding above and below, and how much of its height is padding and border if its heights exclude them (else 0). A part that is higher
   * than its content: the padding below at which it has that height, because less adds nothing.
   */
  head: number
  foot: number
  frame: number
  /** The page's background there, as `rgb()` or `rgba()`. */
  background: string
  /** Colours of a gradient or picture behind its text, the overall one first; empty for neither. */
  grounds: string[]
}

export interface SurveyHeader {
  /** The element, if it's in the source. */
  at: ElementAt | null
  /** Other source elements that stay at the top. */
  others: ElementAt[]
  position: 'static' | 'absolute' | 'sticky' | 'fixed'
  /** Border-box height at rest. */
  height: number
  /** Lower edge while it stays, at rest. */
  rest: number
  /** The same after scrolling. */
  moved: number
  /** True when it hides on the way down and returns on the way up. */
  hides: boolean
  /** For a header that doesn't stay: it would as sticky, or as fixed over the page; nothing clips it and its parent is long enough. */
  canStay: boolean
  /** It covers more than half of the viewport, so no link can arrive below it; of its other figures only the height shows that. */
  isOver: boolean
  /**
   * Padding it can lose, its own or an element's in it, and the margin of its own that compensates, so that nothing moves; no margin if
   * out of the flow. Null for none.
   */
  gives: { at: ElementAt; top: number; bottom: number; margin: { side: 'top' | 'bottom'; own: number } | null } | null
  /** In the flow: how much it shrinks after scrolling in px, which a margin below compensates; null if it takes no space, or it can't. */
  makesUp: number | null
  /** Lower edge, at rest and scrolled, with its closable part closed; null for none. */
  shut: { rest: number; moved: number } | null
  /** Its own transitions as CSS; empty for none. */
  transition: string
  /** True without an opaque background behind its text. */
  transparent: boolean
  /** Text colour, as `rgb()`. */
  color: string
}

/** A menu of the page, with its marks before any edit. */
export interface SurveyMenu {
  at: ElementAt
  /** Some of its links are visible on this screen. */
  isDrawn: boolean
  /** Our mark styles that show on its links. */
  shows: MarkStyle[]
  /** Text colour of an item, and the backgrounds behind it up to the menu's outermost element, undermost first; null for a picture. */
  ink: string
  grounds: string[] | null
  /** It stays in view, so everything scrolls behind it. */
  stays: boolean
  /** It's wider than its box, and scrolls sideways. */
  slides: boolean
  /** The page's own mark; null for none. */
  pageMark: PageMark | null
}

export interface PageMark extends MarkClass {
  /** A page script moves it on scroll; otherwise it's static. An empty name means `aria-current`. */
  followsScroll: boolean
  /** After each of the menu's links was followed, it's on that link and no other. */
  isRight: boolean
  /** Marked items look different. */
  isSeen: boolean
}

/** A menu built by a script: at least two links to this page that aren't in the source. */
export interface BuiltMenu {
  /** The source element that holds it but none of its targets; null for none. */
  at: ElementAt | null
  links: {
    label: string
    /** As the script wrote it. */
    href: string
    /** Its target, if in the source. */
    target: ElementAt | null
    /** The page has the target. */
    arrives: boolean
  }[]
}

/** A link target built by a script. */
export interface BuiltTarget {
  id: string
  top: number
  bottom: number
  /** Top after scrolling, when the header has its scrolled state. */
  movedTop: number
}

/** A picture without a height in markup or style, so content below moves when it loads. */
export interface SurveyPicture {
  at: ElementAt
  /** Its file's own size, in px. */
  width: number
  height: number
  /** Nothing moves when the size is in the markup. */
  fits: boolean
}

/** An element that is laid out late. @see CSS Containment Level 2, `content-visibility: auto` */
export interface SurveyEstimate {
  at: ElementAt
  /** Real and estimated height of its content box, in px. */
  height: number
  said: number
}

/** Incremented when measurements change; older surveys are taken again. */
export const SURVEY_FORMAT = 18

export interface Survey {
  format: typeof SURVEY_FORMAT
  screen: string
  width: number
  height: number
  /** The element in which the page scrolls, if in the source, and its visible height; null for the document. */
  scroller: { at: ElementAt | null; height: number } | null
  pageHeight: number
  /** Height of the content, even if it's less than the visible height. */
  ownHeight: number
  /** The furthest scroll position. */
  maxScroll: number
  parts: SurveyPart[]
  /** The page's own header, without a made bar; null for none. */
  header: SurveyHeader | null
  /** Sections that arrive before the header has its scrolled state, and its reach there. */
  near: { at: ElementAt; cover: number }[]
  /** Reach of a bar at the viewport's bottom after scrolling; 0 for none. */
  bottom: number
  menus: SurveyMenu[]
  pictures: SurveyPicture[]
  estimates: SurveyEstimate[]
  /** The page's own `scroll-padding-top` in px, and whether it scrolls smoothly. */
  padding: number
  smooth: boolean
  /** Built by page scripts: menus, headings by text, and link targets, in page order. */
  built: { menus: BuiltMenu[]; headings: string[]; targets: BuiltTarget[] }
  /** A page script rewrites the address on scroll. */
  rewrites: boolean
  /** A page script undoes every scroll but its own. */
  isHeld: boolean
  /** Elements that look like headings, with levels; only for pages without heading tags. */
  looks: { at: ElementAt; level: number }[]
  /** The page's text and background colour. */
  color: string
  background: string
}
