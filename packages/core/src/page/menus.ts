/**
 * The menus that a page already has in its header: groups of links that stay on the page, or that were
 * left to be filled in (`#`, empty, `javascript:`).
 */
import { isNavigation, within, inFooter, type Outline } from './outline.ts'
import { MENU } from '../contract/index.ts'
import type { LinkElement } from './links.ts'
import { contains, type El } from './tree.ts'

export interface FoundMenu {
  /** The element around the links; it carries the mark that the script looks for. */
  el: El
  links: LinkElement[]
  /** True where it stands above the page's content. */
  inHeader: boolean
}

const lists = new Set(['ul', 'ol', 'menu'])
export const staysHere = (link: LinkElement) => ['ok', 'broken', 'top', 'empty', 'script'].includes(link.status)

/** Groups of at least two links that stay on the page, each in its `nav`, else its list, else its parent. */
export function groupLinks(links: readonly LinkElement[]): { el: El; links: LinkElement[] }[] {
  const groups = new Map<El, LinkElement[]>()
  for (const link of links) {
    if (!staysHere(link) || link.el.tag !== 'a' || within(link.el, (e) => e.tag === 'p' || e.level > 0)) continue
    const el = groupElement(link.el)
    if (!el || ['body', 'html', 'main'].includes(el.tag)) continue
    const group = groups.get(el)
    if (group) group.push(link)
    else groups.set(el, [link])
  }
  return [...groups].map(([el, members]) => ({ el, links: members })).filter((g) => g.links.length >= 2)
}

function groupElement(link: El): El | null {
  const nav = within(link, isNavigation)
  if (nav) return nav
  let list: El | null = null
  for (let e = link.parent; e; e = e.parent) if (lists.has(e.tag)) list = e
  return list ?? link.parent
}

const listDepth = (link: El, group: El): number => {
  let n = 0
  for (let e = link.parent; e && e !== group; e = e.parent) if (lists.has(e.tag)) n++
  return n
}

/** Elements that the page's menus lead to, in the order of the links. */
export function menuTargets(links: readonly LinkElement[]): El[] {
  const out = new Set<El>()
  for (const { el, links: members } of groupLinks(links)) {
    const list = isNavigation(el) || within(el, (e) => e.tag === 'header' || e.attrs.get('role') === 'banner')
    // A footer's list repeats; lists in running text are tables of contents and notes: only a menu decides what a section is.
    if (!list && (inFooter(el) || members.some((m) => m.target && contains(m.target, el)))) continue
    // Of a list in a list the outer one names the parts; the inner ones are theirs.
    const depths = new Map(members.map((m) => [m, listDepth(m.el, el)]))
    const least = Math.min(...depths.values())
    for (const m of members) if (m.target && depths.get(m) === least && !within(m.target, isNavigation)) out.add(m.target)
  }
  return [...out]
}

export function findMenus(links: readonly LinkElement[], outline: Outline): FoundMenu[] {
  const offered = outline.parts.filter((p) => p.offered)
  const second = offered[1]?.el.order ?? Infinity
  const firstHeading = outline.firstHeading
  return groupLinks(links)
    .filter(({ el }) => !outline.holdsHeading(el) || isNavigation(el))
    .map(({ el, links: members }) => {
      const banner = within(el, (e) => e.tag === 'header' || e.attrs.get('role') === 'banner')
      const inPart = offered.find((p) => contains(p.el, el))
      const early = el.order < second && el.order < firstHeading
      const inHeader =
        // One that an earlier handover adopted is adopted again.
        el.attrs.has(MENU) ||
        (!inFooter(el) &&
          // Above everything, or in the first part's own bar, or a rail that says it is navigation.
          ((early && (!inPart || inPart === offered[0]) && (!!banner || isNavigation(el) || !inPart)) ||
            (isNavigation(el) && !inPart && !within(el, (e) => e.tag === 'main' || e.tag === 'article')) ||
            (outline.pageHeader !== null && (el === outline.pageHeader || contains(outline.pageHeader, el)))))
      return { el, links: members, inHeader }
    })
}
