/**
 * What a handover changes in a page, as edits that speak of elements. The same edits become byte splices in the
 * file and patches in the live page, so that both show one result.
 */
import { BAR_HEIGHT, coverOf, hasBar } from '../arrival/index.ts'
import {
  ANCHOR,
  decodeFragment,
  hashOf,
  renamedReference,
  resolvePath,
  type ElementAt,
  type PageReading,
  type Settings,
} from '../page/index.ts'
import type { Item, Menu, SitePage } from '../site/index.ts'
import { anchorsOf, type Anchor } from './anchors.ts'
import { boundary, type HandoverInput } from './input.ts'
import { menuMarkup } from './menu.ts'
import { pageStyle } from './style.ts'

/** A copy of one of a menu's own entries, with another link and label and without its IDs. */
export interface NewSlot {
  like: ElementAt
  link: ElementAt
  href: string
  label: string
}

export type PieceRole = 'style' | 'settings' | 'script' | 'menu' | 'anchor'

export type PageEdit =
  | { kind: 'attribute'; at: ElementAt; name: string; value: string }
  /** The one run of visible text in the element. */
  | { kind: 'label'; at: ElementAt; text: string }
  /** The entries of a list: those the source has, in its order, and those it is to have. */
  | { kind: 'slots'; list: ElementAt; from: ElementAt[]; to: (ElementAt | NewSlot)[] }
  /** A piece of ours. `text` is what stands between its tags; a menu's is markup. There is one of each role, but for anchors, of which each has its ID.  */
  | { kind: 'piece'; role: PieceRole; place: 'head' | 'body-start' | { after: ElementAt }; text: string; id?: string }

export function pageEdits(input: HandoverInput): PageEdit[] {
  const { page, reading } = input
  const edits: PageEdit[] = []
  const anchors = anchorsOf(page, reading)
  const idOf = new Map(page.sections.map((s) => [s.key, s.id]))
  const own = ownIds(reading)
  for (const section of page.sections) {
    if (!section.point && own.get(section.at) !== section.id)
      edits.push({ kind: 'attribute', at: section.at, name: 'id', value: section.id })
  }
  for (const menu of page.menus) if (menu.at !== null) edits.push(...adoptedEdits(menu, reading, idOf))
  edits.push(...followRenames(input, idOf, own))
  edits.push(...referenceEdits(page, reading, own))
  if (page.header) edits.push({ kind: 'attribute', at: page.header.at, name: 'data-wb-header', value: page.header.keep ?? '' })
  edits.push({ kind: 'piece', role: 'style', place: 'head', text: pageStyle(input, anchors) })
  edits.push({ kind: 'piece', role: 'settings', place: 'head', text: settingsText(input, anchors) })
  edits.push({ kind: 'piece', role: 'script', place: 'head', text: input.runtime })
  for (const { at, number } of new Map(anchors.map((a) => [a.at, a])).values())
    edits.push({ kind: 'attribute', at, name: ANCHOR, value: String(number) })
  for (const { id } of anchors) edits.push({ kind: 'piece', role: 'anchor', place: 'head', text: '', id })
  const made = page.menus.find((m) => m.at === null)
  if (made) {
    const place = page.bar === 'after-header' && page.header ? { after: page.header.at } : 'body-start'
    edits.push({ kind: 'piece', role: 'menu', place, text: menuMarkup(made, idOf) })
  }
  return edits
}

function hrefOf(item: Item, idOf: Map<string, string>): string | null {
  if (item.target.kind === 'as-is') return null
  return item.target.kind === 'top' ? '#' : hashOf(idOf.get(item.target.section)!)
}

function adoptedEdits(menu: Menu, reading: PageReading, idOf: Map<string, string>): PageEdit[] {
  const edits: PageEdit[] = [{ kind: 'attribute', at: menu.at!, name: 'data-wb-menu', value: '' }]
  const links = new Map(reading.links.map((l) => [l.at, l]))
  for (const item of menu.items) {
    const link = item.link === null ? undefined : links.get(item.link)
    if (!link) continue
    const href = hrefOf(item, idOf)
    // `#top` and the like stay as the page wrote them.
    const isTop = item.target.kind === 'top' && link.status === 'top'
    if (href !== null && href !== link.href && !isTop) edits.push({ kind: 'attribute', at: link.at, name: 'href', value: href })
    if (item.label !== link.label && link.plain) edits.push({ kind: 'label', at: link.at, text: item.label })
  }
  return [...edits, ...slotEdits(menu, reading, idOf)]
}

