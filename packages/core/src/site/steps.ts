/** Edits of several commands, each one step of undo. */
import type { PageReading } from '../page/index.ts'
import { apply, describe, type Batch, type Command } from './commands/index.ts'
import {
  elsewhereOf,
  isMade,
  pageOf,
  pageOrder,
  sectionOf,
  withLinks,
  freshKey,
  type SyncSource,
  type Item,
  type ItemTarget,
  type LinkChoice,
  type MadeMenu,
  type Menu,
  type Section,
  type Shown,
  type Site,
  type SitePage,
} from './document/index.ts'

/** IDs that visitors may have links to because they were handed over. The page's original IDs needn't be among them. */
export type KnownOutside = ReadonlySet<string>

/** IDs of earlier handovers, and of the one the page came from. */
export const knownOutside = ({ written: { settings } }: PageReading, handedOver: readonly { ids: readonly string[] }[]): KnownOutside =>
  new Set([...(settings?.sections ?? []), ...handedOver.flatMap((h) => h.ids)])

/** Renames a section; the earlier ID becomes a former ID if visitors may have links to it. */
export function renameSection(page: string, section: Section, id: string, known: KnownOutside): Extract<Command, { type: 'section/id' }> {
  const rest = section.former.filter((f) => f !== id && f !== section.id)
  const isKnown = section.sourceId === section.id || known.has(section.id)
  return { type: 'section/id', page, section: section.key, id, former: isKnown ? [...rest, section.id] : rest }
}

/** Renames several sections in one step. They may swap IDs: an ID in use is nobody's former one. */
export function renameSections(
  page: string,
  changes: readonly { section: Section; id: string }[],
  label: string,
  known: KnownOutside,
): Command {
  const next = new Set(changes.map(({ id }) => id))
  const commands = changes.map(({ section, id }) => {
    const command = renameSection(page, section, id, known)
    return { ...command, former: command.former.filter((f) => !next.has(f)) }
  })
  return { type: 'batch', label, commands }
}

/**
 * What happens to links to a dropped section: another section, the page's top, out of the menu, or made links go and the page's links
 * keep their address.
 */
export type Otherwise = { section: string } | 'top' | 'out' | 'as-is'

/** Labels of links to these sections, on all pages; links outside menus have none. */
export const leadersTo = (site: Site, page: SitePage, sections: readonly Section[]): Pick<Use, 'from' | 'label' | 'isOwn'>[] =>
  sections.flatMap((s) => usersOf(site, page, s.key))

/** Drops sections, and handles links to them. */
export function dropSections(site: Site, page: SitePage, sections: readonly Section[], otherwise: Otherwise = 'as-is'): Batch {
  const settle = ({ from, lead, leave, drop }: Use): Command => {
    if (otherwise === 'as-is') return leave({ kind: 'as-is' })
    if (otherwise === 'out') return drop
    const section = otherwise === 'top' ? null : otherwise.section
    if (from !== page) return lead({ kind: 'page', page: page.key, section })
    return lead(section === null ? { kind: 'top' } : { kind: 'section', section })
  }
  const commands = [
    ...withoutEnds(page, new Set(sections.map((s) => s.key))),
    ...sections.flatMap((section) => [
      ...usersOf(site, page, section.key).map(settle),
      { type: 'section/drop', page: page.key, section: section.key } as const,
    ]),
  ]
  return { type: 'batch', label: sections.length === 1 ? 'Remove a section' : `Remove ${sections.length} sections`, commands }
}

/** Menus that start or end at a dropped section use the next one inwards, or else the page's start or end. */
export function endsWithout({ from, until, ...rest }: Shown, sections: readonly Section[], dropped: ReadonlySet<string>): Shown {
  const inwards = (key: string | undefined, order: readonly Section[]) =>
    order
      .slice(
        Math.max(
          0,
          order.findIndex((s) => s.key === key),
        ),
      )
      .find((s) => !dropped.has(s.key))?.key
  const first = from === undefined ? from : inwards(from, sections)
  const last = until === undefined ? until : inwards(until, [...sections].reverse())
  return { ...rest, ...(first !== undefined && { from: first }), ...(last !== undefined && { until: last }) }
}

