/** An item of a made menu that isn't written: an empty group, or one synced with an item without a target of ours. */
import { nestedItems, type Nested } from '../../menus/index.ts'
import { isMade, type Item } from '../../site/index.ts'
import type { Draft, Rule } from '../finding.ts'
import { placeOfItem } from '../items.ts'

const all = ({ item, children }: Nested): Item[] => [item, ...children.flatMap(all)]

export const rule: Rule = {
  severity: 'warning',
  task: 'menus',
  inSite: (facts) =>
    facts.page.menus.filter(isMade).flatMap((menu): Draft[] => {
      const written = new Set(nestedItems(menu).flatMap(all))
      return menu.items
        .filter((item) => !written.has(item))
        .map((item) => ({
          message:
            item.target.kind === 'group'
              ? `The group “${item.label}” of “${menu.name}” is empty and left out. Nest an item below it (Alt + right arrow), or remove it.`
              : `“${item.label}” of “${menu.name}” has no target and is left out. Give ${menu.syncedWith ? 'the item that it follows' : 'it'} one.`,
          ...placeOfItem(facts, menu, item),
          fix: menu.syncedWith
            ? null
            : { label: `Remove “${item.label}”`, command: { type: 'item/drop', page: facts.page.key, menu: menu.key, item: item.key } },
        }))
    }),
}
