/** Commands for links outside menus. */
import type { Motion } from '../../contract/index.ts'
import type { ElementAt } from '../../page/index.ts'
import { linkKey, withLinks, type ItemTarget, type LinkChoice, type MadeLink } from '../document/index.ts'
import { onPage, readsOf, type KindsOf } from './kind.ts'
import { madeLinkShape, motionShape, targetShape } from './shapes.ts'

export type LinkCommand =
  /** Null restores the page's link, or no link for a made one. */
  | { type: 'link/target'; page: string; at: ElementAt; target: ItemTarget | null; made?: MadeLink | undefined }
  /** Undefined follows the page. */
  | { type: 'link/motion'; page: string; at: ElementAt; motion: Motion | undefined }

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
        // A made link keeps what it wraps, so undo restores it.
        const { made } = was ?? c
        const link = target && { at: c.at, target, ...(made && { made }) }
        const next: LinkChoice[] = link ? [...rest, link].sort((a, b) => a.at - b.at || (linkKey(a) < linkKey(b) ? -1 : 1)) : rest
        return {
          page: withLinks(page, next),
          inverse: { type: c.type, page: c.page, at: c.at, target: was?.target ?? null, ...(made && { made }) },
        }
      }),
  },
  'link/motion': {
    name: 'Change the motion of a link',
    payload: (s) => ({ page: s.key, at: s.at, motion: motionShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/link/${c.at}/motion`] }),
    apply: (site, { motion, ...c }) =>
      onPage(site, c.page, ({ motions = [], ...page }) => {
        const rest = motions.filter((m) => m.at !== c.at)
        const next = motion ? [...rest, { at: c.at, motion }].sort((a, b) => a.at - b.at) : rest
        return {
          page: { ...page, ...(next.length && { motions: next }) },
          inverse: { ...c, motion: motions.find((m) => m.at === c.at)?.motion },
        }
      }),
  },
}
