/** The site document: everything a designer decided about a site. Sources and surveys stand outside it. */
import { itemKinds, type ItemTarget } from '../menus/items/index.ts'
import { FILLS, type AddressRule, type Mark, type Motion, type Timed } from '../contract/index.ts'
import type { Elsewhere, ItemKind, TargetFault, Ways } from '../menus/items/kind.ts'
import type { MadeMenuForm } from '../menus/forms/index.ts'
import type { ItemState, LOOK_FIELDS, Small, STATE_FIELDS } from '../menus/forms/form.ts'
import type { NamingRule } from '../naming/index.ts'
import type { ElementAt } from '../page/index.ts'
import type { PictureSize } from '../survey/index.ts'
import { CommandError } from './errors.ts'

export interface Screen {
  key: string
  name: string
  /** Viewport size in CSS px. */
  width: number
  height: number
  touch: boolean
  /** Size of the browser's unscaled text, in percent of the usual; absent for 100. */
  text?: number
}

/** What a page is laid out by: it is measured anew where that is another. */
export const viewportOf = ({ width, height, touch, text }: Screen): string =>
  `${width}×${height}${touch ? ' touch' : ''}${text ? ` ${text}%` : ''}`

/** By its size, and that of its text where that is not the usual. */
export const sizeText = ({ width, height, text }: Pick<Screen, 'width' | 'height' | 'text'>): string =>
  `${width}×${height}${text ? `, text ${text}%` : ''}`

/** Those that decisions can be for: no style can tell how large a visitor's text is, so that what has larger text goes by another. */
export const plainScreens = (screens: readonly Screen[]): Screen[] => screens.filter((s) => !s.text)

export interface Section {
  key: string
  /** The element; for a point the one that it stands before. */
  at: ElementAt
  /** Null for a section that is an element. */
  point: Point | null
  title: string
  id: string
  /** The ID that the element has in the source; null without one, and for a point. */
  sourceId: string | null
  /** IDs that it had; links to them still arrive. The latest last. */
  former: string[]
  heading: ElementAt | null
  /** 0 for a top-level section, 1 for a part of the one before it, and so on. */
  depth: number
  /** Its link goes to the very top of the page. */
  toTop: boolean
  /** Room above it on arrival that others do not have; absent for none. */
  adjust?: Adjust
  /** Of an empty target that stands above a block, as pages have them for their header: the block, which has its ID instead; absent where it keeps it. */
  block?: ElementAt
}

/**
 * So many px more than the breathing space, or less where it is negative; or it fills the window: it arrives at the very top of what is seen, and
 * what covers that covers its beginning. Not on some screens, by key.
 */
export interface Adjust {
  by: number | typeof FILLS
  off?: string[]
}

const adjustBy = ({ adjust, toTop }: Pick<Section, 'adjust' | 'toTop'>, screen: string): Adjust['by'] =>
  !adjust || toTop || adjust.off?.includes(screen) ? 0 : adjust.by

/** It fills the window on a screen. */
export const fillsOn = (section: Pick<Section, 'adjust' | 'toTop'>, screen: string): boolean => adjustBy(section, screen) === FILLS

/** What a section has above it on a screen, besides the breathing space, in px; 0 of one that fills the window, which has neither. */
export const adjustOn = (section: Pick<Section, 'adjust' | 'toTop'>, screen: string): number => {
  const by = adjustBy(section, screen)
  return by === FILLS ? 0 : by
}

/** What all sections have above them on a screen, between header and section, in px. */
export const breathingOn = ({ travel: { breathing, breathes } }: Pick<SitePage, 'travel'>, screen: string): number =>
  breathes?.find((b) => b.screen === screen)?.px ?? breathing

/** A target with no size, at the top of the element that it stands before. */
export interface Point {
  /** How far below that, in px; negative is above. */
  shift: number
}

