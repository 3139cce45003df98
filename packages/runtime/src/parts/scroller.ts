/** For pages that scroll in an element, on some screens or all. */
import { SCROLLER, SCROLLS } from '@waybell/core/contract'
import { all } from '../elements.ts'

/** The element, if it scrolls now. */
export const innerNow = (): HTMLElement | undefined =>
  all(`[${SCROLLER}]`).find((el) => el.scrollHeight > el.clientHeight && SCROLLS.test(getComputedStyle(el).overflowY))
/** Its content changes height, not the element. */
export const contentOf = (inner: HTMLElement | undefined): Element[] => [...(inner?.children ?? [])]
/** From the viewport's top to the page's. */
export const onPage = (y: number, box: Element, inner: HTMLElement | undefined): number => y - viewTopOf(inner) + box.scrollTop
/** Top of the visible page, in px below the viewport's top. */
export const viewTopOf = (inner: HTMLElement | undefined): number => (inner ? inner.getBoundingClientRect().top + inner.clientTop : 0)
