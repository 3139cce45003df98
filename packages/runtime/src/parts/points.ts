/** For pages with points. */
import { ANCHOR, type Settings } from '@waybell/core/contract'

/** A point stands in the head: Tab is to go on from the element that it stands before. Nothing keeps the focus. */
export function tabFrom(id: string, s: Settings): void {
  const point = s.points.find(([own]) => own === id)
  const el = point && document.querySelector<HTMLElement>(`[${ANCHOR}="${point[1]}"]`)
  if (!el || el.contains(document.activeElement)) return
  const own = el.getAttribute('tabindex')
  if (own === null) el.tabIndex = -1
  el.focus({ preventScroll: true })
  el.blur()
  if (own === null) el.removeAttribute('tabindex')
}
