/** Finds the page's menus: groups of links anywhere, with buttons among them and openers of lists. */
import { isNavigation, within, inFooter, type Outline } from './outline/index.ts'
import { MENU } from '../contract/index.ts'
import type { LinkElement } from './links.ts'
import { contains, textOf, type El, type Tree } from './tree.ts'

export interface FoundMenu {
  /** The element around the links, which gets the mark for the script. */
  el: El
  /** In page order, with their list depth. */
  items: { link: LinkElement; depth: number }[]
  /** Above or beside the content, in the footer, or in running text, where it isn't a menu. */
  place: 'header' | 'footer' | 'text'
}

interface Group {
  el: El
  links: LinkElement[]
}

const lists = new Set(['ul', 'ol', 'menu'])
const notMenus = ['body', 'html', 'main']
export const staysHere = (link: LinkElement) => ['ok', 'broken', 'top', 'empty', 'script'].includes(link.status)

/** True inside running text. @param known results for earlier paragraphs, because long ones are asked for every link */
function isInText(link: El, known: Map<El, number>): boolean {
  const text = within(link, (e) => e.tag === 'p' || e.level > 0)
  if (text === null) return false
  // A paragraph of links with separators is a row, as old pages have it.
  const least = within(text, (e) => isNavigation(e) || lists.has(e.tag)) ? 1 : 3
  if (text.tag !== 'p') return true
  const links = known.get(text) ?? linksAlone(text)
  known.set(text, links)
  return links < least
}

/** Number of links in an element without other text; else 0. */
function linksAlone(el: El): number {
  let links = 0
  const waiting = [el]
  for (let e = waiting.pop(); e; e = waiting.pop()) {
    if (e.texts.some(({ value }) => /[\p{L}\p{N}]/u.test(value))) return 0
    for (const child of e.children) {
      if (child.tag === 'a') links++
      else waiting.push(child)
    }
  }
  return links
}

/** Groups links by their `nav`, else list, else a block with little else. */
function groupLinks(links: readonly LinkElement[]): Group[] {
  const groups = new Map<El, LinkElement[]>()
  const known = new Map<El, number>()
  const eligible = links.filter((l) => l.el.tag === 'a' && l.label !== '' && !isInText(l.el, known))
  const holds = new Map<El, number>()
  for (const { el } of eligible) for (let e = el.parent; e; e = e.parent) holds.set(e, (holds.get(e) ?? 0) + 1)
  for (const link of eligible) {
    const el = groupElement(link.el, holds)
    if (!el || notMenus.includes(el.tag)) continue
    const group = groups.get(el)
    if (group) group.push(link)
    else groups.set(el, [link])
  }
  return [...groups].map(([el, members]) => ({ el, links: members })).filter((g) => g.links.length >= 2)
}

function groupElement(link: El, holds: ReadonlyMap<El, number>): El | null {
  const nav = within(link, isNavigation)
  if (nav) return nav
  let list: El | null = null
  for (let e = link.parent; e; e = e.parent) if (lists.has(e.tag)) list = e
  if (list) return list
  // Each link may have a block of its own.
  let el = link.parent
  while (el?.parent && holds.get(el) === 1 && !notMenus.includes(el.parent.tag) && textOf(el, 200) === textOf(link, 200)) el = el.parent
  return el
}

/** Navigation of buttons only, which a page script handles. */
function groupsOfButtons(tree: Tree, groups: readonly Group[]): Group[] {
  const travels = (el: El) =>
    [...el.attrs].some(([name, value]) =>
      name === 'onclick' ? /scroll|location|hash/i.test(value) : name.startsWith('data-') && /^#[\p{L}\p{N}]/u.test(value),
    )
  return tree.all
    .filter((el) => isNavigation(el) && el.at >= 0 && !groups.some((g) => g.el === el || contains(el, g.el)))
    .filter((el) => buttonsIn(el, tree).filter((b) => travels(b.el)).length >= 2)
    .map((el) => ({ el, links: [] }))
}

const depthIn = (link: El, group: El): number => {
  let n = 0
  for (let e = link.parent; e && e !== group; e = e.parent) if (lists.has(e.tag)) n++
  return n
}

