/** Invariants of every site document. Only changed pages are checked. */
import { isKeepable } from '../naming/index.ts'
import { elsewhereOf, faultOfTarget, linkKey, pageOrder, sectionOf, type ItemTarget, type Site, type SitePage } from './document/index.ts'
import { isFound, isMade, type MadeMenu } from './document/index.ts'
import { CommandError } from './errors.ts'

/** @throws CommandError naming what the command would break */
export function checkInvariants(before: Site, after: Site): void {
  if (before.pages === after.pages) return
  unique(
    after.pages,
    (p) => p.key,
    (p) => `the site has a page with the key “${p.key}” already`,
  )
  unique(
    after.pages,
    (p) => p.file,
    (p) => `the site has the page “${p.file}” already`,
  )
  const had = new Map(before.pages.map((p) => [p.key, new Set(p.sections.map((s) => s.key))]))
  for (const page of after.pages) if (!before.pages.includes(page)) checkPage(page, had.get(page.key) ?? new Set())
  // A page may change targets of others.
  for (const page of after.pages) checkBetween(page, after.pages)
}

/** @param had keys of its earlier sections */
function checkPage(page: SitePage, had: ReadonlySet<string>): void {
  const { sections, menus } = page
  unique(
    sections,
    (s) => s.key,
    (s) => `“${s.title}” is a section already`,
  )
  unique(
    sections.filter((s) => !s.point),
    (s) => s.at,
    (s, first) => `“${s.title}” is a section already, “${first.title}”`,
  )
  unique(
    sections,
    (s) => s.id,
    (s, first) =>
      `the sections “${first.title}” and “${s.title}” would both have the ID “${s.id}”; choose another, or rename one of the two first`,
  )
  // Bad IDs become findings; only an empty one is refused, because undo must restore the page's own.
  if (sections.some((s) => s.id === '')) throw new CommandError('an ID needs at least one character')
  for (const { id, sourceId, title } of sections)
    if (id !== sourceId && !isKeepable(id))
      throw new CommandError(`the ID for the section “${title}” contains a character that files don’t keep; type it again`)
  for (let i = 1; i < sections.length; i++)
    if (pageOrder(sections[i - 1]!, sections[i]!) > 0)
      throw new CommandError(`the section “${sections[i]!.title}” is not in the page’s order`)
  unique(
    menus,
    (m) => m.key,
    (m) => `the menu “${m.name}” is there already`,
  )
  const made = menus.filter(isMade)
  if (made.filter((m) => m.form.kind === 'bar').length > 1)
    throw new CommandError('the page already has a made bar; change the form of one, or remove it')
  unique(
    menus.flatMap((m) => (isFound(m) ? m.form.elements.map((at) => ({ at, m })) : [])),
    ({ at }) => at,
    ({ m }) => `the menu “${m.name}” stands in an element that a menu stands in already`,
  )
  const keys = new Set(sections.map((s) => s.key))
  for (const menu of made) checkShown(menu, keys)
  for (const { name, syncedWith } of menus.filter(isFound))
    if (syncedWith) throw new CommandError(`“${name}” is one of the page’s own menus, which keeps its own items`)
  for (const menu of menus) {
    unique(
      menu.items,
      (i) => i.key,
      (i) => `the item “${i.label}” is there already`,
    )
    for (const { label, target } of menu.items) {
      checkTarget(target, `the item “${label}”`, keys, had)
      if (target.kind === 'group' && isFound(menu))
        throw new CommandError(`the item “${label}” is in one of the page’s own menus; only made menus have groups`)
    }
  }
  for (const { target } of page.links ?? []) checkTarget(target, 'a link on the page', keys, had)
  unique(
    page.pictures ?? [],
    (p) => p.at,
    () => 'the picture already has a size',
  )
  unique(page.links ?? [], linkKey, () => 'the link already has a target')
  unique(
    menus.flatMap((m) => m.items.flatMap((item) => item.links.map((at) => ({ at, item })))),
    ({ at }) => at,
    ({ item }) => `the link of the item “${item.label}” is that of another item already`,
  )
}

function checkShown({ name, shown }: MadeMenu, sections: ReadonlySet<string>): void {
  for (const key of [shown?.from, shown?.until])
    if (key !== undefined && !sections.has(key))
      throw new CommandError(`the page has no section “${key}”, where the menu “${name}” begins or ends; choose another first`)
}

function checkTarget(target: ItemTarget, named: string, sections: ReadonlySet<string>, had: ReadonlySet<string>): void {
  const fault = faultOfTarget(target)
  if (fault) throw new CommandError(`${named} cannot lead there: ${fault.why}`)
  const section = sectionOf(target)
  if (section === null || sections.has(section)) return
  if (had.has(section)) throw new CommandError(`${named} leads to this section; give that another target first`)
  throw new CommandError(`the page has no section “${section}”, which ${named} leads to; it may have been removed`)
}

/** Targets on other pages, and synced menus. */
function checkBetween(page: SitePage, pages: readonly SitePage[]): void {
  for (const { name, syncedWith } of page.menus) {
    if (!syncedWith) continue
    const followed = pages.find((p) => p.key === syncedWith.page)?.menus.find((m) => m.key === syncedWith.menu)
    if (!followed) throw new CommandError(`“${name}” is synced with a menu that is gone; stop syncing it first`)
    if (followed.syncedWith) throw new CommandError(`“${followed.name}” is itself synced with another menu; choose that one`)
  }
  const leads = [
    ...page.menus.flatMap((m) => m.items.map(({ label, target }) => ({ target, named: `the item “${label}”` }))),
    ...(page.links ?? []).map(({ target }) => ({ target, named: 'a link' })),
  ]
  for (const { target, named } of leads) {
    const place = elsewhereOf(target)
    if (!place) continue
    const there = pages.find((p) => p.key === place.page)
    const says = `which ${named} of “${page.file}” leads to`
    if (there === page) throw new CommandError(`${named} leads to the page that it stands on; choose a section of it, or its top`)
    if (!there) throw new CommandError(`the site has no page “${place.page}”, ${says}; give that another target first`)
    if (place.section !== null && !there.sections.some((s) => s.key === place.section))
      throw new CommandError(`“${there.file}” has no section “${place.section}”, ${says}; give that another target first`)
  }
}

function unique<T>(list: readonly T[], keyOf: (one: T) => unknown, say: (one: T, first: T) => string): void {
  const seen = new Map<unknown, T>()
  for (const one of list) {
    const first = seen.get(keyOf(one))
    if (first !== undefined) throw new CommandError(say(one, first))
    seen.set(keyOf(one), one)
  }
}
