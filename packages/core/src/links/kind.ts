/** Links outside menus, and where each leads. */
import { decodeFragment } from '../contract/index.ts'
import type { ElementAt, PageLink, PageReading } from '../page/index.ts'
import { sectionOf, type ItemTarget, type LinkChoice, type MadeLink, type Section, type SitePage } from '../site/index.ts'
import { leadsNowhere, namesSite } from './match.ts'
import { pageAt } from './pages.ts'

/** To this page; to another page or outside; to nothing. */
export type LinkKind = 'here' | 'elsewhere' | 'broken'

export interface LooseLink {
  link: PageLink
  kind: LinkKind
  /** Null when left as the page has it. */
  target: ItemTarget | null
  /** The section it leads to. */
  section: Section | null
  /** The last section that starts before it; null above the first. */
  at: Section | null
  /** For a made link: what it wraps. */
  made: MadeLink | null
}

/** In page order. @param pages of the site */
export function looseLinks(page: SitePage, reading: PageReading, pages: readonly SitePage[]): LooseLink[] {
  const inMenus = new Set(page.menus.flatMap((m) => m.items.flatMap((i) => i.links)))
  const chosen = new Map(page.links?.flatMap((l) => (l.made ? [] : [[l.at, l.target] as const])))
  const elements = page.sections.filter((s) => !s.point)
  const byAt = new Map(elements.map((s) => [s.at, s]))
  const loose = reading.links.filter(({ at, status }) => !inMenus.has(at) && status !== 'button' && status !== 'group')
  const placeOf = (at: ElementAt) => elements.findLast((s) => s.at <= at) ?? null
  const own = loose.map((link): LooseLink => {
    const target = chosen.get(link.at) ?? null
    const section = target ? (page.sections.find((s) => s.key === sectionOf(target)) ?? null) : ownSection(link, page, byAt)
    const kind = target ? (section || target.kind === 'top' ? 'here' : 'elsewhere') : ownKind(link, section, page, reading, pages)
    return { link, kind, target, section, at: placeOf(link.at), made: null }
  })
  const made = (page.links ?? []).flatMap((l): LooseLink[] => {
    if (!l.made) return []
    const section = page.sections.find((s) => s.key === sectionOf(l.target)) ?? null
    const kind = section || l.target.kind === 'top' ? 'here' : 'elsewhere'
    return [{ link: linkMade(l, l.made), kind, target: l.target, section, at: placeOf(l.at), made: l.made }]
  })
  return made.length ? [...own, ...made].sort((a, b) => a.link.at - b.link.at) : own
}

/** Reads like a link of the page without a target. */
const linkMade = ({ at }: LinkChoice, { label }: MadeLink): PageLink => ({
  at,
  href: '',
  status: 'empty',
  leaves: false,
  target: null,
  fragment: null,
  path: null,
  label,
  plain: false,
  line: 0,
  column: 0,
})

function ownSection(link: PageLink, page: SitePage, byAt: ReadonlyMap<ElementAt, Section>): Section | null {
  const point = pointNamed(link, page.sections)
  if (point) return point
  const there = link.target === null ? undefined : byAt.get(link.target)
  if (there || link.status === 'ok') return there ?? null
  const wanted = link.status === 'broken' && link.fragment !== null ? decodeFragment(link.fragment) : ''
  return (wanted !== '' && page.sections.find((s) => s.id === wanted || s.former.includes(wanted))) || null
}

/** The point that a link to a target of this page names: its target is another section's element, or none. */
export function pointNamed(link: PageLink, sections: readonly Section[]): Section | undefined {
  if (link.status !== 'ok' || link.fragment === null) return undefined
  const id = decodeFragment(link.fragment)
  return sections.find((s) => s.point && s.at === link.target && (s.id === id || s.former.includes(id)))
}

function ownKind(link: PageLink, section: Section | null, page: SitePage, reading: PageReading, pages: readonly SitePage[]): LinkKind {
  if (section || link.status === 'ok') return 'here'
  if (link.status === 'other-page') {
    const there = link.path === null ? undefined : pageAt(pages, page.file, link.path)
    const wanted = decodeFragment(link.fragment ?? '')
    const isThere = !there?.sections.length || wanted === '' || there.sections.some((s) => [s.id, s.sourceId, ...s.former].includes(wanted))
    return isThere ? 'elsewhere' : 'broken'
  }
  if (link.status === 'top' && namesSite(link, reading)) return 'here'
  if (leadsNowhere(link)) return 'broken'
  return link.status === 'top' ? 'here' : 'elsewhere'
}