/** Targets of the page's menus, in link order. */
export function menuTargets(links: readonly LinkElement[]): Map<El, string> {
  const out = new Map<El, string>()
  for (const { el, links: all } of groupLinks(links)) {
    const members = all.filter(staysHere)
    if (members.length < 2) continue
    const list = isNavigation(el) || within(el, (e) => e.tag === 'header' || e.attrs.get('role') === 'banner')
    // Footer lists repeat, and lists in running text are contents and notes; only a menu makes sections.
    if (!list && (inFooter(el) || members.some((m) => m.target && contains(m.target, el)))) continue
    // In nested lists the outer one names the parts, unless it leads nowhere.
    const leading = members.filter((m) => m.target && m.status !== 'top' && !within(m.target, isNavigation))
    const least = Math.min(...leading.map((m) => depthIn(m.el, el)))
    const isPlain = members.some((m) => !m.target && depthIn(m.el, el) < least) || hasGroups(el)
    for (const m of leading) if ((isPlain || depthIn(m.el, el) === least) && !out.has(m.target!)) out.set(m.target!, m.label)
  }
  return out
}

/** True when a menu has a list whose opener isn't a link. */
const hasGroups = (menu: El): boolean => groupsIn(menu).length > 0

export function findMenus(tree: Tree, links: readonly LinkElement[], outline: Outline, title: string): FoundMenu[] {
  const offered = outline.parts.filter((p) => p.offered)
  const second = offered[1]?.el.order ?? Infinity
  const firstHeading = outline.firstHeading
  const linked = groupLinks(links)
  const groups = [...joinColumns(linked, outline), ...groupsOfButtons(tree, linked)].filter(
    ({ el }) => !outline.holdsHeading(el) || isNavigation(el) || isFoot(el, outline),
  )
  return groups.flatMap(({ el, links: members }): FoundMenu[] => {
    const banner = within(el, (e) => e.tag === 'header' || e.attrs.get('role') === 'banner')
    const inPart = offered.find((p) => contains(p.el, el))
    const early = el.order < second && el.order < firstHeading
    const inHeader =
      // Menus of an earlier handover are adopted again.
      el.attrs.has(MENU) ||
      (!isFoot(el, outline) &&
        // Above everything, in the first part's own bar, or a rail marked as navigation.
        ((early && (!inPart || inPart === offered[0]) && (!!banner || isNavigation(el) || !inPart)) ||
          (isNavigation(el) && !inPart && !within(el, (e) => e.tag === 'main' || e.tag === 'article')) ||
          (outline.pageHeader !== null && (el === outline.pageHeader || contains(outline.pageHeader, el)))))
    const own = members.filter((link) => !isSiteName(link, el, members[0] === link, title) && !opensMenu(link))
    // Links that all lead away are a menu only if the page marks it so or lists them; else they're buttons.
    const isMenu = own.some(staysHere) ? own.length >= 2 : (isNavigation(el) || lists.has(el.tag)) && own.length >= 3
    if (members.length && !isMenu) return []
    const items = [...own, ...buttonsIn(el, tree), ...groupsIn(el)].sort((a, b) => a.el.order - b.el.order)
    const depths = items.map(({ el: item }) => depthIn(item, el))
    const least = Math.min(...depths)
    const place = inHeader ? 'header' : isFoot(el, outline) ? 'footer' : 'text'
    return [{ el, items: items.map((link, n) => ({ link, depth: depths[n]! - least })), place }]
  })
}

const isFoot = (el: El, { pageFooter }: Outline): boolean =>
  inFooter(el) !== null || (pageFooter !== null && (el === pageFooter || contains(pageFooter, el)))

/** Columns of links in a footer form one menu, in the block around them. */
function joinColumns(groups: readonly Group[], outline: Outline): Group[] {
  const columns = groups.filter(({ el }) => isFoot(el, outline) && !isNavigation(el))
  if (columns.length < 2) return [...groups]
  let block = columns[0]!.el
  while (block.parent && !columns.every(({ el }) => el === block || contains(block, el))) block = block.parent
  const joined = { el: block, links: columns.flatMap((c) => c.links).sort((a, b) => a.el.order - b.el.order) }
  return [...groups.filter((g) => !columns.includes(g)), joined].sort((a, b) => a.el.order - b.el.order)
}