const withoutEnds = (page: SitePage, dropped: ReadonlySet<string>): Command[] =>
  page.menus.filter(isMade).flatMap(({ key, shown }): Command[] => {
    if (!shown || ![shown.from, shown.until].some((s) => s !== undefined && dropped.has(s))) return []
    return [{ type: 'menu/shown', page: page.key, menu: key, shown: endsWithout(shown, page.sections, dropped) }]
  })

/** An item, or a link with a chosen target. */
interface Use {
  from: SitePage
  /** Null for a link outside menus. */
  label: string | null
  /** The page's own. */
  isOwn: boolean
  target: ItemTarget
  /** Gives it another target. */
  lead: (to: ItemTarget) => Command
  /** Removes the target: a made link goes, the page's own gets `otherwise`. */
  leave: (otherwise: ItemTarget) => Command
  /** Removes it from its menu; outside menus, the page's link stays. */
  drop: Command
}

const usesOf = (site: Site): Use[] =>
  site.pages.flatMap((from): Use[] => [
    // Synced menus follow their source.
    ...from.menus
      .filter((menu) => !menu.syncedWith)
      .flatMap((menu) =>
        menu.items.map((item): Use => {
          const at = { page: from.key, menu: menu.key, item: item.key }
          const lead = (to: ItemTarget): Command => ({ type: 'item/target', ...at, target: to })
          const drop: Command = { type: 'item/drop', ...at }
          const isOwn = item.links.length > 0
          return { from, label: item.label, isOwn, target: item.target, lead, leave: isOwn ? lead : () => drop, drop }
        }),
      ),
    ...(from.links ?? []).map(({ at, target, made }): Use => {
      const lead = (to: ItemTarget): Command => ({ type: 'link/target', page: from.key, at, target: to, ...(made && { made }) })
      const drop = lead({ kind: 'as-is' })
      return { from, label: made?.label ?? null, isOwn: !made, target, lead, leave: made ? () => drop : lead, drop }
    }),
  ])

/** Links from all pages to sections of `page`. */
const usersOf = (site: Site, page: SitePage, section: string): Use[] =>
  usesOf(site).filter(({ from, target }) => {
    const place = elsewhereOf(target)
    return from === page ? sectionOf(target) === section : place?.page === page.key && place.section === section
  })

/** Drops a page and other pages' items that lead to it; their own links keep their address. */
export function dropPage(site: Site, page: SitePage): Command {
  const drop: Command = { type: 'page/drop', page: page.key }
  const released = releases(site, (source) => source.page === page.key, page)
  const users = usesOf(released.length ? apply(site, { type: 'batch', label: '', commands: released }).site : site).filter(
    ({ from, target }) => from.key !== page.key && elsewhereOf(target)?.page === page.key,
  )
  const commands = [...released, ...users.map(({ leave }) => leave({ kind: 'as-is' }))]
  return commands.length ? { type: 'batch', label: describe(drop), commands: [...commands, drop] } : drop
}

/** Stops syncing menus whose source goes; they keep their items. @param but the page that goes itself */
const releases = (site: Site, isGone: (source: SyncSource) => boolean, but: SitePage | null = null): Command[] =>
  site.pages
    .filter((p) => p !== but)
    .flatMap((p) =>
      p.menus.flatMap(({ key, syncedWith }): Command[] =>
        syncedWith && isGone(syncedWith) ? [{ type: 'menu/sync', page: p.key, menu: key, syncedWith: undefined }] : [],
      ),
    )

