/**
 * Upgrades stored documents and commands from earlier versions, one version at a time. Only what changes is typed here.
 *
 * Version 1 had no points, former IDs or depths, and a shorter naming rule. Version 2 kept the bar's place with the page, and a menu
 * stood in one element, or in none if Way Bell made it. Version 3 had other names for some properties and commands.
 */
import { defaultRule } from '../naming/index.ts'
import { inPageOrder, sectionOf, SITE_VERSION, type Item, type Menu, type Section, type Site } from './document/index.ts'

interface Old {
  [key: string]: unknown
}
interface OldCommand extends Old {
  type: string
}

const each = (list: unknown, change: (old: Old) => Old): Old[] => (list as Old[]).map(change)

/** A document of version 1, as version 2 has it. */
export const secondSite = (old: Old): Old => ({
  ...old,
  version: 2,
  rule: { ...defaultRule, ...(old.rule as Old) },
  pages: each(old.pages, secondSections),
})

const secondSection = (old: Old): Old => ({ point: null, own: null, former: [], depth: 0, ...old })
const secondSections = (holder: Old): Old => ({ ...holder, sections: each(holder.sections, secondSection) })

/** A command of version 1, as version 2 has it. */
export function secondCommand(stored: unknown): unknown {
  const old = stored as OldCommand
  if (old.type === 'batch') return { ...old, commands: (old.commands as unknown[]).map(secondCommand) }
  if (old.type === 'page/set-up') return { ...old, setUp: secondSections(old.setUp as Old) }
  if (old.type === 'section/add') return { ...old, section: secondSection(old.section as Old) }
  if (old.type === 'section/id') return { former: [], ...old }
  return old
}

/** A document of version 2, as version 3 has it. */
export const thirdSite = (old: Old): Old => ({ ...old, version: 3, pages: each(old.pages, thirdPage) })

function thirdItem({ link, ...item }: Old): Old {
  return { ...item, links: link === null || link === undefined ? [] : [link] }
}

function thirdMenu({ at, items, ...menu }: Old, bar: unknown): Old {
  const form = at === null ? { kind: 'bar', place: bar } : { kind: 'found', elements: [at] }
  return { ...menu, form, items: each(items, thirdItem) }
}

/** Repairs what version 3 refuses: duplicate IDs or keys, items of missing sections, a second made menu. */
function thirdPage({ bar, ...page }: Old): Old {
  const keys = new Set<string>()
  const ids = new Set<string>()
  const elements = new Set<number>()
  const sections = (page.sections as Section[]).flatMap((section): Section[] => {
    if (keys.has(section.key) || (!section.point && elements.has(section.at))) return []
    keys.add(section.key)
    if (!section.point) elements.add(section.at)
    let id = section.id || 'section'
    for (let n = 2; ids.has(id); n++) id = `${section.id}-${n}`
    ids.add(id)
    return [{ ...section, id }]
  })
  let isMade = false
  const menus = each(page.menus, (menu) => thirdMenu(menu, bar)).flatMap((old): Menu[] => {
    const menu = old as unknown as Menu
    if (menu.form.kind !== 'found') {
      if (isMade) return []
      isMade = true
    }
    const items = menu.items.map((item): Item => {
      const section = sectionOf(item.target)
      return section === null || keys.has(section) ? item : { ...item, target: { kind: 'as-is' } }
    })
    return [{ ...menu, items }]
  })
  return { ...page, sections: inPageOrder(sections), menus }
}

/** Upgrades commands of version 2 in their order. The bar's place, which version 2 kept with the page, is followed through the log. */
export class ThirdLog {
  private bars = new Map<string, unknown>()

  /** @returns the command and its inverse */
  change(command: unknown, inverse: unknown): { command: unknown; inverse: unknown } {
    const done = this.next(command as OldCommand)
    const bars = new Map(this.bars)
    const back = this.next(inverse as OldCommand)
    // The inverse was not done.
    this.bars = bars
    return { command: done, inverse: back }
  }

  private next(old: OldCommand): OldCommand {
    const page = old.page as string
    switch (old.type) {
      case 'batch':
        return { ...old, commands: (old.commands as OldCommand[]).map((c) => this.next(c)) }
      case 'page/add':
        this.bars.set((old.page as Old).key as string, (old.page as Old).bar)
        return { ...old, page: thirdPage(old.page as Old) }
      case 'page/set-up':
        this.bars.set(page, (old.setUp as Old).bar)
        return { ...old, setUp: thirdPage(old.setUp as Old) }
      case 'page/revise':
        this.bars.set(page, (old.revision as Old).bar)
        return { ...old, revision: thirdPage(old.revision as Old) }
      case 'menu/add':
        return { ...old, menu: thirdMenu(old.menu as Old, this.bars.get(page) ?? 'top') }
      case 'item/add':
        return { ...old, item: thirdItem(old.item as Old) }
      default:
        return old
    }
  }
}

/** Properties that version 4 renamed; “own” meant something else in each object, so it goes by a neighbour. */
const renamed: Readonly<Record<string, string>> = { inStep: 'syncedWith', takenToBe: 'assumed', room: 'endSpace', moves: 'onScroll' }
const ownBeside = { fits: 'base', former: 'sourceId', breathing: 'pageOffsets', bellOffset: 'pageMark' }
const renamedCommands: Readonly<Record<string, string>> = {
  'menu/in-step': 'menu/sync',
  'travel/room': 'travel/end-space',
  'highlight/own': 'highlight/page-mark',
}

/** A document or command of version 3, or a part of one, as version 4 has it. */
export function fourth<T>(old: T): T {
  if (Array.isArray(old)) return old.map(fourth) as T
  if (old === null || typeof old !== 'object') return old
  const beside = Object.entries(ownBeside).find(([name]) => name in old)?.[1] ?? 'pageMark'
  const isSite = 'format' in old && 'version' in old
  const entries = Object.entries(old).map(([name, value]): [string, unknown] => {
    if (name === 'type' && typeof value === 'string') return [name, renamedCommands[value] ?? value]
    if (name === 'version' && isSite) return [name, 4]
    return [name === 'own' ? beside : (renamed[name] ?? name), fourth<unknown>(value)]
  })
  return Object.fromEntries(entries) as T
}

/** Upgrades a stored site document. @throws Error for a version newer than this program */
export function upgradeSite(stored: unknown): Site {
  let old = stored as Old & { version: number }
  if (old.version > SITE_VERSION)
    throw new Error(`the site was made by a newer Way Bell (version ${old.version} of its document); start that one`)
  if (old.version === 1) old = secondSite(old) as typeof old
  if (old.version === 2) old = thirdSite(old) as typeof old
  if (old.version === 3) old = fourth(old)
  return old as unknown as Site
}
