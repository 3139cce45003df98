/** For pages that scroll in an element instead of the document, on some screens or on all. */
import { SCROLLER, SCROLLS } from '@waybell/core/contract'
import { all } from '../elements.ts'

/** That element, where it scrolls now. */
export const innerNow = (): HTMLElement | undefined =>
  all(`[${SCROLLER}]`).find((el) => el.scrollHeight > el.clientHeight && SCROLLS.test(getComputedStyle(el).overflowY))
/** What is in it changes its length, and not its size. */
export const contentOf = (inner: HTMLElement | undefined): Element[] => [...(inner?.children ?? [])]
/** From the viewport's top to the page's. */
export const onPage = (y: number, box: Element, inner: HTMLElement | undefined): number => y - viewTopOf(inner) + box.scrollTop
/** Where what is seen of the page begins, in px below the viewport's top. */
export const viewTopOf = (inner: HTMLElement | undefined): number => (inner ? inner.getBoundingClientRect().top + inner.clientTop : 0)
