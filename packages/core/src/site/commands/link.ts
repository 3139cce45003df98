/** Commands on the links of a page that stand in none of its menus. */
import type { ElementAt } from '../../page/index.ts'
import { withLinks, type ItemTarget, type LinkChoice } from '../document.ts'
import { onPage, readsOf, type KindsOf } from './kind.ts'
import { targetShape } from './shapes.ts'

/** Null leaves it as the page has it. */
export type LinkCommand = { type: 'link/target'; page: string; at: ElementAt; target: ItemTarget | null }

export const linkCommands: KindsOf<LinkCommand> = {
  'link/target': {
    name: 'Change where a link leads',
    payload: (s) => ({ page: s.key, at: s.at, target: targetShape(s).allow(null) }),
    touches: (c) => ({ writes: [`page/${c.page}/link/${c.at}`], reads: c.target ? readsOf(c.page, c.target) : [] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => {
        const links = page.links ?? []
        const was = links.find((l) => l.at === c.at)?.target ?? null
        const rest = links.filter((l) => l.at !== c.at)
        const target = c.target?.kind === 'as-is' ? null : c.target
        const next: LinkChoice[] = target ? [...rest, { at: c.at, target }].sort((a, b) => a.at - b.at) : rest
        return { page: withLinks(page, next), inverse: { ...c, target: was } }
      }),
  },
}
