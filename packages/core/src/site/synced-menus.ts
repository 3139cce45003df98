/** Synced menus: the same items in the same order as their source. */
import type { Item, ItemTarget, Menu, Site, SitePage } from './document/index.ts'

/** Updates all synced menus; returns the same site if nothing changes. */
export function syncMenus(site: Site): Site {
  const pages = site.pages.map((page) => {
    const menus = page.menus.map((menu) => {
      const items = menu.syncedWith && syncedItems(site, page, menu)
      return !items || JSON.stringify(items) === JSON.stringify(menu.items) ? menu : { ...menu, items }
    })
    return menus.every((m, i) => m === page.menus[i]) ? page : { ...page, menus }
  })
  return pages.every((p, i) => p === site.pages[i]) ? site : { ...site, pages }
}

/** Null if the source is missing. */
function syncedItems(site: Site, page: SitePage, { key, syncedWith }: Menu): Item[] | null {
  const from = site.pages.find((p) => p.key === syncedWith!.page)
  const source = from?.menus.find((m) => m.key === syncedWith!.menu)
  if (!from || !source) return null
  const own = new Map(syncedWith!.labels.map(({ item, label }) => [item, label]))
  return source.items.map(({ key: item, label, target, tooltip, lang, depth, off, motion }): Item => ({
    key: syncedKey(key, item),
    label: own.get(item) ?? label,
    target: seenFrom(target, from.key, page.key),
    links: [],
    ...(tooltip !== undefined && { tooltip }),
    ...(lang !== undefined && { lang }),
    ...(depth !== undefined && { depth }),
    ...(off !== undefined && { off }),
    ...(motion !== undefined && { motion }),
  }))
}

/** Key of a synced item. */
export const syncedKey = (menu: string, item: string): string => `${menu}-${item}`

/** A target of one page, as an item on another page has it. */
export function seenFrom(target: ItemTarget, from: string, to: string): ItemTarget {
  if (from === to) return target
  if (target.kind === 'section') return { kind: 'page', page: from, section: target.section }
  if (target.kind === 'top') return { kind: 'page', page: from, section: null }
  if (target.kind !== 'page' || target.page !== to) return target
  return target.section === null ? { kind: 'top' } : { kind: 'section', section: target.section }
}
