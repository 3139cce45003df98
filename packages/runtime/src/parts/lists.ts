/** For menus with lists that open: what opens the one that the current item is in says so. */
import { openersOf, WITHIN } from '@waybell/core/contract'
import { all } from '../elements.ts'

export function markOpeners(menu: Element, link: Element | undefined): void {
  for (const el of all(`[${WITHIN}]`, menu)) el.removeAttribute(WITHIN)
  for (const el of link ? openersOf(link, menu) : []) el.setAttribute(WITHIN, '')
}
