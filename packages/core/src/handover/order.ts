/**
 * Writes a menu's order into its element. Entries move within their lists, with everything nested in them. If that isn't enough, links
 * are swapped instead.
 */
import type { ElementAt, MenuEntry, MenuList } from '../page/index.ts'
import type { NewEntry, PageEdit } from './edit.ts'

/** A place in the order: a link of the page, or a new one. */
export type Ordered = { link: ElementAt } | Pick<NewEntry, 'label' | 'attributes'>

type ListEntry = Extract<MenuEntry, MenuList>
const isList = (entry: MenuEntry): entry is ListEntry => 'entries' in entry
/** New entries are copies of entries with one link, not of buttons or openers. */
const isModel = (entry: MenuEntry | null | undefined): entry is Exclude<MenuEntry, MenuList> => !!entry && !isList(entry) && entry.isLink
const leavesOf = (entry: MenuEntry): ElementAt[] => (isList(entry) ? entry.entries.flatMap(leavesOf) : [entry.link])

/** Edits for this order; other links are removed. */
export function orderEdits(tree: MenuList, wanted: readonly Ordered[]): PageEdit[] {
  // Openers in an entry move with it.
  const leaves = new Set(leavesOf({ at: tree.list, ...tree }))
  const order = wanted.filter((o) => !('link' in o) || leaves.has(o.link))
  const kept = order.flatMap((o) => ('link' in o ? o.link : []))
  const places = new Map(kept.map((link, i) => [link, i]))
  const root: ListEntry = { at: tree.list, ...tree }
  const standing = leavesOf(root).filter((link) => places.has(link))
  const exchange = !canMove(root, places)
  /** The source's link at the i-th place. */
  const leafAt = (i: number) => (exchange ? standing[i] : kept[i])
  const rank = exchange ? new Map(standing.map((link, i) => [link, i])) : places
  const added = new Map<ListEntry, { entry: MenuEntry | null; isAfter: boolean; slot: NewEntry }[]>()
  let before = -1
  for (const o of order) {
    if ('link' in o) before++
    else {
      const place = placeOfNew(root, rank, leafAt(before), leafAt(before + 1))
      if (!place) continue
      const { list, entry, isAfter, like } = place
      added.set(list, [...(added.get(list) ?? []), { entry, isAfter, slot: { ...like, label: o.label, attributes: o.attributes } }])
    }
  }
  const edits = listEdits(root, rank, added)
  return exchange ? [...edits, { kind: 'exchange', from: standing, to: kept }] : edits
}

/** True when moving entries is enough: each entry's links are together in the order. */
function canMove(list: ListEntry, places: ReadonlyMap<ElementAt, number>): boolean {
  const spans = list.entries.flatMap((entry) => {
    const own = leavesOf(entry).flatMap((link) => places.get(link) ?? [])
    return own.length ? [{ entry, first: Math.min(...own), last: Math.max(...own) }] : []
  })
  const sorted = [...spans].sort((a, b) => a.first - b.first)
  if (!list.isEven && sorted.some((s, i) => s !== spans[i])) return false
  if (sorted.some((s, i) => i > 0 && sorted[i - 1]!.last > s.first)) return false
  return list.entries.every((entry) => !isList(entry) || canMove(entry, places))
}

function listEdits(
  list: ListEntry,
  rank: ReadonlyMap<ElementAt, number>,
  added: ReadonlyMap<ListEntry, { entry: MenuEntry | null; isAfter: boolean; slot: NewEntry }[]>,
): PageEdit[] {
  const from = list.entries.map((e) => e.at)
  // Entries without links of the menu stay after the one before them.
  let last = -1
  const ranked = list.entries.flatMap((entry) => {
    const own = leavesOf(entry).flatMap((link) => rank.get(link) ?? [])
    if (!own.length && !isList(entry)) return []
    last = own.length ? Math.min(...own) : last
    return [{ entry, first: last }]
  })
  ranked.sort((a, b) => a.first - b.first)
  const news = added.get(list) ?? []
  const slots = (entry: MenuEntry | null, isAfter: boolean) =>
    news.filter((n) => n.entry === entry && n.isAfter === isAfter).map((n) => n.slot)
  const to = [...slots(null, false), ...ranked.flatMap(({ entry }) => [...slots(entry, false), entry.at, ...slots(entry, true)])]
  const isSame = to.length === from.length && to.every((slot, i) => slot === from[i])
  const inner = list.entries.flatMap((entry) => (isList(entry) ? listEdits(entry, rank, added) : []))
  return [...(isSame ? [] : [{ kind: 'entries', list: list.list, from, to } as const]), ...inner]
}

interface NewPlace {
  list: ListEntry
  /** The neighbour; null to come first. */
  entry: MenuEntry | null
  isAfter: boolean
  like: Pick<NewEntry, 'like' | 'link'>
}

/** Right after the previous link or before the next one, in a list of similar entries. */
function placeOfNew(
  root: ListEntry,
  rank: ReadonlyMap<ElementAt, number>,
  before: ElementAt | undefined,
  next: ElementAt | undefined,
): NewPlace | null {
  const candidates = [
    ...(before === undefined ? [] : wayTo(root, before).map((step) => ({ ...step, isAfter: true }))),
    ...(next === undefined ? [] : wayTo(root, next).map((step) => ({ ...step, isAfter: false }))),
  ]
  const isEdge = ({ entry, isAfter }: (typeof candidates)[number]) => {
    const own = leavesOf(entry).filter((link) => rank.has(link))
    const ranks = own.map((link) => rank.get(link)!)
    return rank.get(isAfter ? before! : next!) === (isAfter ? Math.max(...ranks) : Math.min(...ranks))
  }
  const fitting = candidates.filter((c) => c.list.isEven && isEdge(c))
  const chosen = fitting.find((c) => !isList(c.entry)) ?? fitting[0] ?? candidates[0]
  if (!chosen) return placeInEmpty(root)
  const near = [chosen.entry, ...chosen.list.entries].find(isModel) ?? anyModel(root)
  return near ? { ...chosen, like: { like: near.at, link: near.link } } : null
}

/** In an empty menu: the first list whose entries have one link each, as a copy of such an entry. */
function placeInEmpty(list: ListEntry): NewPlace | null {
  const like = list.entries.find(isModel)
  if (like) return { list, entry: null, isAfter: false, like: { like: like.at, link: like.link } }
  for (const inner of list.entries) {
    const place = isList(inner) ? placeInEmpty(inner) : null
    if (place) return place
  }
  return null
}

/** The lists around a link with their entries, innermost first. */
function wayTo(list: ListEntry, link: ElementAt): { list: ListEntry; entry: MenuEntry }[] {
  const entry = list.entries.find((e) => leavesOf(e).includes(link))
  if (!entry) return []
  return [...(isList(entry) ? wayTo(entry, link) : []), { list, entry }]
}

function anyModel(list: ListEntry): Exclude<MenuEntry, MenuList> | null {
  for (const entry of list.entries) {
    const model = isList(entry) ? anyModel(entry) : isModel(entry) ? entry : null
    if (model) return model
  }
  return null
}