/** True for the site's name, which links home and isn't an item: by class, as a picture, or by its text in first place. */
function isSiteName({ el, label, status }: LinkElement, menu: El, isFirst: boolean, title: string): boolean {
  for (let e: El | null = el; e && e !== menu; e = e.parent)
    if (/(^|[\s_-])(brand|logo|logotype|wordmark|site-?(name|title))([\s_-]|$)/i.test(e.attrs.get('class') ?? '')) return true
  const leadsHome = ['ok', 'top', 'empty', 'other-page'].includes(status)
  if (!isFirst || !leadsHome) return false
  return (
    (textOf(el, 1) === '' && !el.attrs.get('aria-label') && el.children.length > 0) ||
    (label.length > 2 && title.toLowerCase().startsWith(label.toLowerCase()) && !within(el, (e) => lists.has(e.tag)))
  )
}

/** True for an icon that opens or closes a menu by script. */
const opensMenu = ({ el, label, status }: LinkElement): boolean =>
  !/[\p{L}\p{N}]/u.test(label) && (status === 'script' || el.attrs.has('onclick'))

/** Non-links among the links. */
const noLink = (el: El, status: 'button' | 'group', label = textOf(el, 120)): LinkElement => ({
  el,
  href: '',
  status,
  leaves: false,
  fragment: null,
  target: null,
  path: null,
  label,
})

const opens = ['aria-expanded', 'aria-controls', 'aria-haspopup', 'data-toggle', 'data-bs-toggle', 'popovertarget']

/** Buttons that act as links, except the ones that open or close the menu. */
function buttonsIn(menu: El, tree: Tree): LinkElement[] {
  return tree.all
    .slice(menu.order + 1, menu.lastOrder + 1)
    .filter(
      (el) =>
        el.tag === 'button' &&
        el.at >= 0 &&
        textOf(el, 1) !== '' &&
        !opens.some((name) => el.attrs.has(name)) &&
        !/(toggle|burger|close|open)/i.test(`${el.attrs.get('class') ?? ''} ${el.attrs.get('id') ?? ''}`) &&
        !within(el, (e) => e.tag === 'form' || (e.tag === 'a' && e.attrs.has('href'))),
    )
    .map((el) => noLink(el, 'button'))
}

/** Text before a nested list that isn't a link: its opener or title. */
function groupsIn(menu: El): LinkElement[] {
  const out: LinkElement[] = []
  const look = (el: El, inList: boolean): void => {
    for (const child of el.children) {
      const isInner = lists.has(child.tag) && inList
      if (isInner) {
        const entry = within(child, (e) => e.tag === 'li' || lists.has(e.parent?.tag ?? ''))
        const before = entry && firstWords(entry, child)
        const own = entry && !before ? ownWords(entry, child) : ''
        if (own && entry!.at >= 0 && !out.some((o) => o.el === entry)) out.push(noLink(entry!, 'group', own))
        if (before && !within(before, (e) => e.tag === 'a' && e.attrs.has('href')) && !out.some((o) => o.el === before))
          out.push(noLink(before, 'group'))
      }
      look(child, inList || lists.has(child.tag))
    }
  }
  look(menu, lists.has(menu.tag))
  return out
}

/** Text directly in an entry, before its list. */
function ownWords(entry: El, list: El): string {
  const place = entry.children.findIndex((c) => c === list || contains(c, list))
  const words = entry.texts.filter((t) => t.before <= place).map((t) => t.value)
  return words.join(' ').trim().replace(/\s+/g, ' ').slice(0, 120)
}

/** The innermost element with text before an entry's list; null for text directly in the entry. */
function firstWords(entry: El, list: El): El | null {
  for (const child of entry.children) {
    if (child === list || child.order > list.order) return null
    if (contains(child, list)) return firstWords(child, list)
    if (textOf(child, 1) !== '' && child.at >= 0) return child
  }
  return null
}
