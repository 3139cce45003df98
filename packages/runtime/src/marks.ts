/** Marks each menu's current item. If the section stays the same, a frame costs one comparison. */
import { decodeFragment, fragmentOf, MENU, type Settings } from '@waybell/core/contract'
import { all, linksIn } from './elements.ts'
import { isHere, sectionOf, TOP } from './page.ts'
import { markByClass } from './parts/classes.ts'
import { markOpeners } from './parts/lists.ts'
import { orderMade, showMade } from './parts/made.ts'
import { overlook } from './parts/scripts.ts'

interface Item {
  link: HTMLAnchorElement
  isTop: boolean
}

interface Menu {
  menu: HTMLElement
  items: Map<string, Item[]>
  /** Sections before the menu's first: there it counts as the page's top. */
  opening: Set<string>
  /** The marked link; undefined for none, null for unknown. */
  shown: HTMLAnchorElement | undefined | null
}

let menus: Menu[] = []
/** The section marked last; undefined to check again. */
let lastId: string | undefined
let lastLink: Element | undefined

export function readMenus(s: Settings): HTMLElement[] {
  menus = all(`[${MENU}]`).map((menu) => {
    const items = new Map<string, Item[]>()
    for (const link of linksIn(menu)) {
      const id = isHere(link) ? sectionOf(link.hash, s) : undefined
      if (id === undefined) continue
      const isTop = !s.sections.includes(decodeFragment(fragmentOf(link.hash)))
      items.set(id, [...(items.get(id) ?? []), { link, isTop }])
    }
    return { menu, items, shown: null, opening: new Set() }
  })
  orderMade(s)
  lastId = undefined
  return menus.map((m) => m.menu)
}

/** The page's own script changed a mark: all are checked again. */
export function forget(): void {
  for (const m of menus) m.shown = null
  lastId = undefined
}

/** @param ids of sections in bell order */
export function findOpenings(ids: readonly string[]): void {
  for (const { items, opening } of menus) {
    opening.clear()
    for (const id of ids) {
      if (items.has(id)) break
      opening.add(id)
    }
  }
  lastId = undefined
}

export function mark(current: string, link: Element | undefined): void {
  if (lastId === current && lastLink === link) return
  lastId = current
  lastLink = link
  for (const m of menus) {
    const { items, shown } = m
    // Also in hidden menus: a folded one shows its mark when opened.
    const meant = [...(items.get(current) ?? []), ...(m.opening.has(current) ? (items.get(TOP) ?? []) : [])]
    const chosen = (meant.find((l) => l.link === link) ?? meant.find((l) => !l.isTop) ?? meant[meant.length - 1])?.link
    if (shown === chosen) continue
    m.shown = chosen
    markByClass(m.menu, chosen, linksOf(m))
    for (const other of shown === null ? linksOf(m) : shown ? [shown] : []) other.removeAttribute('aria-current')
    if (chosen) show(m.menu, chosen)
    markOpeners(m.menu, chosen)
  }
  showMade(current)
  overlook()
}

const linksOf = ({ items }: Menu) => [...items.values()].flat().map((l) => l.link)

function show(menu: HTMLElement, link: HTMLAnchorElement): void {
  if (menu.scrollWidth > menu.clientWidth) {
    const [outer, inner] = [menu.getBoundingClientRect(), link.getBoundingClientRect()]
    menu.scrollLeft += (inner.left + inner.right - outer.left - outer.right) / 2
  }
  link.setAttribute('aria-current', 'true')
}
