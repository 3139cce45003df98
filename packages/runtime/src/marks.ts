/** The current item of each menu, marked. Where the current section stays the same, a frame costs one comparison. */
import { decodeFragment, fragmentOf, MENU, type MarkClass, type Settings } from '@waybell/core/contract'
import { all, isHere, linksIn, sectionOf, TOP } from './page.ts'
import { classOf, markByClass } from './parts/classes.ts'
import { markOpeners } from './parts/lists.ts'
import { overlook } from './parts/scripts.ts'

interface Item {
  link: HTMLAnchorElement
  id: string
  isTop: boolean
}

interface Menu {
  menu: HTMLElement
  items: Map<string, Item[]>
  /** Links in it, others too: a script may add some. */
  count: number
  /** Sections before the first that it leads to: there the page is at its top, as far as this menu goes. */
  opening: Set<string>
  /** The class by which the page marks an item. */
  own: MarkClass | null
  /** The link that is marked, undefined for none; null where that is not known. */
  shown: HTMLAnchorElement | undefined | null
}

let menus: Menu[] = []
/** What was marked last; null where that is to be looked at again. */
let last: { id: string; link: Element | null } | null = null

export function readMenus(s: Settings): HTMLElement[] {
  menus = all(`[${MENU}]`).map((menu) => {
    const items = new Map<string, Item[]>()
    const links = linksIn(menu)
    for (const link of links) {
      const id = isHere(link) ? sectionOf(link.getAttribute('href')!, s) : undefined
      if (id === undefined) continue
      const isTop = !s.sections.includes(decodeFragment(fragmentOf(link.hash)))
      items.set(id, [...(items.get(id) ?? []), { link, id, isTop }])
    }
    return { menu, items, count: links.length, own: classOf(menu), shown: null, opening: new Set() }
  })
  last = null
  return menus.map((m) => m.menu)
}

/** True where a script took links away or added some. */
export const hasOtherLinks = (): boolean => menus.some(({ menu, count }) => linksIn(menu).length !== count)

/** The page's own script marked something: everything is looked at again. */
export function forget(): void {
  for (const m of menus) m.shown = null
  last = null
}

/** @param ids of the sections in the order of their bells */
export function findOpenings(ids: readonly string[]): void {
  for (const { items, opening } of menus) {
    opening.clear()
    for (const id of ids) {
      if (items.has(id)) break
      opening.add(id)
    }
  }
  last = null
}

export function mark(current: string, link: Element | null): void {
  if (last?.id === current && last.link === link) return
  last = { id: current, link }
  for (const m of menus) {
    const { items, own, shown } = m
    // In a menu out of sight as well: one behind a button says it when it is opened.
    const meant = [...(items.get(current) ?? []), ...(m.opening.has(current) ? (items.get(TOP) ?? []) : [])]
    const chosen = (meant.find((l) => l.link === link) ?? meant.find((l) => !l.isTop) ?? meant[meant.length - 1])?.link
    if (shown === chosen) continue
    m.shown = chosen
    if (own) markByClass(m.menu, own, chosen, shown, linksOf(m))
    for (const other of shown === null ? linksOf(m) : shown ? [shown] : []) other.removeAttribute('aria-current')
    if (chosen) show(m.menu, chosen)
    markOpeners(m.menu, chosen)
  }
  overlook()
}

const linksOf = ({ items }: Menu) => [...items.values()].flatMap((those) => those.map((l) => l.link))

function show(menu: HTMLElement, link: HTMLAnchorElement): void {
  if (menu.scrollWidth > menu.clientWidth) {
    const [outer, inner] = [menu.getBoundingClientRect(), link.getBoundingClientRect()]
    menu.scrollLeft += (inner.left + inner.right - outer.left - outer.right) / 2
  }
  link.setAttribute('aria-current', 'true')
}
