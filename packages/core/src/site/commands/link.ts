/** Commands on the links of a page that stand in none of its menus. */
import type { ElementAt } from '../../page/index.ts'
import { linkKey, withLinks, type ItemTarget, type LinkChoice, type MadeLink } from '../document.ts'
import { onPage, readsOf, type KindsOf } from './kind.ts'
import { madeLinkShape, targetShape } from './shapes.ts'

/** Null leaves it as the page has it: no link, where it is `made` of what was none. */
export type LinkCommand = { type: 'link/target'; page: string; at: ElementAt; target: ItemTarget | null; made?: MadeLink | undefined }

export const linkCommands: KindsOf<LinkCommand> = {
  'link/target': {
    name: 'Change where a link leads',
    payload: (s) => ({ page: s.key, at: s.at, target: targetShape(s).allow(null), made: madeLinkShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/link/${c.at}`], reads: c.target ? readsOf(c.page, c.target) : [] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => {
        const links = page.links ?? []
        const was = links.find((l) => linkKey(l) === linkKey(c))
        const rest = links.filter((l) => linkKey(l) !== linkKey(c))
        const target = c.target?.kind === 'as-is' ? null : c.target
        const made = c.made ?? was?.made
        const link = target && { at: c.at, target, ...(made && { made }) }
        const next: LinkChoice[] = link ? [...rest, link].sort((a, b) => a.at - b.at || (linkKey(a) < linkKey(b) ? -1 : 1)) : rest
        return { page: withLinks(page, next), inverse: { ...c, target: was?.target ?? null, ...(made && { made }) } }
      }),
  },
}