export interface Item {
  key: string
  label: string
  target: ItemTarget
  /** The page's own links, one in each element that its menu stands in; none for an item that was added. */
  links: ElementAt[]
  /** What is said of it under the pointer, and the language of its label, as a BCP 47 tag; empty for none, absent for what the page says. */
  tooltip?: string
  lang?: string
  /** In a menu that is made: how deep it is nested in those before it; absent at the top. */
  depth?: number
  /** Keys of the screens that it is not on; absent where it is on all. */
  off?: string[]
  /** How its link travels, where that is not as its menu's do. */
  motion?: Motion
  /** Its target was found by its label or its address and not by its hash, and nobody has confirmed it yet. */
  assumed?: true
}

/** A link of the page's own that stands in none of its menus, and was given a target; or one that is made of what was none. */
export interface LinkChoice {
  at: ElementAt
  target: ItemTarget
  made?: MadeLink
}

/** What a link is made of: an element, which stands in it; some words of one, the first that are so; or a button, which becomes one. */
export interface MadeLink {
  of: 'element' | 'words' | 'button'
  /** The words themselves, or what the element is called. */
  label: string
  /** It has no words of its own, so that the label is said of it. */
  isSaid?: true
}

export interface LinkMotion {
  at: ElementAt
  motion: Motion
}

/** How links of a page travel that nothing else is said of. */
export const motionOfPage = ({ travel: { smooth, timed } }: Pick<SitePage, 'travel'>): Motion => (smooth ? (timed ?? 'smooth') : 'jump')

/** Tells the links of a page apart: of one element there may be several words. */
export const linkKey = ({ at, made }: Pick<LinkChoice, 'at' | 'made'>): string => (made?.of === 'words' ? `${at} ${made.label}` : `${at}`)

export interface Menu {
  key: string
  name: string
  form: MenuForm
  /** Of one that is made: where it is seen, where that is not everywhere. */
  shown?: Shown
  look?: MenuLook
  /** How its links travel, where that is not as all on the page do. */
  motion?: Motion
  /** Of one that is made: the menu that it keeps in step with, on this page or another, whose items it has. */
  syncedWith?: SyncSource
  /** False where a section that is added gets no item in it; of one that is made. */
  grows?: false
  items: Item[]
}

export interface SyncSource {
  page: string
  menu: string
  /** Labels that it has of its own, by the keys of the items that it follows. */
  labels: { item: string; label: string }[]
}

export interface Shown {
  /** Keys of the section from which on it is seen, and of the last one with which it is; absent for the page's beginning and its end. */
  from?: string
  until?: string
  /** It is seen once the page has been scrolled so far, in px; absent for at once. */
  after?: number
  /** Keys of the screens that it is not on. */
  off?: string[]
  /** What it does where the viewport is at most so wide, in px; absent for what its form does there. */
  small?: { upTo: number; as: Small }
  /** Items of sections that a visitor has not reached yet are held back: what was reached is kept for the visit, or in the visitor's browser. */
  holds?: Holds
}

/** How it looks, where that is other than its form says. Colours as `#rrggbb`, opacities in %, lengths in px. */
export type MenuLook = LookOf<typeof LOOK_FIELDS> & { states?: { [S in ItemState]?: StateLook } }
export type StateLook = LookOf<typeof STATE_FIELDS>
type LookOf<F> = { [K in keyof F]?: F[K] extends { options: readonly (infer O)[] } ? O : F[K] extends { least: number } ? number : string }

export const HOLDS = ['visit', 'browser'] as const
export type Holds = (typeof HOLDS)[number]

/** A menu of the page's own stands in one element, or in several that take turns by the screen's width. */
export interface FoundForm {
  kind: 'found'
  elements: ElementAt[]
  /** How its current item is marked; a line where nothing is said. */
  mark?: Mark
  /** What is pressed to shut it behind a press in it, where that opened menu stays open by itself. */
  shutBy?: ElementAt
}

export type MenuForm = FoundForm | MadeMenuForm

export const isFound = (menu: Menu): menu is Menu & { form: FoundForm } => menu.form.kind === 'found'
export const isMade = (menu: Menu): menu is MadeMenu => menu.form.kind !== 'found'