/** Removes a menu; menus synced with it keep their items. */
export function dropMenu(site: Site, page: SitePage, menu: Menu): Command {
  const drop: Command = { type: 'menu/drop', page: page.key, menu: menu.key }
  const released = releases(site, (source) => source.page === page.key && source.menu === menu.key)
  return released.length ? { type: 'batch', label: describe(drop), commands: [...released, drop] } : drop
}

/** Puts a menu on other pages, synced with this one, in its present form and look. */
export function takeToPages(page: SitePage, menu: MadeMenu, pages: readonly SitePage[]): Command {
  const commands = pages.map((to): Command => {
    const key = freshKey(
      'm',
      to.menus.map((m) => m.key),
    )
    // Syncing with a synced menu means syncing with its source.
    const source: SyncSource = menu.syncedWith ?? { page: page.key, menu: menu.key, labels: [] }
    const { name, form, shown, look, motion } = menu
    // Sections are each page's own.
    const rest = { ...shown }
    delete rest.from
    delete rest.until
    const made: Menu = {
      key,
      name,
      form,
      ...(Object.keys(rest).length && { shown: rest }),
      ...(look && { look }),
      ...(motion && { motion }),
      syncedWith: source,
      items: [],
    }
    return { type: 'menu/add', page: to.key, index: to.menus.length, menu: made }
  })
  return { type: 'batch', label: 'Take a menu to other pages', commands }
}

/** After a page is set up again or revised: other pages' links follow its sections by ID, or lead to the whole page. */
export function withOtherPages(site: Site, command: Extract<Command, { type: 'page/set-up' | 'page/revise' }>): Command {
  const page = pageOf(site, command.page)
  const { sections } = command.type === 'page/set-up' ? command.setUp : command.revision
  const next = new Map(sections.flatMap((s) => [...s.former, s.id].map((id) => [id, s.key] as const)))
  // A revised section keeps its identity; a set-up makes new ones.
  const kept = new Set(command.type === 'page/revise' ? sections.map((s) => s.key) : [])
  const commands = usesOf(site).flatMap(({ from, target, lead }): Command[] => {
    const place = elsewhereOf(target)
    if (place?.page !== page.key || place.section === null || from === page || kept.has(place.section)) return []
    const section = next.get(page.sections.find((s) => s.key === place.section)!.id) ?? null
    return section === place.section ? [] : [lead({ kind: 'page', page: page.key, section })]
  })
  // A set-up makes new menus, whatever their keys.
  const menus = command.type === 'page/revise' ? command.revision.menus.map((m) => m.key) : []
  commands.push(...releases(site, (source) => source.page === page.key && !menus.includes(source.menu), page))
  const { motions } = page
  const done =
    command.type === 'page/set-up'
      ? { ...command, setUp: { ...withLinks(command.setUp, linksFor(page, next)), ...(motions && { motions }) } }
      : command
  return commands.length ? { type: 'batch', label: describe(command), commands: [...commands, done] } : done
}

/** Links outside menus after a new set-up: they follow sections by ID, or keep their address. */
const linksFor = (page: SitePage, next: ReadonlyMap<string, string>): LinkChoice[] =>
  (page.links ?? []).flatMap((link): LinkChoice[] => {
    const was = page.sections.find((s) => s.key === sectionOf(link.target))
    if (!was) return [link]
    const section = next.get(was.id)
    return section === undefined ? [] : [{ ...link, target: { kind: 'section', section } }]
  })

/** Extends a section over the next one, which goes; the page's links to it lead here. */
export function mergeWithNext(site: Site, page: SitePage, section: Section): Command | null {
  const next = page.sections[page.sections.indexOf(section) + 1]
  if (!next) return null
  const commands = usersOf(site, page, next.key).map(({ from, leave }) =>
    leave(from === page ? { kind: 'section', section: section.key } : { kind: 'page', page: page.key, section: section.key }),
  )
  return {
    type: 'batch',
    label: 'Merge two sections',
    commands: [...withoutEnds(page, new Set([next.key])), ...commands, { type: 'section/drop', page: page.key, section: next.key }],
  }
}

