/**
 * Commands: every change of a site is one. `apply` is pure; it gives the new document and the command that
 * leads back. A change is data, so that it can be sent, stored, repeated and undone.
 */
import type { NamingRule } from '../naming/index.ts'
import type { ElementAt } from '../page/index.ts'
import {
  CommandError,
  pageOf,
  type HeaderChoice,
  type Item,
  type ItemTarget,
  type Menu,
  type Section,
  type Site,
  type SitePage,
} from './document.ts'

/** What the one press decides about a page. */
export type SetUp = Pick<SitePage, 'sections' | 'menus' | 'header' | 'bar' | 'travel' | 'highlight'>

export type Command =
  | { type: 'batch'; label: string; commands: Command[] }
  | { type: 'site/rename'; name: string }
  | { type: 'site/rule'; rule: NamingRule }
  | { type: 'page/add'; page: SitePage; index: number }
  | { type: 'page/drop'; page: string }
  | { type: 'page/set-up'; page: string; setUp: SetUp }
  /** Takes over a new version of the page's source. */
  | { type: 'page/revise'; page: string; revision: SetUp & Pick<SitePage, 'source' | 'title'> }
  | { type: 'section/title'; page: string; section: string; title: string }
  /** `former` are the former IDs that it has from then on. */
  | { type: 'section/id'; page: string; section: string; id: string; former: string[] }
  | { type: 'section/depth'; page: string; section: string; depth: number }
  /** Moves a point: before another element, or by another shift. */
  | { type: 'section/point'; page: string; section: string; at: ElementAt; shift: number }
  | { type: 'section/to-top'; page: string; section: string; toTop: boolean }
  | { type: 'section/add'; page: string; section: Section }
  | { type: 'section/drop'; page: string; section: string }
  | { type: 'menu/add'; page: string; menu: Menu; index: number }
  | { type: 'menu/drop'; page: string; menu: string }
  | { type: 'item/add'; page: string; menu: string; item: Item; index: number }
  | { type: 'item/drop'; page: string; menu: string; item: string }
  | { type: 'item/move'; page: string; menu: string; item: string; index: number }
  | { type: 'item/label'; page: string; menu: string; item: string; label: string }
  | { type: 'item/target'; page: string; menu: string; item: string; target: ItemTarget }
  | { type: 'header/choose'; page: string; header: HeaderChoice | null }
  | { type: 'travel/smooth'; page: string; smooth: boolean }
  | { type: 'travel/breathing'; page: string; breathing: number }
  | { type: 'highlight/bell'; page: string; bellOffset: number }

export interface Applied {
  site: Site
  inverse: Command
}

/** @throws CommandError when the command does not fit the document; the document is then unchanged */
export function apply(site: Site, command: Command): Applied {
  switch (command.type) {
    case 'batch': {
      const inverses: Command[] = []
      let now = site
      for (const c of command.commands) {
        const step = apply(now, c)
        now = step.site
        inverses.unshift(step.inverse)
      }
      return { site: now, inverse: { type: 'batch', label: command.label, commands: inverses } }
    }
    case 'site/rename':
      return { site: { ...site, name: command.name }, inverse: { type: 'site/rename', name: site.name } }
    case 'site/rule':
      return { site: { ...site, rule: command.rule }, inverse: { type: 'site/rule', rule: site.rule } }
    case 'page/add': {
      const { page, index } = command
      const same = site.pages.find((p) => p.key === page.key || p.file === page.file)
      if (same) throw new CommandError(`the site has the page “${same.file}” already`)
      return { site: { ...site, pages: insert(site.pages, index, page) }, inverse: { type: 'page/drop', page: page.key } }
    }
    case 'page/drop': {
      const page = pageOf(site, command.page)
      if (site.pages.length === 1) throw new CommandError('a site has at least one page; drop the site instead')
      return {
        site: { ...site, pages: site.pages.filter((p) => p !== page) },
        inverse: { type: 'page/add', page, index: site.pages.indexOf(page) },
      }
    }
    default:
      return applyToPage(site, command)
  }
}

type PageCommand = Exclude<Extract<Command, { page: string }>, { type: 'page/drop' }>

function applyToPage(site: Site, command: PageCommand): Applied {
  const page = pageOf(site, command.page)
  const { next, inverse } = change(page, command)
  return { site: { ...site, pages: site.pages.map((p) => (p === page ? next : p)) }, inverse }
}

