/** For menus whose current item the page itself marks by a class: the script moves it along. */
import { entryOf, markClassOf, MENU } from '@waybell/core/contract'
import { linksIn } from '../elements.ts'

/**
 * A menu that has no such class is left alone. An item that leads elsewhere keeps the class until one of ours is the current one.
 * @param shown the link that is marked now; @param before the one that was, null where that is not known; @param items all that are ours
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
  // After one of ours was marked, nothing else is.
  const links = before ? [before] : chosen ? linksIn(menu) : items()
  for (const link of shown ? [...links, shown] : links) {
    const host = hostOf(link)
    // The entry around the chosen one's list says what the page has it say.
    if (host === chosen || !(chosen && host.contains(chosen))) host.classList.toggle(name, host === chosen)
  }
}
