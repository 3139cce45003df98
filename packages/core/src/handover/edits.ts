/**
 * What a handover changes in a page, as edits that speak of elements. The same edits become byte splices in the
 * file and patches in the live page, so that both show one result.
 */
import { BAR_HEIGHT, coverOf, hasBar } from '../arrival/index.ts'
import { hashOf, type ElementAt, type PageReading, type Settings } from '../page/index.ts'
import type { Item, Menu, SitePage } from '../site/index.ts'
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

export type PieceRole = 'style' | 'settings' | 'script' | 'menu'

export type PageEdit =
  | { kind: 'attribute'; at: ElementAt; name: string; value: string }
  /** The one run of visible text in the element. */
  | { kind: 'label'; at: ElementAt; text: string }
  /** The entries of a list: those the source has, in its order, and those it is to have. */
  | { kind: 'slots'; list: ElementAt; from: ElementAt[]; to: (ElementAt | NewSlot)[] }
  /** A piece of ours. `text` is what stands between its tags; a menu's is markup. */
  | { kind: 'piece'; role: PieceRole; place: 'head' | 'body-start' | { after: ElementAt }; text: string }

export function pageEdits(input: HandoverInput): PageEdit[] {
  const { page, reading } = input
  const edits: PageEdit[] = []
  const idOf = new Map(page.sections.map((s) => [s.key, s.id]))
  const known = new Map(reading.candidates.map((c) => [c.at, c]))
  for (const section of page.sections) {
    if (known.get(section.at)?.id !== section.id) edits.push({ kind: 'attribute', at: section.at, name: 'id', value: section.id })
  }
  for (const menu of page.menus) if (menu.at !== null) edits.push(...adoptedEdits(menu, reading, idOf))
  edits.push(...followRenames(page, reading, idOf))
  if (page.header) edits.push({ kind: 'attribute', at: page.header.at, name: 'data-wb-header', value: page.header.keep ?? '' })
  edits.push({ kind: 'piece', role: 'style', place: 'head', text: pageStyle(input) })
  edits.push({ kind: 'piece', role: 'settings', place: 'head', text: settingsText(input) })
  edits.push({ kind: 'piece', role: 'script', place: 'head', text: input.runtime })
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

/** Where the page's own ID was changed, every other link to it on the page goes along. */
function followRenames(page: SitePage, reading: PageReading, idOf: Map<string, string>): PageEdit[] {
  const inMenus = new Set(page.menus.flatMap((m) => m.items.map((i) => i.link)))
  const sections = new Map(page.sections.map((s) => [s.at, s]))
  const edits: PageEdit[] = []
  for (const link of reading.links) {
    if (link.target === null || inMenus.has(link.at)) continue
    const section = sections.get(link.target)
    const was = reading.candidates.find((c) => c.at === link.target)?.id
    if (!section || was === null || was === section.id) continue
    edits.push({ kind: 'attribute', at: link.at, name: 'href', value: link.href.replace(/#.*$/s, '') + hashOf(idOf.get(section.key)!) })
  }
  return edits
}

function settingsText({ page, screens, surveys }: HandoverInput): string {
  const widths = [...screens].sort((a, b) => a.width - b.width)
  const settings: Settings = {
    sections: page.sections.map((s) => s.id),
    toTop: page.sections.filter((s) => s.toTop).map((s) => s.id),
    breathing: page.travel.breathing,
    bellOffset: page.highlight.bellOffset,
    smooth: page.travel.smooth,
    keep: page.header?.keep != null,
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
