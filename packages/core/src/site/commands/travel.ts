/** Commands on how the page travels: its motion, its header and the room under that. */
import type { ElementAt } from '../../page/index.ts'
import type { HeaderChoice } from '../document.ts'
import { onPage, type KindsOf } from './kind.ts'
import { headerShape, ownOf, ownShape } from './shapes.ts'

export type TravelCommand =
  | { type: 'header/choose'; page: string; header: HeaderChoice | null }
  /** The element in which the page scrolls; null is the document. */
  | { type: 'scroller/choose'; page: string; scroller: ElementAt | null }
  | { type: 'travel/smooth'; page: string; smooth: boolean }
  /** Ends the page's own offsets, unless it says that they hold. */
  | { type: 'travel/breathing'; page: string; breathing: number; own?: true }

export const travelCommands: KindsOf<TravelCommand> = {
  'header/choose': {
    name: 'Change the header',
    payload: (s) => ({ page: s.key, header: headerShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/header`] }),
    apply: (site, c) => onPage(site, c.page, (page) => ({ page: { ...page, header: c.header }, inverse: { ...c, header: page.header } })),
  },
  'scroller/choose': {
    name: 'Choose what the page scrolls in',
    payload: (s) => ({ page: s.key, scroller: s.at.allow(null) }),
    touches: (c) => ({ writes: [`page/${c.page}/scroller`] }),
    apply: (site, c) =>
      onPage(site, c.page, ({ scroller, ...page }) => ({
        page: { ...page, ...(c.scroller === null ? {} : { scroller: c.scroller }) },
        inverse: { ...c, scroller: scroller ?? null },
      })),
  },
  'travel/smooth': {
    name: 'Change the motion',
    payload: (s) => ({ page: s.key, smooth: s.is }),
    touches: (c) => ({ writes: [`page/${c.page}/smooth`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => ({
        page: { ...page, travel: { ...page.travel, smooth: c.smooth } },
        inverse: { ...c, smooth: page.travel.smooth },
      })),
  },
  'travel/breathing': {
    name: 'Change the breathing space',
    payload: (s) => ({ page: s.key, breathing: s.px, own: ownShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/breathing`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => ({
        page: { ...page, travel: { smooth: page.travel.smooth, breathing: c.breathing, ...ownOf(c) } },
        inverse: { type: c.type, page: c.page, breathing: page.travel.breathing, ...ownOf(page.travel) },
      })),
  },
}
