/** Computed `overflow-y` of what a visitor can scroll. */
export const SCROLLS = /auto|scroll/
/** Of the viewport, each way, what the page scrolls in takes at least this much. */
export const SPREADS = 0.5

/** Boxes that a hash does not scroll to although they are drawn: those that the viewport itself holds. */
interface Offset {
  readonly offsetParent: unknown
}

/**
 * True for a fixed element and what is in it, unless something transformed around it holds it instead. What stands in the head, as our
 * anchors do, is held by the page. @see CSSOM View, "offsetParent"
 * @param holder the body, or the element in which the page scrolls: what is held outside of that holds that too
 */
export function isFixed<T extends Offset>(el: T, holder: T & { contains: (other: T) => boolean }): boolean {
  let outermost = el
  while (outermost !== holder && outermost.offsetParent) outermost = outermost.offsetParent as T
  return outermost !== holder && holder.contains(outermost)
}

interface Box {
  readonly clientHeight: number
  readonly scrollHeight: number
}

/**
 * True for a bar that stays over most of the page: a sticky one only as long as what it stands in lasts, and a section's own heading is no header
 * of the page. @param scroller what the page scrolls in, which holds all of it
 */
export const lasts = (position: string, bar: Box, parent: Box, scroller: Box): boolean =>
  position === 'fixed' || (parent === scroller ? scroller.scrollHeight : parent.clientHeight) - bar.clientHeight > scroller.scrollHeight / 2

interface Pressable<T> {
  getBoundingClientRect: () => { left: number; right: number; top: number; bottom: number }
  contains: (other: T) => boolean
}

/** True when a press on the middle of an element reaches it: nothing covers it, and it's in the viewport. */
export function isInReach<T extends Pressable<T>>(el: T, page: { elementFromPoint: (x: number, y: number) => T | null }): boolean {
  const { left, right, top, bottom } = el.getBoundingClientRect()
  const hit = page.elementFromPoint((left + right) / 2, (top + bottom) / 2)
  return !!hit && el.contains(hit)
}

interface Bar {
  /** From the viewport's left edge. */
  left: number
  width: number
  height: number
}

/** What is narrower is a mark or a button, in px. A bar over the column of text in the middle covers the page, however wide the screen is. */
const LEAST_BAR = 240

/**
 * True for what lies over the viewport's top, or its bottom, and leaves the page to be read beside it; a rail and a panel do not. The
 * script says so of the same bars as what measures them. Lengths in CSS px.
 * @param inset how far from that edge it stays, as its style says, negative where a part of it goes out of view; NaN where it says nothing
 */
export const coversEdge = (inset: number, { left, width, height }: Bar, viewport: { width: number; height: number }): boolean =>
  width > LEAST_BAR &&
  Math.abs(2 * left + width - viewport.width) < width &&
  height + Math.min(inset, 0) <= viewport.height / 2 &&
  inset + height > 0 &&
  inset <= viewport.height / 4