/** Nests a section one level deeper (1) or higher (-1) with its subsections; null if impossible. */
export function nestSection(page: SitePage, section: Section, by: 1 | -1): Command | null {
  const depths = depthsOf(page.sections)
  const from = page.sections.indexOf(section)
  const depth = depths[from]!
  if (by === 1 ? from === 0 || depth > depths[from - 1]! : depth === 0) return null
  const commands: Command[] = []
  for (let i = from; i < depths.length && (i === from || depths[i]! > depth); i++)
    commands.push({ type: 'section/depth', page: page.key, section: page.sections[i]!.key, depth: depths[i]! + by })
  return { type: 'batch', label: by === 1 ? 'Nest a section' : 'Lift a section', commands }
}

/** Depths for display: the first is 0, each at most one deeper than the one before. */
export function depthsOf(sections: readonly Section[]): number[] {
  let before = -1
  return sections.map((s) => (before = Math.min(s.depth, before + 1)))
}

/** Adds a section, and an item in every growing made menu, in page order. */
export function addSection(page: SitePage, section: Section, itemIn: (menu: Menu) => Item): Command {
  const byKey = new Map(page.sections.map((s) => [s.key, s]))
  const growing = page.menus.filter((m) => isMade(m) && !m.syncedWith && m.grows !== false)
  const items = growing.map((menu): Command => {
    const after = menu.items.findLastIndex((i) => {
      const before = byKey.get(sectionOf(i.target) ?? '')
      return before && pageOrder(before, section) < 0
    })
    return { type: 'item/add', page: page.key, menu: menu.key, index: after + 1, item: itemIn(menu) }
  })
  const commands: Command[] = [{ type: 'section/add', page: page.key, section }, ...items]
  return { type: 'batch', label: section.point ? 'Add a point' : 'Add a section', commands }
}

/** An item with its nested items. */
function blockOf({ items }: Menu, item: Item): Item[] {
  const at = items.indexOf(item)
  const end = items.findIndex((i, n) => n > at && (i.depth ?? 0) <= (item.depth ?? 0))
  return items.slice(at, end < 0 ? items.length : end)
}

/** Moves an item with its nested items before another, or after that one's nested items. */
export function moveItem(page: SitePage, menu: Menu, item: Item, to: Item): Command | null {
  const block = isMade(menu) ? blockOf(menu, item) : [item]
  if (block.includes(to)) return null
  const rest = menu.items.filter((i) => !block.includes(i))
  const isDown = menu.items.indexOf(to) > menu.items.indexOf(item)
  const at = isDown ? rest.indexOf(to) + (isMade(menu) ? blockOf({ ...menu, items: rest }, to).length : 1) : rest.indexOf(to)
  const move = (moved: Item, index: number): Command => ({ type: 'item/move', page: page.key, menu: menu.key, item: moved.key, index })
  // Downwards, the last goes first, so that the order stays.
  const commands = isDown ? block.map((b, n) => move(b, at + n)).reverse() : block.map((b, n) => move(b, at + n))
  return commands.length === 1 ? commands[0]! : { type: 'batch', label: 'Move items', commands }
}

/** Nests an item one level deeper (1) or higher (-1) with its nested items; null if impossible. */
export function nestItem(page: SitePage, menu: Menu, item: Item, by: 1 | -1): Command | null {
  const at = menu.items.indexOf(item)
  const depth = item.depth ?? 0
  if (by === 1 ? at === 0 || depth > (menu.items[at - 1]!.depth ?? 0) : depth === 0) return null
  const commands = blockOf(menu, item).map((one): Command => ({
    type: 'item/depth',
    page: page.key,
    menu: menu.key,
    item: one.key,
    depth: (one.depth ?? 0) + by || undefined,
  }))
  return { type: 'batch', label: by === 1 ? 'Nest an item' : 'Lift an item', commands }
}
