/** A page of a site. */
import type { AddressRule, Motion, Timed } from '../../contract/index.ts'
import type { ElementAt } from '../../page/index.ts'
import type { PictureSize } from '../../survey/index.ts'
import { CommandError } from '../errors.ts'
import type { HeaderChoice } from './header.ts'
import type { LinkChoice, LinkMotion } from './link.ts'
import { isFound, type Menu } from './menu.ts'
import type { Section } from './section.ts'

export interface SitePage {
  key: string
  file: string
  /** SHA-256 of the source's bytes, in hex. */
  source: string
  title: string
  sections: Section[]
  menus: Menu[]
  /** In page order; absent for none. */
  links?: LinkChoice[]
  /** Motions of links outside menus that differ from the page's, in page order. */
  motions?: LinkMotion[]
  header: HeaderChoice | null
  endSpace?: EndSpace
  /** Pictures whose sizes are written into the markup, in page order; absent for none. */
  pictures?: PictureSize[]
  /** The element in which the page scrolls; absent for the document. */
  scroller?: ElementAt
  travel: {
    smooth: boolean
    /** A smooth motion with its own duration; absent for the browser's. */
    timed?: Timed
    /** Breathing space between header and section, in px. */
    breathing: number
    /** Other breathing spaces by screen key; screens with larger text follow theirs. */
    breathes?: { screen: string; px: number }[]
    /** The page's own offsets are right, so none are written. */
    pageOffsets?: true
    /** How following a link changes the address; absent for a new history entry. */
    address?: AddressRule
    /** The address follows the scroll. */
    follows?: true
    /** Text of the skip link to the first section; absent for none of ours. */
    skip?: string
    /** Presses of section links are kept from the page's script. */
    takesPresses?: true
    /** Measured heights are written for parts that are laid out late. */
    estimates?: true
  }
  highlight: {
    /** Distance of the bell line below the header, in px. */
    bellOffset: number
    /** The page's own script marks the current item correctly, so ours doesn't. */
    pageMark?: true
  }
}

/** Space added at the page's end so that its last sections can arrive. */
export interface EndSpace {
  /** Key of the section that holds it. */
  section: string
  /** As padding, or as minimum height. */
  as: 'padding' | 'height'
  /** By screen, in px: the page is long enough without it for viewports up to `fits` high; `base` is the section's own padding or height. */
  on: { screen: string; fits: number; base: number }[]
}

/** @throws CommandError when the site has no such page */
export const pageOf = <P extends { key: string }>({ pages }: { pages: readonly P[] }, key: string): P => {
  const page = pages.find((p) => p.key === key)
  if (!page) throw new CommandError(`the site has no page “${key}”`)
  return page
}

/** Breathing space on a screen, in px. */
export const breathingOn = ({ travel: { breathing, breathes } }: Pick<SitePage, 'travel'>, screen: string): number =>
  breathes?.find((b) => b.screen === screen)?.px ?? breathing

/** Motion of links that have none of their own. */
export const motionOfPage = ({ travel: { smooth, timed } }: Pick<SitePage, 'travel'>): Motion => (smooth ? (timed ?? 'smooth') : 'jump')

/** The first section that is an element. */
export const firstSection = ({ sections }: Pick<SitePage, 'sections'>): Section | undefined => sections.find((s) => !s.point)

/** Every element of the source that a page's document refers to. */
export const elementsOf = ({ sections, menus, links = [], motions = [], pictures = [], header, scroller }: SitePage): Set<ElementAt> =>
  new Set([
    ...sections.flatMap((s) => [s.at, ...(s.heading === null ? [] : [s.heading]), ...(s.block === undefined ? [] : [s.block])]),
    ...menus.flatMap((m) => [
      ...(isFound(m) ? [...m.form.elements, ...(m.form.shutBy === undefined ? [] : [m.form.shutBy])] : []),
      ...m.items.flatMap((i) => i.links),
    ]),
    ...[...links, ...motions, ...pictures].map((l) => l.at),
    ...(header ? [header.at] : []),
    ...(scroller === undefined ? [] : [scroller]),
  ])
