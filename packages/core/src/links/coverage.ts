/** Coverage: which menus and links lead to which section, also from the site's other pages. */
import { decodeFragment } from '../contract/index.ts'
import { isMade, elsewhereOf, sectionOf, type ItemTarget, type Section, type Site, type SitePage } from '../site/index.ts'
import type { ElementAt, PageReading } from '../page/index.ts'
import { looseLinks } from './kind.ts'
import { pageAt } from './pages.ts'

/** What identifies a link in its row. */
export interface Leader {
  label: string
  /** Key of its item; null for a link outside menus. */
  item: string | null
  /** Its place, for a link outside menus. */
  at: ElementAt | null
}

/** A link in another page's file that isn't changed. */
export interface LinkFromPage {
  /** Key of that page. */
  page: string
  leader: Leader
  /** Decoded; empty for the top. */
  fragment: string
}

export interface CoverageColumn {
  key: string
  name: string
  /** Its page, if another. */
  page: SitePage | null
}

export interface Coverage {
  columns: CoverageColumn[]
  /** The page's top, then its sections; each with its links by column. */
  rows: { section: Section | null; leaders: Leader[][] }[]
  /** Links without target, by column. */
  nowhere: Leader[][]
}

/**
 * Sections without any counted link; a visitor at the page's top sees the section that starts there.
 * @param hidden keys of items that don't count
 */
export function unreached({ columns, rows }: Coverage, hidden: ReadonlySet<string> = new Set()): Section[] {
  const isAlone = ({ leaders }: Coverage['rows'][number]) =>
    leaders.every((l, n) => l.every((one) => columns[n]!.page === null && one.item !== null && hidden.has(one.item)))
  const isTopReached = !isAlone(rows[0]!)
  return rows.flatMap((row) => (row.section && isAlone(row) && !(row.section.toTop && isTopReached) ? row.section : []))
}

const usesOf = ({ menus, links = [] }: SitePage): { leader: Leader; target: ItemTarget }[] => [
  ...menus.flatMap((m) => m.items.map((i) => ({ leader: { label: i.label, item: i.key, at: null }, target: i.target }))),
  ...links.map((l) => ({ leader: { label: l.made?.label ?? '', item: null, at: l.at }, target: l.target })),
]

/** Links from another page's file to this page, without those with a chosen target. @param other whose reading `reading` is */
export function linksInto(page: SitePage, other: SitePage, reading: PageReading, pages: readonly SitePage[]): LinkFromPage[] {
  const items = new Map(other.menus.flatMap((m) => m.items.flatMap((item) => item.links.map((at) => [at, item] as const))))
  const chosen = new Set(other.links?.map((l) => l.at))
  return reading.links.flatMap(({ at, path, label, fragment }): LinkFromPage[] => {
    const item = items.get(at)
    const isLeft = item ? item.target.kind === 'as-is' : !chosen.has(at)
    if (path === null || !isLeft || pageAt(pages, other.file, path) !== page) return []
    const leader = { label, item: item?.key ?? null, at: item ? null : at }
    return [{ page: other.key, leader, fragment: decodeFragment(fragment ?? '') }]
  })
}

/** @param from links to this page in other pages' files */
export function coverage(site: Site, page: SitePage, reading: PageReading, from: readonly LinkFromPage[] = []): Coverage {
  const leadsHere = (p: SitePage) => from.some((l) => l.page === p.key) || usesOf(p).some((u) => elsewhereOf(u.target)?.page === page.key)
  const others = site.pages.filter((p) => p !== page && leadsHere(p))
  const loose = looseLinks(page, reading, site.pages)
  const columns: CoverageColumn[] = [
    ...page.menus.map((m) => ({ key: m.key, name: m.name, page: null })),
    ...(loose.length ? [{ key: 'links', name: 'Links on the page', page: null }] : []),
    ...others.map((p) => ({ key: `page ${p.key}`, name: p.file, page: p })),
  ]
  const rows = [null, ...page.sections].map((section) => ({ section, leaders: columns.map((): Leader[] => []) }))
  const nowhere = columns.map((): Leader[] => [])
  const rowOf = new Map(rows.map((row) => [row.section?.key ?? '', row]))
  const put = (column: string, leader: Leader, place: string | null | 'nowhere') => {
    const n = columns.findIndex((c) => c.key === column)
    if (place === 'nowhere') nowhere[n]!.push(leader)
    else rowOf.get(place ?? '')?.leaders[n]!.push(leader)
  }
  const nowhereOf = new Set(reading.links.filter((l) => l.status === 'broken' || l.status === 'empty').map((l) => l.at))
  for (const menu of page.menus)
    for (const item of menu.items) {
      const leader = { label: item.label, item: item.key, at: null }
      const section = sectionOf(item.target)
      if (section !== null || item.target.kind === 'top') put(menu.key, leader, section)
      else if (item.target.kind === 'as-is' && (isMade(menu) || item.links.some((at) => nowhereOf.has(at))))
        put(menu.key, leader, 'nowhere')
    }
  for (const { link, kind, section, target } of loose) {
    const leader = { label: link.label, item: null, at: link.at }
    if (kind === 'broken') put('links', leader, 'nowhere')
    else if (section || (target ? target.kind === 'top' : link.status === 'top')) put('links', leader, section?.key ?? null)
  }
  for (const other of others) {
    for (const { leader, target } of usesOf(other)) {
      const place = elsewhereOf(target)
      if (place?.page === page.key) put(`page ${other.key}`, leader, place.section)
    }
  }
  const ids = new Set(reading.ids.map((i) => i.id))
  for (const { page: key, leader, fragment } of from) {
    const section = page.sections.find((s) => [s.id, s.sourceId, ...s.former].includes(fragment))
    const isTop = fragment === '' || (fragment.toLowerCase() === 'top' && !ids.has(fragment))
    if (isTop || section) put(`page ${key}`, leader, section?.key ?? null)
    else if (!ids.has(fragment)) put(`page ${key}`, leader, 'nowhere')
  }
  return { columns, rows, nowhere }
}
