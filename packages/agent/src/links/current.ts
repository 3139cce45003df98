/** Which item of a menu is marked as current, and whether a visitor can tell. */
import { AWAY, entryOf, WITHIN, type MarkClass } from '@waybell/core/contract'
import type { Tried } from '@waybell/core'
import { sameDocumentHash } from './follow.ts'
import { isShown, lookOf, MARKING, underSheet } from './marks.ts'

/** How a menu marked the item of a link that was followed. @param mark the page's class; null for `aria-current` */
export function markedAs(menu: Element, link: HTMLAnchorElement, hash: string, mark: MarkClass | null): Tried['mark'] {
  const isLit = currentOf(menu, mark).some((a) => a === link || (sameDocumentHash(a) ?? a.getAttribute('href')) === hash)
  if (!isLit) return 'absent'
  if (!menu.hasAttribute(AWAY) && !looksApart(menu, mark)) return 'unseen'
  return currentLike(menu, mark) ? 'shared' : 'right'
}

/** The links of a menu that are marked. */
const currentOf = (menu: Element, mark: MarkClass | null): HTMLAnchorElement[] =>
  [...menu.querySelectorAll<HTMLAnchorElement>('a[href]')].filter((a) => isMarked(a, menu, mark))

function isMarked(link: Element, menu: Element, mark: MarkClass | null): boolean {
  if (mark) return (mark.on === 'link' ? link : entryOf(link, menu)).classList.contains(mark.name)
  const current = link.getAttribute('aria-current')
  return current !== null && current !== 'false'
}

/** True when another item also looks current, by a class name. */
function currentLike(menu: Element, mark: MarkClass | null): boolean {
  const current = currentOf(menu, mark)
  if (!current.length) return false
  const hosts = new Set(current.flatMap((a) => [a, entryOf(a, menu)]))
  const others = [...menu.querySelectorAll('a[href]')].filter((a) => !current.includes(a as HTMLAnchorElement) && isShown(a))
  return others.some((a) =>
    [a, entryOf(a, menu)].some((el) => !hosts.has(el) && [...el.classList].some((name) => MARKING.test(name)) && marksIt(el)),
  )
}

/** True when an element's class changes how it looks. */
const marksIt = (el: Element): boolean =>
  underSheet('', () => {
    const had = el.getAttribute('class')!
    const look = () => [el, ...el.children].map(lookOf).join()
    const before = look()
    el.className = [...el.classList].filter((name) => !MARKING.test(name)).join(' ')
    const after = look()
    el.setAttribute('class', had)
    return before !== after
  })

/** True when the part that holds most of the menu's links, the current one too, is hidden. */
export function isClosed(menu: Element, [current]: readonly Element[]): boolean {
  let hidden: Element = menu
  for (let e: Element | null = current ?? null; e && e !== menu && !isShown(e); e = e.parentElement) hidden = e
  return hidden.querySelectorAll('a[href]').length >= menu.querySelectorAll('a[href]').length / 2
}

/** True when the current link or an element around it looks different from the others', or there is nothing to compare. */
function looksApart(menu: Element, mark: MarkClass | null): boolean {
  const all = currentOf(menu, mark)
  const current = all.filter(isShown)
  // In a closed list, its opener shows the mark; in a closed menu, nobody sees one.
  if (!current.length) return [...menu.querySelectorAll(`[${WITHIN}]`)].some(isShown) || isClosed(menu, all) || !all.length
  const others = [...menu.querySelectorAll<HTMLAnchorElement>('a[href]')].filter(
    (a) => isShown(a) && !current.includes(a) && !a.matches(':hover, :focus'),
  )
  if (!others.length) return true
  return current.some((a) => {
    // Compares the elements around them too, up to the first one they share.
    for (let [mine, theirs]: [Element | null, (Element | null)[]] = [a, others]; mine && mine !== menu;) {
      const look = lookOf(mine)
      if (theirs.every((el) => !el || lookOf(el) !== look)) return true
      mine = mine.parentElement
      theirs = theirs.map((el) => el?.parentElement ?? null)
      if (mine && theirs.some((el) => el === mine)) return false
    }
    return false
  })
}
