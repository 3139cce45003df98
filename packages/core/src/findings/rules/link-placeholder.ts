/** Links outside of menus that were never given an address: pressed, they do nothing or go to the top of the page. Told once for all. */
import { isPlaceholder, leadsHome, linksOfMenus } from '../../links/index.ts'
import type { PageLink } from '../../page/index.ts'
import { named } from '../counted.ts'
import type { Draft, Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'menus',
  inPage: ({ reading }) => {
    const inMenus = linksOfMenus(reading)
    const loose = reading.links.filter((l) => !inMenus.has(l.at))
    // The site's name leads home by right: it stands first, or says the page's title.
    const namesSite = (l: PageLink) =>
      l === reading.links[0] || (l.label.length > 2 && reading.title.toLowerCase().includes(l.label.toLowerCase()))
    const told = (links: readonly PageLink[], what: string): Draft[] => {
      const [first] = links
      if (!first) return []
      const words = links.map((l) => l.label)
      const message = `${named(words, 'link', 'links')} ${links.length === 1 ? 'has' : 'have'} no address yet: pressed, ${what}.`
      return [{ message, line: first.line, column: first.column, where: { at: first.at }, fix: null }]
    }
    return [
      ...told(loose.filter(isPlaceholder), 'nothing happens'),
      ...told(
        loose.filter((l) => l.status === 'top' && !leadsHome(l) && !namesSite(l)),
        'the page goes to its top',
      ),
    ]
  },
}
