/** Separate script: closes a found menu that stays open after a press, by the page's own button. */
import { isInReach, SHUT_BY, SHUTS } from '@waybell/core/contract'
import { all } from '../elements.ts'
import { isHere, pressedLink } from '../page.ts'

const here = document as Document & { wbShuts?: true }

/** A bare “#” goes nowhere meanwhile. */
function pressOn(by: HTMLElement): void {
  const href = by.getAttribute('href')
  by.removeAttribute('href')
  by.click()
  if (href !== null) by.setAttribute('href', href)
}

/** Before the browser follows the link, but after page scripts. */
function onPress(event: MouseEvent): void {
  const link = pressedLink(event)
  const number = link?.closest(`[${SHUT_BY}]`)?.getAttribute(SHUT_BY)
  if (!link || !number || !isHere(link)) return
  // The button may be out of view by now: a page that is pushed aside takes its header along.
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