/** A menu that Way Bell makes. */
export type MadeMenu = Menu & { form: MadeMenuForm }

/** The one of them that is a bar across the viewport's top, of which there is one at most. */
export const madeBar = (page: Pick<SitePage, 'menus'>): MadeMenu | undefined => page.menus.filter(isMade).find((m) => m.form.kind === 'bar')

/** What a header does once the page has been scrolled. */
export interface HeaderOnScroll {
  /** By so much, in px. */
  after: number
  /** Not by that, but once the first section has gone by. */
  over?: true
  /** Until then it has no ground. */
  clear?: true
  /** From then on gets a shadow. */
  shadow?: true
  /** From then on it is smaller by so much, in px, as far as it can give that. */
  small?: number
  /** From then on hides on the way down, returns on the way up. */
  away?: true
  /** Keys of the screens on which it does none of that. */
  off?: string[]
}

export interface HeaderChoice {
  at: ElementAt
  /** Make it stay in view although the page lets it scroll away: sticky where it stands in the flow, fixed where it lies over the page. */
  keep: 'sticky' | 'fixed' | null
  /** Painted behind it, so that it can be read; null to leave it. */
  backing: string | null
  /** Keys of the screens on which it scrolls away with the page; absent for none. */
  off?: string[]
  onScroll?: HeaderOnScroll
  /** One that is smaller by itself once the page has moved keeps its place on the page then. */
  steady?: true
  /**
   * The first section begins under it and is as high as the screen at least. By screen: its own padding at the top, and what of its height is padding
   * and border where its style's heights are without them, else 0; in px.
   */
  under?: { screen: string; head: number; frame: number }[]
}

/** Room that is left at the page's end, so that its last sections reach their places. */
export interface EndSpace {
  /** Key of the section that holds it. */
  section: string
  /** As its padding, or as its least height. */
  as: 'padding' | 'height'
  /** By screen: without it the page is long enough for viewports up to `fits` high; `own` is the padding, or the height, that the section has by itself. In px. */
  on: { screen: string; fits: number; base: number }[]
}

/** The first that is an element. */
export const firstSection = ({ sections }: Pick<SitePage, 'sections'>): Section | undefined => sections.find((s) => !s.point)

export interface SitePage {
  key: string
  file: string
  /** SHA-256 of the source's bytes, in hex. */
  source: string
  title: string
  sections: Section[]
  menus: Menu[]
  /** In page order; absent where none was given a target. */
  links?: LinkChoice[]
  /** How links travel that stand in no menu, where that is not as all on the page do; in page order. */
  motions?: LinkMotion[]
  header: HeaderChoice | null
  endSpace?: EndSpace
  /** Pictures whose sizes are said in the markup, in page order; absent for none. */
  pictures?: PictureSize[]
  /** The element in which the page scrolls; the document where none is named. */
  scroller?: ElementAt
  travel: {
    smooth: boolean
    /** A smooth motion that takes a time of its own; absent for the browser's. */
    timed?: Timed
    /** Breathing space between header and section, in px. */
    breathing: number
    /** On screens, by key, and so on what goes by them, where it is another. */
    breathes?: { screen: string; px: number }[]
    /** Links arrive rightly by the page's own offsets, so that none are written. */
    pageOffsets?: true
    /** What a link that is followed writes of its hash; absent for a new entry of the history. */
    address?: AddressRule
    /** The address follows the scroll. */
    follows?: true
    /** Words of the skip link to the first section; absent for none of ours. */
    skip?: string
    /** A script of the page that takes the presses of links to its sections is kept from it. */
    takesPresses?: true
    /** Heights of what is laid out only when it is near are said as they were measured. */
    estimates?: true
  }
  highlight: {
    /** How far below the header the bell line lies, in px. */
    bellOffset: number
    /** The page's own script marks the current item, and rightly, so that ours does not. */
    pageMark?: true
  }
}

export const SITE_VERSION = 4

