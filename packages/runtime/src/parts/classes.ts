/** For menus with a class of the page's own for the current item: the script moves it. */
import { entryOf, markClassOf, MENU } from '@waybell/core/contract'
import { linksIn } from '../elements.ts'

/**
 * Leaves other menus alone. Items that lead elsewhere keep the class until one of ours is current.
 * @param shown the marked link
 * @param before the one marked before, null if unknown
 * @param items all of ours
 */
export function markByClass(
  menu: HTMLElement,
  shown: HTMLElement | undefined,
  before: HTMLElement | undefined | null,
  items: () => readonly HTMLElement[],
): void {
  const mark = markClassOf(menu.getAttribute(MENU))
  if (!mark) return
  const { on, name } = mark
  const hostOf = (link: HTMLElement) => (on === 'link' ? link : entryOf<HTMLElement>(link, menu))
  const chosen = shown && hostOf(shown)
  // After marking one of ours, only the previous one changes.
  const links = before ? [before] : chosen ? linksIn(menu) : items()
  for (const link of shown ? [...links, shown] : links) {
    const host = hostOf(link)
    // The entry around the current list is left as the page has it.
    if (host === chosen || !(chosen && host.contains(chosen))) host.classList.toggle(name, host === chosen)
  }
}
