/** For pages that scroll in an element instead of the document, on some screens or on all. */
import { SCROLLER, SCROLLS } from '@waybell/core/contract'

/** That element, where it scrolls now. */
export let inner: HTMLElement | null = null

/** Which it is changes with the layout. */
export function findInner(): void {
  inner =
    [...document.querySelectorAll<HTMLElement>(`[${SCROLLER}]`)].find(
      (el) => el.scrollHeight > el.clientHeight && SCROLLS.test(getComputedStyle(el).overflowY),
    ) ?? null
}
