/** A menu that names sections in another order than the page has them. */
import { isFound, sectionOf } from '../../site/index.ts'
import type { Draft, Rule } from '../finding.ts'
import { placeOfItem } from '../items.ts'

export const rule: Rule = {
  severity: 'note',
  task: 'menus',
  inSite: (facts) => {
    const places = new Map(facts.page.sections.map((s, n) => [s.key, n]))
    return facts.page.menus.filter(isFound).flatMap((menu): Draft[] => {
      const led = menu.items.flatMap((item) => {
        const place = places.get(sectionOf(item.target) ?? '')
        return place === undefined ? [] : [{ item, place }]
      })
      const wrong = led.find(({ place }, n) => n > 0 && led[n - 1]!.place > place)
      if (!wrong) return []
      const before = led[led.indexOf(wrong) - 1]!.item
      return [
        {
          message: `The menu “${menu.name}” has “${before.label}” before “${wrong.item.label}”, the page has them the other way round. Scrolling marks its items out of turn.`,
          ...placeOfItem(facts, menu, wrong.item),
          fix: null,
        },
      ]
    })
  },
}
