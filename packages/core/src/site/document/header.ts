/** The page's header. */
import type { ElementAt } from '../../page/index.ts'

/** What a header does after scrolling. */
export interface HeaderOnScroll {
  /** Scroll position in px from which it does it. */
  after: number
  /** It waits until the first section has scrolled past instead. */
  over?: true
  /** It has no background before. */
  clear?: true
  /** It gets a shadow. */
  shadow?: true
  /** It shrinks by this many px, as far as its padding allows. */
  small?: number
  /** It hides on the way down and returns on the way up. */
  away?: true
  /** Keys of screens where it does nothing. */
  off?: string[]
}

export interface HeaderChoice {
  at: ElementAt
  /** How a header that scrolls away is kept in view: `sticky` in the flow, `fixed` over the page; null to leave it. */
  keep: 'sticky' | 'fixed' | null
  /** Background that keeps it readable; null to leave it. */
  backing: string | null
  /** Keys of screens where it scrolls away with the page; absent for none. */
  off?: string[]
  onScroll?: HeaderOnScroll
  /** A header that shrinks by itself keeps its space on the page, so nothing below it moves. */
  steady?: true
  /**
   * The first section starts under the header and is at least as high as the screen. For each screen, in px: its own top padding, and
   * how much of its height is padding and border if its heights exclude them (else 0).
   */
  under?: { screen: string; head: number; frame: number }[]
}
