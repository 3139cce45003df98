/** Items of one menu with the same label and different targets. */
import { sectionOf } from '../../site/index.ts'
import type { Draft, Rule } from '../finding.ts'
import { itemsOf, placeOfItem } from '../items.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'menus',
  inSite: (facts) =>
    itemsOf(facts).flatMap(({ menu, item }): Draft[] => {
      const section = sectionOf(item.target)
      const label = item.label.trim().toLowerCase()
      const first = menu.items.find((i) => i.label.trim().toLowerCase() === label && sectionOf(i.target) !== null)
      if (section === null || label === '' || !first || first === item || sectionOf(first.target) === section) return []
      return [
        {
          message: `The menu says “${item.label}” twice, for two sections. Give one of them another label.`,
          ...placeOfItem(facts, menu, item),
          fix: null,
        },
      ]
    }),
}