export interface Site {
  format: 'way-bell-site'
  version: typeof SITE_VERSION
  name: string
  rule: NamingRule
  screens: Screen[]
  pages: SitePage[]
  /** The pages’ own scripts are kept from running while it is worked on. */
  scripts?: false
  /** Pages that are handed over carry their script in its small form. */
  small?: true
  address?: SiteAddress
}

/** Where the site stands for its visitors. */
export interface SiteAddress {
  /** Of the folder that holds it, with the slash at its end. */
  url: string
  /** Links between its pages say the whole of it; else the way from where each page stands. */
  isWritten?: true
}

/** The folder that an address stands for; null for one that a site cannot stand at. @see URL Standard, "absolute-URL-with-fragment string" */
export function siteFolder(typed: string): string | null {
  const address = typed.trim().replace(/[?#].*$/, '')
  const [, origin, path] = /^(https?:\/\/[^\s/\\@]+)(\/[^\s\\]*)?$/i.exec(address) ?? []
  if (origin === undefined) return null
  // A file of it is not what holds it.
  const folder = (path ?? '/').replace(/\/[^/]*\.[a-z0-9]+$/i, '/')
  return origin + (folder.endsWith('/') ? folder : `${folder}/`)
}

/** Those that a site begins with; one that was removed can be had again in one press. */
export const defaultScreens: Screen[] = [
  { key: 'laptop', name: 'Laptop', width: 1280, height: 800, touch: false },
  { key: 'phone', name: 'Phone', width: 390, height: 844, touch: true },
  { key: 'tablet', name: 'Tablet', width: 820, height: 1180, touch: true },
  { key: 'desk', name: 'Desk', width: 1920, height: 1080, touch: false },
  { key: 'phone-lying', name: 'Phone, landscape', width: 844, height: 390, touch: true },
]

export const pageOf = (site: Site, key: string): SitePage => {
  const page = site.pages.find((p) => p.key === key)
  if (!page) throw new CommandError(`the site has no page “${key}”`)
  return page
}

/** A point comes before the element that it stands before; of several there the higher first. IDs make one order of all sections of a page. */
export const inPageOrder = (sections: readonly Section[]): Section[] => [...sections].sort(pageOrder)

export const pageOrder = (a: Section, b: Section): number =>
  a.at - b.at ||
  Number(!a.point) - Number(!b.point) ||
  (a.point?.shift ?? 0) - (b.point?.shift ?? 0) ||
  (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)

const kindOf = (target: ItemTarget) => itemKinds[target.kind] as ItemKind<ItemTarget>

/** Key of the section of its own page that an item leads to; null where it leads to none. */
export const sectionOf = (target: ItemTarget): string | null => kindOf(target).section(target)
/** Where on the site's other pages an item leads; null where it leads to none. */
export const elsewhereOf = (target: ItemTarget): Elsewhere | null => kindOf(target).elsewhere?.(target) ?? null
/** What keeps a target from being written; null for nothing. */
export const faultOfTarget = (target: ItemTarget): TargetFault<ItemTarget> | null => kindOf(target).fault?.(target) ?? null

/** What is written of where an item leads. */
export interface Way {
  /** Null where a link stays as the page has it. */
  href: string | null
  isNewTab: boolean
  /** It leads to a place of its own page. */
  isHere: boolean
}
export const wayOf = (target: ItemTarget, ways: Ways): Way => ({
  href: kindOf(target).href(target, ways),
  isNewTab: kindOf(target).isNewTab?.(target) ?? false,
  isHere: target.kind === 'top' || sectionOf(target) !== null,
})

/** The same with these links and no others. */
export function withLinks<T extends { links?: LinkChoice[] }>(holder: T, links: LinkChoice[]): T {
  const next = { ...holder }
  if (links.length) next.links = links
  else delete next.links
  return next
}

/** A key that is not taken yet. */
export function freshKey(prefix: string, taken: Iterable<string>): string {
  const used = new Set(taken)
  for (let n = 1; ; n++) if (!used.has(`${prefix}${n}`)) return `${prefix}${n}`
}

export type { Elsewhere, ItemTarget, MadeMenuForm, Ways }

/** Every element of its source that a page's document speaks of. */
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
