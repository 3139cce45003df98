/** What the page scrolls in, and where things are in it. */
import { SCROLLS, SPREADS } from '@waybell/core/contract'

const ofDocument = (): Element => document.scrollingElement ?? document.documentElement
/** What was found, and at which size of the viewport: on another screen it may be another. */
let found: Element | null = null
let size = ''
const sizeNow = () => `${innerWidth} ${innerHeight}`

/** Looks for it anew. */
export const forgetScroller = (): void => void (found = null)

/**
 * The document; where that scrolls little or not at all, the element that shows most of the page and scrolls. In quirks mode the document's is the
 * body.
 */
export function scroller(): Element {
  if (!found?.isConnected || size !== sizeNow()) {
    found = look()
    size = sizeNow()
  }
  return found
}

/** A document that scrolls less than this part of what an element in it does only shows what that left over. */
const LITTLE = 0.25

const range = (el: Element): number => el.scrollHeight - el.clientHeight

/** What the viewport does is said by the root, or by the body where that says nothing. @see CSS Overflow, "propagation to the viewport" */
function isHeld(): boolean {
  const [root, body] = [document.documentElement, document.body].map((el) => getComputedStyle(el).overflowY)
  return /hidden|clip/.test(root === 'visible' ? body! : root!)
}

function look(): Element {
  const whole = ofDocument()
  const left = isHeld() ? 0 : range(whole)
  const all = document.body.getElementsByTagName('*').length
  // One that takes half of the viewport each way lies at its middle.
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

/** The same where it is not the document. */
export const innerScroller = (): Element | null => (scroller() === ofDocument() ? null : scroller())

/** What holds the page: boxes that something within it holds instead are not scrolled to. */
export const pageHolder = (): HTMLElement => (innerScroller() as HTMLElement | null) ?? document.body

/** Scroll positions, lengths, and the height of what is seen, in px. */
export const position = (): number => scroller().scrollTop
export const furthest = (): number => scroller().scrollHeight - scroller().clientHeight
export const pageHeight = (): number => scroller().scrollHeight
export const viewHeight = (): number => (innerScroller() ? scroller().clientHeight : innerHeight)

/** How far below the viewport's top what is seen of the page begins, in px. */
export function viewTop(): number {
  const inner = innerScroller()
  return inner ? inner.getBoundingClientRect().top + inner.clientTop : 0
}

/** From a place in the viewport to the place on the page. */
export const onPage = (y: number): number => y - viewTop() + position()

/** Where an element begins on the page. */
export const topOf = (el: Element): number => onPage(el.getBoundingClientRect().top)

/** By the element, never by `window.scrollTo`: that does nothing for a while after a press that Way Bell has taken over from the page. */
export const jumpTo = (top: number): void => scroller().scrollTo({ top, behavior: 'instant' })
