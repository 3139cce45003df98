/** A menu whose order cannot be written: the page's own markup does not hold its links as it nests them. */
import { isFound, type Menu } from '../../site/index.ts'
import type { Draft, Rule } from '../finding.ts'

/** True where the links stand in the page as the menu has them, and it has no others. */
function isAsInPage(menu: Menu, links: readonly number[]): boolean {
  const own = new Set(links)
  const wanted = menu.items.flatMap((i) => i.links.filter((at) => own.has(at)))
  return menu.items.every((i) => i.links.length > 0) && wanted.length === links.length && wanted.every((at, i) => at === links[i])
}

export const rule: Rule = {
  severity: 'error',
  task: 'menus',
  inSite: ({ page, reading, links }) =>
    page.menus.flatMap((menu): Draft[] =>
      isFound(menu)
        ? menu.form.elements.flatMap((at): Draft[] => {
            const read = reading.menus.find((m) => m.at === at)
            if (!read || read.tree || isAsInPage(menu, read.links)) return []
            const first = links.get(read.links[0]!)
            return [
              {
                message: `The menu “${menu.name}” is not written in this order: in the page its elements are closed where others are still open, so that items can keep their place only. Mend its markup and bring the page in as a new version, or undo moving, adding and dropping its items.`,
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
