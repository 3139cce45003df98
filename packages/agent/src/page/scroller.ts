/** What the page scrolls in, and positions in it. */
import { SCROLLS, SPREADS } from '@waybell/core/contract'

const ofDocument = (): Element => document.scrollingElement ?? document.documentElement
/** The result and its viewport size; other screens may differ. */
let found: Element | null = null
let size = ''
const sizeNow = () => `${innerWidth} ${innerHeight}`

/** Looks for it again. */
export const forgetScroller = (): void => void (found = null)

/**
 * The document; if it scrolls little or not at all, the scrolling element that shows most of the page. In quirks mode the document's is
 * the body.
 */
export function scroller(): Element {
  if (!found?.isConnected || size !== sizeNow()) {
    found = look()
    size = sizeNow()
  }
  return found
}

/** A document that scrolls less than this share of an inner element only shows the rest. */
const LITTLE = 0.25

const range = (el: Element): number => el.scrollHeight - el.clientHeight

/** The viewport's overflow comes from the root, or else the body. @see CSS Overflow, "propagation to the viewport" */
function isHeld(): boolean {
  const [root, body] = [document.documentElement, document.body].map((el) => getComputedStyle(el).overflowY)
  return /hidden|clip/.test(root === 'visible' ? body! : root!)
}

function look(): Element {
  const whole = ofDocument()
  const left = isHeld() ? 0 : range(whole)
  const all = document.body.getElementsByTagName('*').length
  // An element that takes half of the viewport each way contains its centre.
  const met = new Set<Element>()
  for (const hit of document.elementsFromPoint(innerWidth / 2, innerHeight / 2))
    for (let e: Element | null = hit; e && e !== whole; e = e.parentElement) met.add(e)
  const those = [...met].filter(
    (el) =>
      range(el) > 1 &&
      range(el) * LITTLE >= left &&
      SCROLLS.test(getComputedStyle(el).overflowY) &&
      el.clientWidth >= innerWidth * SPREADS &&
      el.clientHeight >= innerHeight * SPREADS &&
      el.getElementsByTagName('*').length >= all / 2,
  )
  return those.sort((a, b) => range(b) - range(a))[0] ?? whole
}

/** The scroller if it isn't the document. */
export const innerScroller = (): Element | null => (scroller() === ofDocument() ? null : scroller())

/** The page's container: fixed boxes outside can't be scrolled to. */
export const pageHolder = (): HTMLElement => (innerScroller() as HTMLElement | null) ?? document.body

/** Scroll positions, lengths and visible height, in px. */
export const position = (): number => scroller().scrollTop
export const furthest = (): number => scroller().scrollHeight - scroller().clientHeight
export const pageHeight = (): number => scroller().scrollHeight
export const viewHeight = (): number => (innerScroller() ? scroller().clientHeight : innerHeight)

/** Top of the visible page below the viewport's top, in px. */
export function viewTop(): number {
  const inner = innerScroller()
  return inner ? inner.getBoundingClientRect().top + inner.clientTop : 0
}

/** Converts a viewport position to a page position. */
export const onPage = (y: number): number => y - viewTop() + position()

/** An element's top on the page. */
export const topOf = (el: Element): number => onPage(el.getBoundingClientRect().top)

/** Never by `window.scrollTo`, which does nothing for a while after a press that we took over. */
export const jumpTo = (top: number): void => scroller().scrollTo({ top, behavior: 'instant' })
