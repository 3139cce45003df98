/** For menus with lists that open: the opener of the current item's list is marked. */
import { openersOf, WITHIN } from '@waybell/core/contract'
import { all } from '../elements.ts'

export function markOpeners(menu: Element, link: Element | undefined): void {
  for (const el of all(`[${WITHIN}]`, menu)) el.removeAttribute(WITHIN)
  for (const el of link ? openersOf(link, menu) : []) el.setAttribute(WITHIN, '')
}
