/** A menu of buttons only: a script handles them, so they're neither tried nor marked. */
import { isFound } from '../../site/index.ts'
import { named } from '../counted.ts'
import type { Draft, Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'menus',
  inSite: ({ page, links }) =>
    page.menus.filter(isFound).flatMap((menu): Draft[] => {
      const own = menu.items.map((item) => links.get(item.links[0] ?? -1))
      const [first] = own
      if (!first || !own.every((link) => link?.status === 'button')) return []
      const what = named(
        menu.items.map((i) => i.label),
        'button',
        'buttons',
      )
      return [
        {
          message: `The menu “${menu.name}” has ${what} and no links, so nothing can be tried or marked. Turn them into links, or make a menu.`,
          line: first.line,
          column: first.column,
          where: { at: first.at },
          fix: null,
        },
      ]
    }),
}