function change(page: SitePage, c: PageCommand): { next: SitePage; inverse: Command } {
  const at = { page: page.key }
  switch (c.type) {
    case 'page/set-up': {
      const { sections, menus, header, bar, travel, highlight } = page
      return { next: { ...page, ...c.setUp }, inverse: { type: c.type, ...at, setUp: { sections, menus, header, bar, travel, highlight } } }
    }
    case 'page/revise': {
      const { source, title, sections, menus, header, bar, travel, highlight } = page
      return {
        next: { ...page, ...c.revision },
        inverse: { type: c.type, ...at, revision: { source, title, sections, menus, header, bar, travel, highlight } },
      }
    }
    case 'section/title': {
      const { title } = find(page.sections, c.section, 'section')
      return { next: withSection(page, c.section, { title: c.title }), inverse: { ...c, title } }
    }
    case 'section/id': {
      const { id, former } = find(page.sections, c.section, 'section')
      const other = page.sections.find((s) => s.id === c.id && s.key !== c.section)
      if (other)
        throw new CommandError(`the section “${other.title}” has the ID “${c.id}” already; choose another, or rename that one first`)
      // Unsound IDs are shown as findings; only one that cannot stand at all is refused, since undo must bring the page's own back.
      if (c.id === '') throw new CommandError('an ID needs at least one character')
      return { next: withSection(page, c.section, { id: c.id, former: c.former }), inverse: { ...c, id, former } }
    }
    case 'section/depth': {
      const { depth } = find(page.sections, c.section, 'section')
      return { next: withSection(page, c.section, { depth: c.depth }), inverse: { ...c, depth } }
    }
    case 'section/point': {
      const { at: before, point, title } = find(page.sections, c.section, 'section')
      if (!point) throw new CommandError(`“${title}” is an element of the page and stays where that is; only a point can be moved`)
      const moved = withSection(page, c.section, { at: c.at, point: { shift: c.shift } })
      return { next: { ...moved, sections: inPageOrder(moved.sections) }, inverse: { ...c, at: before, shift: point.shift } }
    }
    case 'section/to-top': {
      const { toTop } = find(page.sections, c.section, 'section')
      return { next: withSection(page, c.section, { toTop: c.toTop }), inverse: { ...c, toTop } }
    }
    case 'section/add': {
      if (page.sections.some((s) => s.key === c.section.key || (s.at === c.section.at && !s.point && !c.section.point)))
        throw new CommandError(`“${c.section.title}” is a section already`)
      if (page.sections.some((s) => s.id === c.section.id)) throw new CommandError(`the ID “${c.section.id}” is taken`)
      const sections = inPageOrder([...page.sections, c.section])
      return { next: { ...page, sections }, inverse: { type: 'section/drop', ...at, section: c.section.key } }
    }
    case 'section/drop': {
      const section = find(page.sections, c.section, 'section')
      const user = page.menus.flatMap((m) => m.items).find((i) => i.target.kind === 'section' && i.target.section === c.section)
      if (user) throw new CommandError(`the item “${user.label}” leads to this section; drop the item first`)
      return {
        next: { ...page, sections: page.sections.filter((s) => s !== section) },
        inverse: { type: 'section/add', ...at, section },
      }
    }
    case 'menu/add':
      if (page.menus.some((m) => m.key === c.menu.key)) throw new CommandError(`the menu “${c.menu.name}” is there already`)
      for (const i of c.menu.items) checkTarget(page, i.target)
      return { next: { ...page, menus: insert(page.menus, c.index, c.menu) }, inverse: { type: 'menu/drop', ...at, menu: c.menu.key } }
    case 'menu/drop': {
      const menu = find(page.menus, c.menu, 'menu')
      return {
        next: { ...page, menus: page.menus.filter((m) => m !== menu) },
        inverse: { type: 'menu/add', ...at, menu, index: page.menus.indexOf(menu) },
      }
    }
    case 'item/add': {
      const menu = find(page.menus, c.menu, 'menu')
      if (menu.items.some((i) => i.key === c.item.key)) throw new CommandError(`the item “${c.item.label}” is there already`)
      checkTarget(page, c.item.target)
      return {
        next: withItems(page, menu, insert(menu.items, c.index, c.item)),
        inverse: { type: 'item/drop', ...at, menu: menu.key, item: c.item.key },
      }
    }
    case 'item/drop': {
      const menu = find(page.menus, c.menu, 'menu')
      const item = find(menu.items, c.item, 'item')
      return {
        next: withItems(
          page,
          menu,
          menu.items.filter((i) => i !== item),
        ),
        inverse: { type: 'item/add', ...at, menu: menu.key, item, index: menu.items.indexOf(item) },
      }
    }
    case 'item/move': {
      const menu = find(page.menus, c.menu, 'menu')
      const item = find(menu.items, c.item, 'item')
      const index = menu.items.indexOf(item)
      return {
        next: withItems(
          page,
          menu,
          insert(
            menu.items.filter((i) => i !== item),
            c.index,
            item,
          ),
        ),
        inverse: { ...c, index },
      }
    }
    case 'item/label': {
      const menu = find(page.menus, c.menu, 'menu')
      const item = find(menu.items, c.item, 'item')
      return { next: withItems(page, menu, replace(menu.items, item, { label: c.label })), inverse: { ...c, label: item.label } }
    }
    case 'item/target': {
      const menu = find(page.menus, c.menu, 'menu')
      const item = find(menu.items, c.item, 'item')
      checkTarget(page, c.target)
      return { next: withItems(page, menu, replace(menu.items, item, { target: c.target })), inverse: { ...c, target: item.target } }
    }
    case 'header/choose':
      return { next: { ...page, header: c.header }, inverse: { ...c, header: page.header } }
    case 'travel/smooth':
      return { next: { ...page, travel: { ...page.travel, smooth: c.smooth } }, inverse: { ...c, smooth: page.travel.smooth } }
    case 'travel/breathing':
      return { next: { ...page, travel: { ...page.travel, breathing: c.breathing } }, inverse: { ...c, breathing: page.travel.breathing } }
    case 'highlight/bell':
      return { next: { ...page, highlight: { bellOffset: c.bellOffset } }, inverse: { ...c, bellOffset: page.highlight.bellOffset } }
  }
}

