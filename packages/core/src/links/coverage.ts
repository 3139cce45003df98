/**
 * Who reaches whom: the sections of a page against the menus and links that lead to them, on it, and on the site's other pages
 * what was given a target there: what those pages' own links say is not known while another is worked on.
 */
import { isMade, elsewhereOf, sectionOf, type ItemTarget, type Section, type Site, type SitePage } from '../site/index.ts'
import type { PageReading } from '../page/index.ts'
import { looseLinks } from './kind.ts'

/** A link, as far as it takes to find its row. */
export interface Leader {
  label: string
  /** Key of its item; null for a link outside the menus. */
  item: string | null
  /** Of a link outside the menus of this page. */
  at: number | null
}

export interface CoverageColumn {
  key: string
  name: string
  /** The page that it stands on, where that is another. */
  page: SitePage | null
}

export interface Coverage {
  columns: CoverageColumn[]
  /** The page's top first, then its sections; of each what leads there, by column. */
  rows: { section: Section | null; leaders: Leader[][] }[]
  /** By column, what leads nowhere. */
  nowhere: Leader[][]
}

/**
 * Sections that nothing counted leads to; who is at the top of the page sees the one whose link goes there.
 * @param hidden keys of items of this page's menus that do not count
 */
export function unreached({ columns, rows }: Coverage, hidden: ReadonlySet<string> = new Set()): Section[] {
  const isAlone = ({ leaders }: Coverage['rows'][number]) =>
    leaders.every((l, n) => l.every((one) => columns[n]!.page === null && one.item !== null && hidden.has(one.item)))
  const isTopReached = !isAlone(rows[0]!)
  return rows.flatMap((row) => (row.section && isAlone(row) && !(row.section.toTop && isTopReached) ? row.section : []))
}

const usesOf = ({ menus, links = [] }: SitePage): { label: string; key: string | null; target: ItemTarget }[] => [
  ...menus.flatMap((m) => m.items.map((i) => ({ label: i.label, key: i.key, target: i.target }))),
  ...links.map((l) => ({ label: '', key: null, target: l.target })),
]

export function coverage(site: Site, page: SitePage, reading: PageReading): Coverage {
  const others = site.pages.filter((p) => p !== page && usesOf(p).some((u) => elsewhereOf(u.target)?.page === page.key))
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
    for (const { label, key, target } of usesOf(other)) {
      const place = elsewhereOf(target)
      if (place?.page === page.key) put(`page ${other.key}`, { label, item: key, at: null }, place.section)
    }
  }
  return { columns, rows, nowhere }
}
