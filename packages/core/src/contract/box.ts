/** Computed `overflow-x` or `overflow-y` of elements a visitor can scroll that way. */
export const SCROLLS = /auto|scroll/
/** Min share of the viewport, each way, of the element that the page scrolls in. */
export const SPREADS = 0.5

/** Elements that a hash doesn't scroll to although they have boxes: fixed ones. */
interface Offset {
  readonly offsetParent: unknown
}

/**
 * True for a fixed element and its content, unless a transformed ancestor holds it. Elements in the head, such as our anchors, are held
 * by the page.
 * @see CSSOM View, "offsetParent"
 * @param holder the body, or the element in which the page scrolls
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
 * True for a bar that stays over most of the page. A sticky bar stays only as long as its parent; a section's sticky heading is no
 * header.
 * @param scroller the element in which the page scrolls
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
  /** px from the viewport's left edge. */
  left: number
  width: number
  height: number
}

/** Narrower elements are marks or buttons, in px. A bar over a centred column covers the page however wide the screen is. */
const LEAST_BAR = 240

/**
 * True for a bar over the viewport's top or bottom that leaves the page readable; false for rails and panels. Script and agent share it.
 * Lengths in CSS px.
 * @param inset distance from that edge by its style, negative if partly out of view; NaN if unset
 */
export const coversEdge = (inset: number, { left, width, height }: Bar, viewport: { width: number; height: number }): boolean =>
  width > LEAST_BAR &&
  Math.abs(2 * left + width - viewport.width) < width &&
  height + Math.min(inset, 0) <= viewport.height / 2 &&
  inset + height > 0 &&
  inset <= viewport.height / 4