function find<T extends { key: string }>(list: readonly T[], key: string, what: string): T {
  const found = list.find((x) => x.key === key)
  if (!found) throw new CommandError(`the page has no ${what} “${key}”; it may have been dropped meanwhile`)
  return found
}

/** A point comes before the element that it stands before; of several there, the higher first, then by key, so that the order does not depend on how it came about. */
const inPageOrder = (sections: readonly Section[]): Section[] =>
  [...sections].sort(
    (a, b) =>
      a.at - b.at || Number(!a.point) - Number(!b.point) || (a.point?.shift ?? 0) - (b.point?.shift ?? 0) || (a.key < b.key ? -1 : 1),
  )

const insert = <T>(list: readonly T[], index: number, x: T): T[] => {
  const i = Math.max(0, Math.min(index, list.length))
  return [...list.slice(0, i), x, ...list.slice(i)]
}

const replace = <T>(list: readonly T[], old: T, patch: Partial<T>): T[] => list.map((x) => (x === old ? { ...x, ...patch } : x))

const withSection = (page: SitePage, key: string, patch: Partial<Section>): SitePage => ({
  ...page,
  sections: page.sections.map((s) => (s.key === key ? { ...s, ...patch } : s)),
})

const withItems = (page: SitePage, menu: Menu, items: Item[]): SitePage => ({
  ...page,
  menus: page.menus.map((m) => (m === menu ? { ...m, items } : m)),
})

function checkTarget(page: SitePage, target: ItemTarget): void {
  if (target.kind === 'section') find(page.sections, target.section, 'section')
}

/** What a command does, for undo, redo and the history. */
export function describe(command: Command): string {
  switch (command.type) {
    case 'batch':
      return command.label
    case 'site/rename':
      return 'Rename the site'
    case 'site/rule':
      return 'Change the naming rule'
    case 'page/add':
      return 'Add a page'
    case 'page/drop':
      return 'Drop a page'
    case 'page/set-up':
      return 'Set everything up'
    case 'page/revise':
      return 'Take over a new version'
    case 'section/title':
      return 'Change a title'
    case 'section/id':
      return 'Change an ID'
    case 'section/depth':
      return 'Nest or lift a section'
    case 'section/point':
      return 'Move a point'
    case 'section/to-top':
      return 'Change where a section arrives'
    case 'section/add':
      return 'Add a section'
    case 'section/drop':
      return 'Drop a section'
    case 'menu/add':
      return 'Add a menu'
    case 'menu/drop':
      return 'Drop a menu'
    case 'item/add':
      return 'Add an item'
    case 'item/drop':
      return 'Drop an item'
    case 'item/move':
      return 'Move an item'
    case 'item/label':
      return 'Change a label'
    case 'item/target':
      return 'Change a target'
    case 'header/choose':
      return 'Change the header'
    case 'travel/smooth':
      return 'Change the motion'
    case 'travel/breathing':
      return 'Change the breathing space'
    case 'highlight/bell':
      return 'Move the bell line'
  }
}
