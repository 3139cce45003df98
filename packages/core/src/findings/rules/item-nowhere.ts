/** A menu item without a target: it goes to the top, reloads the page or does nothing. */
import { isPlaceholder, leadsNowhere, linksOfMenus } from '../../links/index.ts'
import type { Rule } from '../finding.ts'
import { untilLinked } from '../links.ts'

const WHERE = {
  top: 'it goes to the top of the page',
  empty: 'it loads this page again',
  broken: 'its address is a placeholder',
}

export const rule: Rule = {
  severity: 'error',
  task: 'menus',
  inPage: ({ reading }) => {
    const inMenus = linksOfMenus(reading)
    // Openers of lists do something.
    const opens = new Set(reading.menus.flatMap((m) => m.links.filter((_, n) => (m.depths[n + 1] ?? 0) > m.depths[n]!)))
    return reading.links.flatMap((link) =>
      inMenus.has(link.at) && !opens.has(link.at) && (link.status !== 'broken' || isPlaceholder(link)) && leadsNowhere(link)
        ? {
            message: `“${link.label}” leads nowhere: ${WHERE[link.status as keyof typeof WHERE]}. Choose its target in Menus, or remove it.`,
            line: link.line,
            column: link.column,
            where: { at: link.at },
            fix: null,
          }
        : [],
    )
  },
  whileOpen: untilLinked,
}