function slotEdits(menu: Menu, reading: PageReading, idOf: Map<string, string>): PageEdit[] {
  const read = reading.menus.find((m) => m.at === menu.at)
  if (!read) return []
  const entry = new Map(read.items.map((i) => [i.link, i]))
  const edits: PageEdit[] = []
  for (const list of new Set(read.items.map((i) => i.list))) {
    const from = read.items.filter((i) => i.list === list).map((i) => i.slot)
    const to: (ElementAt | NewSlot)[] = []
    let last = read.items[0]!
    for (const item of menu.items) {
      const own = item.link === null ? undefined : entry.get(item.link)
      // An added item stands in the list of the item before it, and looks like that.
      if (own) last = own
      if (last.list !== list) continue
      if (own) to.push(own.slot)
      else to.push({ like: last.slot, link: last.link, href: hrefOf(item, idOf) ?? '#', label: item.label })
    }
    if (to.length !== from.length || to.some((s, i) => s !== from[i])) edits.push({ kind: 'slots', list, from, to })
  }
  return edits
}

/** The ID that each element has in the source, or the name by which links find it. */
const ownIds = (reading: PageReading): Map<ElementAt, string> =>
  new Map([
    ...reading.ids.map((i): [ElementAt, string] => [i.at, i.id]),
    ...reading.candidates.flatMap((c): [ElementAt, string][] => (c.id === null ? [] : [[c.at, c.id]])),
  ])

/** Every link outside the menus that means a section by an ID that it no longer has goes along: on the page, and to other pages of the site. */
function followRenames({ page, pages, reading }: HandoverInput, idOf: Map<string, string>, own: Map<ElementAt, string>): PageEdit[] {
  const inMenus = new Set(page.menus.flatMap((m) => m.items.map((i) => i.link)))
  const sections = new Map(page.sections.filter((s) => !s.point).map((s) => [s.at, s]))
  const former = formerIds(page)
  const edits: PageEdit[] = []
  for (const link of reading.links) {
    if (inMenus.has(link.at) || link.fragment === null) continue
    const fragment = decodeFragment(link.fragment)
    let id: string | undefined
    if (link.status === 'ok' && link.target !== null) {
      const section = sections.get(link.target)
      if (section && own.get(section.at) !== section.id) id = idOf.get(section.key)
    } else if (link.status === 'broken') id = former.get(fragment)
    else if (link.status === 'other-page' && link.path !== null) {
      const other = pages.find((p) => p.file === resolvePath(page.file, link.path!))
      id = other && newId(other, fragment)
    }
    if (id !== undefined) edits.push({ kind: 'attribute', at: link.at, name: 'href', value: link.href.replace(/#.*$/s, '') + hashOf(id) })
  }
  return edits
}

/** Labels, descriptions and the like go along with an ID that was changed. */
function referenceEdits(page: SitePage, reading: PageReading, own: Map<ElementAt, string>): PageEdit[] {
  const renames = new Map<string, string>()
  for (const section of page.sections) {
    const was = section.point ? undefined : own.get(section.at)
    // Of doubles the first is meant, and only that.
    if (was && was !== section.id && reading.ids.find((i) => i.id === was)?.at === section.at) renames.set(was, section.id)
  }
  if (!renames.size) return []
  return reading.references.flatMap((reference): PageEdit[] => {
    const value = renamedReference(reference, renames)
    return value === null ? [] : [{ kind: 'attribute', at: reference.at, name: reference.name, value }]
  })
}

const formerIds = (page: SitePage): Map<string, string> =>
  new Map(page.sections.flatMap((s) => s.former.map((f): [string, string] => [f, s.id])))

/** The ID that a section of another page has now, where `id` is one that it had. */
function newId(page: SitePage, id: string): string | undefined {
  if (page.sections.some((s) => s.id === id)) return undefined
  return page.sections.find((s) => s.own === id)?.id ?? formerIds(page).get(id)
}

function settingsText({ page, screens, surveys }: HandoverInput, anchors: readonly Anchor[]): string {
  const widths = [...screens].sort((a, b) => a.width - b.width)
  const settings: Settings = {
    sections: page.sections.map((s) => s.id),
    toTop: page.sections.filter((s) => s.toTop).map((s) => s.id),
    breathing: page.travel.breathing,
    bellOffset: page.highlight.bellOffset,
    smooth: page.travel.smooth,
    keep: page.header?.keep != null,
    former: Object.fromEntries(anchors.filter((a) => a.isFormer).map((a) => [a.id, a.section.id])),
    points: Object.fromEntries(anchors.filter((a) => !a.isFormer).map((a): [string, [number, number]] => [a.id, [a.number, a.shift]])),
    shrink: widths.map((screen, i) => {
      const survey = surveys[screen.key]
      const cover = coverOf(page, survey ?? null)
      return [boundary(screen, widths[i + 1]), survey ? cover.ownMoved - cover.ownRest : null]
    }),
    bar: hasBar(page) ? BAR_HEIGHT : 0,
  }
  // `</script` and `<!--` would end or change the element that holds it.
  return JSON.stringify(settings).replace(/</g, '\\u003c')
}
