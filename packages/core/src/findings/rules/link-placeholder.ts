/** Links outside menus without an address, reported once. */
import { isPlaceholder, leadsHome, linksOfMenus, namesSite } from '../../links/index.ts'
import type { ElementAt, PageLink, PageReading } from '../../page/index.ts'
import { named } from '../counted.ts'
import type { Draft, Rule } from '../finding.ts'

/** What they do, and which ones. */
function groups(reading: PageReading): [what: string, links: PageLink[]][] {
  const inMenus = linksOfMenus(reading)
  const loose = reading.links.filter((l) => !inMenus.has(l.at))
  return [
    ['does nothing', loose.filter(isPlaceholder)],
    ['goes to the top of the page', loose.filter((l) => l.status === 'top' && !leadsHome(l) && !namesSite(l, reading))],
  ]
}

function told(what: string, links: readonly PageLink[]): Draft | null {
  const [first] = links
  if (!first) return null
  const words = links.map((l) => l.label)
  const message = `${named(words, 'link', 'links')} ${links.length === 1 ? 'has' : 'have'} no address yet: pressing ${links.length === 1 ? 'it' : 'one'} ${what}.`
  return { message, line: first.line, column: first.column, where: { at: first.at }, fix: null }
}

export const rule: Rule = {
  severity: 'warning',
  task: 'menus',
  inPage: ({ reading }) => groups(reading).flatMap(([what, links]) => told(what, links) ?? []),
  whileOpen: (draft, { reading, page }) => {
    const led = new Set<ElementAt>(page.links?.flatMap((l) => (l.made ? [] : l.at)))
    const group = groups(reading).find(([, links]) => links.some((l) => l.at === draft.where.at))
    return (
      (group &&
        told(
          group[0],
          group[1].filter((l) => !led.has(l.at)),
        )) ??
      null
    )
  },
}
