/** The site document: everything a designer decided about a site. Sources and surveys stand outside it. */
import type { ElementAt } from '../page/index.ts'
import type { NamingRule } from '../naming/index.ts'

export interface Screen {
  key: string
  name: string
  /** Viewport size in CSS px. */
  width: number
  height: number
  touch: boolean
}

export interface Section {
  key: string
  /** The element; for a point the one that it stands before. */
  at: ElementAt
  /** Null for a section that is an element. */
  point: Point | null
  title: string
  id: string
  /** The ID that the element has in the source; null without one, and for a point. */
  own: string | null
  /** IDs that it had; links to them still arrive. The latest last. */
  former: string[]
  heading: ElementAt | null
  /** 0 for a top-level section, 1 for a part of the one before it, and so on. */
  depth: number
  /** Its link goes to the very top of the page. */
  toTop: boolean
}

/** A target with no size, at the top of the element that it stands before. */
export interface Point {
  /** How far below that, in px; negative is above. */
  shift: number
}

export type ItemTarget = { kind: 'section'; section: string } | { kind: 'top' } | { kind: 'as-is' }

export interface Item {
  key: string
  label: string
  target: ItemTarget
  /** The page's own link, in an adopted menu; null for an item that was added. */
  link: ElementAt | null
}

export interface Menu {
  key: string
  name: string
  /** The page's own element; null for a menu that Way Bell makes. */
  at: ElementAt | null
  items: Item[]
}

export interface HeaderChoice {
  at: ElementAt
  /** Make it stay in view although the page lets it scroll away: sticky where it stands in the flow, fixed where it lies over the page. */
  keep: 'sticky' | 'fixed' | null
  /** Painted behind a header that is made to stay and has no background, so that it can be read; null to leave it. */
  backing: string | null
}

/** Where the made menu's bar goes: at the top of the page, right behind the page's own header, or over the page below a fixed header. */
export type BarPlace = 'top' | 'after-header' | 'under-fixed'

export interface SitePage {
  key: string
  file: string
  /** SHA-256 of the source's bytes, in hex. */
  source: string
  title: string
  sections: Section[]
  menus: Menu[]
  header: HeaderChoice | null
  bar: BarPlace
  travel: {
    smooth: boolean
    /** Breathing space between header and section, in px. */
    breathing: number
  }
  highlight: {
    /** How far below the header the bell line lies, in px. */
    bellOffset: number
  }
}

export interface Site {
  format: 'way-bell-site'
  version: 2
  name: string
  rule: NamingRule
  screens: Screen[]
  pages: SitePage[]
}

export const defaultScreens: Screen[] = [
  { key: 'laptop', name: 'Laptop', width: 1280, height: 800, touch: false },
  { key: 'phone', name: 'Phone', width: 390, height: 844, touch: true },
]

export const pageOf = (site: Site, key: string): SitePage => {
  const page = site.pages.find((p) => p.key === key)
  if (!page) throw new CommandError(`the site has no page “${key}”`)
  return page
}

/** A command that does not fit the document; `message` says what is missing or wrong. */
export class CommandError extends Error {
  constructor(message: string) {
    super(message)
    this.name = 'CommandError'
  }
}
