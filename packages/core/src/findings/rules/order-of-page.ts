/** A menu whose order differs from the page's. */
import { partOf, partsByAt } from '../../arrival/index.ts'
import { isFound, sectionOf } from '../../site/index.ts'
import type { Draft, Rule } from '../finding.ts'
import { placeOfItem } from '../items.ts'

export const rule: Rule = {
  severity: 'note',
  task: 'menus',
  inSite: (facts) => {
    const places = new Map(facts.page.sections.map((s, n) => [s.key, n]))
    const measured = Object.values(facts.surveys).map(partsByAt)
    const topOf = (n: number, parts: (typeof measured)[number]) => partOf(facts.page.sections[n]!, parts)?.top ?? n
    // Measured positions count before the source's order.
    const isBehind = (one: number, other: number) =>
      one > other && (!measured.length || measured.some((parts) => topOf(one, parts) > topOf(other, parts) + 1))
    return facts.page.menus.filter(isFound).flatMap((menu): Draft[] => {
      const led = menu.items.flatMap((item) => {
        const place = places.get(sectionOf(item.target) ?? '')
        return place === undefined ? [] : [{ item, place }]
      })
      const wrong = led.find(({ place }, n) => n > 0 && isBehind(led[n - 1]!.place, place))
      if (!wrong) return []
      const before = led[led.indexOf(wrong) - 1]!.item
      return [
        {
          message: `“${before.label}” comes before “${wrong.item.label}” in the menu “${menu.name}” but after it on the page. Scrolling marks them out of order.`,
          ...placeOfItem(facts, menu, wrong.item),
          fix: null,
        },
      ]
    })
  },
}
