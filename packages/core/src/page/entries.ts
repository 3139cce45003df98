/** How a menu's links stand in its markup: lists of entries, each with one link or a list. Needed to write a menu's order. */
import type { LinkElement } from './links.ts'
import type { El, ElementAt } from './tree.ts'

export interface MenuList {
  /** The parent of the entries. */
  list: ElementAt
  entries: MenuEntry[]
  /** All entries are alike, so they can swap places. */
  isEven: boolean
}

/** `at` is a child of its list. */
export type MenuEntry = { at: ElementAt; link: ElementAt; isLink: boolean } | ({ at: ElementAt } & MenuList)

/** Null when source order and tree disagree. */
export function menuList(menu: El, links: readonly LinkElement[]): MenuList | null {
  const orders = links.map((l) => l.el.order).sort((a, b) => a - b)
  const holds = (el: El) => {
    const from = orders.findIndex((o) => o >= el.order)
    return from < 0 ? 0 : orders.slice(from).filter((o) => o <= el.lastOrder).length
  }
  const byOrder = new Map(links.map((l) => [l.el.order, l.el]))
  const bare = new Set(links.filter((l) => l.status === 'button' || l.status === 'group').map((l) => l.el))
  const listIn = (el: El): MenuList | null => {
    let list = el
    let children = list.children.filter((c) => holds(c) > 0)
    while (children.length === 1 && !byOrder.has(children[0]!.order)) {
      list = children[0]!
      children = list.children.filter((c) => holds(c) > 0)
    }
    if (!inSource(list, children)) return null
    const entries = children.map((c): MenuEntry | null => {
      if (holds(c) > 1) {
        const inner = listIn(c)
        return inner && { at: c.at, ...inner }
      }
      const link = [...byOrder.values()].find((l) => l.order >= c.order && l.order <= c.lastOrder)!
      return link.at >= c.at && link.end <= c.end ? { at: c.at, link: link.at, isLink: !bare.has(link) } : null
    })
    if (entries.includes(null)) return null
    return { list: list.at, entries: entries as MenuEntry[], isEven: new Set(children.map((c) => c.tag)).size === 1 }
  }
  return links.length ? listIn(menu) : null
}

function inSource(list: El, children: readonly El[]): boolean {
  let from = list.tagEnd
  const to = list.closeAt >= 0 ? list.closeAt : list.end
  for (const { at, end, tagEnd } of children) {
    if (at < from || tagEnd < at || end < tagEnd || end > to) return false
    from = end
  }
  return true
}
