/** For menus with a class of the page's own for the current item: the script moves it. */
import { entryOf, markClassOf, MENU } from '@waybell/core/contract'
import { linksIn } from '../elements.ts'

/**
 * Leaves menus without such a class alone. Links that lead elsewhere keep it until one of ours is current.
 * @param items our links in the menu
 */
export function markByClass(menu: HTMLElement, link: HTMLElement | undefined, items: readonly HTMLElement[]): void {
  const mark = markClassOf(menu.getAttribute(MENU))
  if (!mark) return
  const hostOf = (el: HTMLElement) => (mark.on === 'link' ? el : entryOf(el, menu))
  const host = link && hostOf(link)
  for (const other of link ? linksIn(menu) : items) {
    // An entry around the list with the current one stays as the page has it.
    if (!host || !hostOf(other).contains(host)) hostOf(other).classList.remove(mark.name)
  }
  host?.classList.add(mark.name)
}
