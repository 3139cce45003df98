/** Stands alone: a menu of the page's own that stays open behind a press in it is shut by what the page has for that. */
import { SHUT_BY, SHUTS } from '@waybell/core/contract'
import { all } from '../elements.ts'
import { isHere } from '../page.ts'

const here = document as Document & { wbShuts?: true }

/** It can be pressed: on other screens the menu is not one that opens. */
const isInReach = (el: Element): boolean => {
  const { left, right, top, bottom } = el.getBoundingClientRect()
  const hit = document.elementFromPoint((left + right) / 2, (top + bottom) / 2)
  return !!hit && el.contains(hit)
}

/** One that is a link to a bare “#” leads nowhere for as long. */
function pressOn(by: HTMLElement): void {
  const href = by.getAttribute('href')
  by.removeAttribute('href')
  by.click()
  if (href !== null) by.setAttribute('href', href)
}

/** Before the browser follows the link, but behind what the page's own scripts do on it. */
function onPress(event: MouseEvent): void {
  if (event.button || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return
  const link = (event.target as Element).closest?.<HTMLAnchorElement>('a[href]')
  const number = link?.closest(`[${SHUT_BY}]`)?.getAttribute(SHUT_BY)
  if (!link || !number || !isHere(link)) return
  // What shuts it may be out of view by now: a page that is pushed aside takes a header along.
  const shut = () => {
    for (const by of all(`[${SHUTS}~="${number}"]`)) if (isInReach(link) && by.getClientRects().length) pressOn(by)
  }
  link.addEventListener('click', shut, { once: true })
}

if (!here.wbShuts) {
  here.wbShuts = true
  addEventListener('click', onPress, true)
}
