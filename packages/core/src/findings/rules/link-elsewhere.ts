/** A hash whose target is on another page of the site. */
import { decodeFragment } from '../../contract/index.ts'
import type { ElementAt } from '../../page/index.ts'
import type { Item, ItemTarget, Menu, SitePage } from '../../site/index.ts'
import type { Draft, Fix, Rule } from '../finding.ts'
import { pagesWith } from '../links.ts'

const leading = (
  page: SitePage,
  at: ElementAt,
  used: { menu: Menu; item: Item } | undefined,
  other: SitePage,
  id: string,
): Fix['command'] => {
  const section = other.sections.find((s) => s.id === id)!.key
  const target: ItemTarget = { kind: 'page', page: other.key, section }
  if (!used) return { type: 'link/target', page: page.key, at, target }
  return { type: 'item/target', page: page.key, menu: used.menu.key, item: used.item.key, target }
}

export const rule: Rule = {
  severity: 'error',
  task: 'menus',
  inSite: ({ page, site, reading, items }) =>
    reading.links.flatMap((link): Draft[] => {
      if (link.status !== 'broken' || !link.fragment) return []
      const wanted = decodeFragment(link.fragment)
      // Links with a chosen target aren't affected.
      const used = items.get(link.at)
      const isHere = page.sections.some((s) => s.id.toLowerCase() === wanted.toLowerCase() || s.former.includes(wanted))
      const isLed = page.links?.some((l) => l.at === link.at) || (used && used.item.target.kind !== 'as-is')
      if (isHere || isLed) return []
      const [other] = pagesWith(wanted, { site, page })
      if (!other) return []
      return [
        {
          message: `Pressing “${link.label}” does nothing: “#${wanted}” is on “${other.file}”. Link to “${other.file}#${wanted}”.`,
          line: link.line,
          column: link.column,
          where: { at: link.at, ...(used && { item: { menu: used.menu.key, item: used.item.key } }) },
          fix: { label: `Link to “${other.file}#${wanted}”`, command: leading(page, link.at, used, other, wanted) },
        },
      ]
    }),
}
