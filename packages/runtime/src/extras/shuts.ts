/** Stands alone: a menu of the page's own that stays open behind a press in it is shut by what the page has for that. */
import { isInReach, SHUT_BY, SHUTS } from '@waybell/core/contract'
import { all } from '../elements.ts'
import { isHere, pressedLink } from '../page.ts'

const here = document as Document & { wbShuts?: true }

/** One that is a link to a bare “#” leads nowhere for as long. */
function pressOn(by: HTMLElement): void {
  const href = by.getAttribute('href')
  by.removeAttribute('href')
  by.click()
  if (href !== null) by.setAttribute('href', href)
}

/** Before the browser follows the link, but behind what the page's own scripts do on it. */
function onPress(event: MouseEvent): void {
  const link = pressedLink(event)
  const number = link?.closest(`[${SHUT_BY}]`)?.getAttribute(SHUT_BY)
  if (!link || !number || !isHere(link)) return
  // What shuts it may be out of view by now: a page that is pushed aside takes a header along.
  const shut = () => {
    // On other screens the menu doesn't open, and its links are out of reach.
    for (const by of all(`[${SHUTS}~="${number}"]`)) if (isInReach<Element>(link, document) && by.getClientRects().length) pressOn(by)
  }
  link.addEventListener('click', shut, { once: true })
}

if (!here.wbShuts) {
  here.wbShuts = true
  addEventListener('click', onPress, true)
}
