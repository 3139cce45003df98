/** Items of one menu with the same section: only one can be marked. */
import { sectionOf } from '../../site/index.ts'
import type { Draft, Rule } from '../finding.ts'
import { itemsOf, placeOfItem } from '../items.ts'

export const rule: Rule = {
  severity: 'note',
  task: 'menus',
  inSite: (facts) =>
    itemsOf(facts).flatMap(({ menu, item }): Draft[] => {
      const section = sectionOf(item.target)
      const first = section === null ? undefined : menu.items.find((i) => sectionOf(i.target) === section)
      if (!first || first === item) return []
      const title = facts.page.sections.find((s) => s.key === section)?.title ?? ''
      return [
        {
          message: `“${first.label}” and “${item.label}” both lead to “${title}”; only one of them is marked at a time.`,
          ...placeOfItem(facts, menu, item),
          fix: { label: `Remove “${item.label}”`, command: { type: 'item/drop', page: facts.page.key, menu: menu.key, item: item.key } },
        },
      ]
    }),
}
