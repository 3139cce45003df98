/** Commands for travel: motion, header, offsets and end space. */
import type { AddressRule, Timed } from '../../contract/index.ts'
import type { ElementAt } from '../../page/index.ts'
import type { PictureSize } from '../../survey/index.ts'
import type { HeaderChoice, EndSpace, SitePage } from '../document/index.ts'
import { onPage, type KindsOf } from './kind.ts'
import { addressRuleShape, breathesShape, endSpaceShape, flagShape, headerShape, picturesShape, skipShape, timedShape } from './shapes.ts'

export type TravelCommand =
  | { type: 'header/choose'; page: string; header: HeaderChoice | null }
  /** Null is the document. */
  | { type: 'scroller/choose'; page: string; scroller: ElementAt | null }
  /** @param timed a motion with its own duration */
  | { type: 'travel/smooth'; page: string; smooth: boolean; timed?: Timed | undefined }
  | { type: 'travel/address'; page: string; address?: AddressRule | undefined; follows?: true | undefined }
  /** @param takes keeps presses of section links from the page's script */
  | { type: 'travel/presses'; page: string; takes?: true | undefined }
  /** @param says writes estimated heights */
  | { type: 'travel/estimates'; page: string; says?: true | undefined }
  /** @param label text of the skip link; undefined for none */
  | { type: 'travel/skip'; page: string; label?: string | undefined }
  | { type: 'travel/end-space'; page: string; endSpace: EndSpace | undefined }
  | { type: 'travel/pictures'; page: string; pictures: PictureSize[] | undefined }
  /** Ends the page's own offsets, unless `pageOffsets` is set. @param breathes other values by screen */
  | {
      type: 'travel/breathing'
      page: string
      breathing: number
      breathes?: SitePage['travel']['breathes'] | undefined
      pageOffsets?: true
    }

/** A page with changed travel settings; undefined removes one. */
function withTravel(page: SitePage, over: { [K in keyof SitePage['travel']]?: SitePage['travel'][K] | undefined }): SitePage {
  const travel = Object.fromEntries(Object.entries({ ...page.travel, ...over }).filter(([, value]) => value !== undefined))
  return { ...page, travel: travel as unknown as SitePage['travel'] }
}

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
    payload: (s) => ({ page: s.key, smooth: s.is, timed: s.optional(timedShape(s)) }),
    touches: (c) => ({ writes: [`page/${c.page}/smooth`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => ({
        page: withTravel(page, { smooth: c.smooth, timed: c.timed }),
        inverse: { ...c, smooth: page.travel.smooth, timed: page.travel.timed },
      })),
  },
  'travel/address': {
    name: 'Change the address rule of links',
    payload: (s) => ({ page: s.key, address: addressRuleShape(s), follows: flagShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/address`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => ({
        page: withTravel(page, { address: c.address, follows: c.follows }),
        inverse: { ...c, address: page.travel.address, follows: page.travel.follows },
      })),
  },
  'travel/presses': {
    name: 'Change who handles links',
    payload: (s) => ({ page: s.key, takes: flagShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/presses`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => ({
        page: withTravel(page, { takesPresses: c.takes }),
        inverse: { ...c, takes: page.travel.takesPresses },
      })),
  },
  'travel/estimates': {
    name: 'Change heights of late parts',
    payload: (s) => ({ page: s.key, says: flagShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/estimates`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => ({
        page: withTravel(page, { estimates: c.says }),
        inverse: { ...c, says: page.travel.estimates },
      })),
  },
  'travel/skip': {
    name: 'Change the skip link',
    payload: (s) => ({ page: s.key, label: s.optional(skipShape(s)) }),
    touches: (c) => ({ writes: [`page/${c.page}/skip`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => ({
        page: withTravel(page, { skip: c.label }),
        inverse: { ...c, label: page.travel.skip },
      })),
  },
  'travel/end-space': {
    name: 'Change the space at the end',
    payload: (s) => ({ page: s.key, endSpace: endSpaceShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/end-space`] }),
    apply: (site, c) =>
      onPage(site, c.page, ({ endSpace, ...page }) => ({
        page: { ...page, ...(c.endSpace && { endSpace: c.endSpace }) },
        inverse: { ...c, endSpace },
      })),
  },
  'travel/pictures': {
    name: 'Change the sizes of pictures',
    payload: (s) => ({ page: s.key, pictures: picturesShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/pictures`] }),
    apply: (site, c) =>
      onPage(site, c.page, ({ pictures, ...page }) => ({
        page: { ...page, ...(c.pictures?.length && { pictures: c.pictures }) },
        inverse: { ...c, pictures },
      })),
  },
  'travel/breathing': {
    name: 'Change the breathing space',
    payload: (s) => ({ page: s.key, breathing: s.px, breathes: breathesShape(s), pageOffsets: flagShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/breathing`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => ({
        page: withTravel(page, { breathing: c.breathing, breathes: c.breathes, pageOffsets: c.pageOffsets }),
        inverse: {
          type: c.type,
          page: c.page,
          breathing: page.travel.breathing,
          ...(page.travel.breathes && { breathes: page.travel.breathes }),
          ...(page.travel.pageOffsets && { pageOffsets: true as const }),
        },
      })),
  },
}
