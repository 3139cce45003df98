/** An item whose target was found by its words. */
import { isFound, sectionOf } from '../../site/index.ts'
import type { Draft, Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'note',
  task: 'menus',
  inSite: ({ page, links }) =>
    page.menus.filter(isFound).flatMap((menu) =>
      menu.items.flatMap((item): Draft[] => {
        const section = page.sections.find((s) => s.key === sectionOf(item.target))
        if (!item.assumed || (!section && item.target.kind !== 'top')) return []
        const meant = section ? `“${section.title}”` : 'the top of the page'
        const link = links.get(item.links[0] ?? -1)
        const at = { page: page.key, menu: menu.key, item: item.key }
        return [
          {
            message: `“${item.label}” has no clear target; ${meant} fits best. Confirm it, or choose another.`,
            line: link?.line ?? 1,
            column: link?.column ?? 1,
            where: {
              ...(link ? { at: link.at } : {}),
              ...(section ? { section: section.key } : {}),
              item: { menu: menu.key, item: item.key },
            },
            fix: { label: `Confirm ${meant}`, command: { type: 'item/target', ...at, target: item.target } },
          },
        ]
      }),
    ),
}
