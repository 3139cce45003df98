/** A menu whose order can't be written, because the markup nests its links differently. */
import type { MenuEntry, MenuList } from '../../page/index.ts'
import { isFound, type Menu } from '../../site/index.ts'
import type { Draft, Rule } from '../finding.ts'

/** True when the menu has exactly these links, in the page's order. */
function isAsInPage(menu: Menu, links: readonly number[]): boolean {
  const own = new Set(links)
  const wanted = menu.items.flatMap((i) => i.links.filter((at) => own.has(at)))
  return menu.items.every((i) => i.links.length > 0) && wanted.length === links.length && wanted.every((at, i) => at === links[i])
}

/** The label of an opener that the menu has anywhere but right before its list. */
function strayWords(menu: Menu, list: MenuList): string | null {
  const leaves = (entry: MenuEntry | MenuList): number[] => ('entries' in entry ? entry.entries.flatMap(leaves) : [entry.link])
  const walk = (entries: readonly MenuEntry[]): { at: number; own: number[] }[] =>
    entries.flatMap((entry) => ('entries' in entry ? [{ at: entry.at, own: leaves(entry) }, ...walk(entry.entries)] : []))
  const lists = new Map(walk(list.entries).map(({ at, own }) => [at, own]))
  for (const [n, item] of menu.items.entries()) {
    const own = item.links.map((at) => lists.get(at)).find((found) => found)
    const following = menu.items.slice(n + 1).find((i) => i.links.length > 0)
    if (own && menu.items.some((i) => i.links.some((at) => own.includes(at))) && !following?.links.some((at) => own.includes(at)))
      return item.label
  }
  return null
}

export const rule: Rule = {
  severity: 'error',
  task: 'menus',
  inSite: ({ page, reading, links }) =>
    page.menus.flatMap((menu): Draft[] =>
      isFound(menu)
        ? menu.form.elements.flatMap((at): Draft[] => {
            const read = reading.menus.find((m) => m.at === at)
            const stray = read?.tree ? strayWords(menu, read.tree) : null
            if (!read || (read.tree && !stray) || isAsInPage(menu, read.links)) return []
            const first = links.get(read.links[0]!)
            return [
              {
                message: stray
                  ? `The menu “${menu.name}” can’t show “${stray}” here: it opens a list. Put it right before that list’s first item.`
                  : `The menu “${menu.name}” can’t be written in this order: its markup isn’t nested properly. Fix that in a new version, or undo the changes.`,
                line: first?.line ?? 1,
                column: first?.column ?? 1,
                where: { at },
                fix: null,
              },
            ]
          })
        : [],
    ),
}
