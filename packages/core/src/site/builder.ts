/** Documents for tests, with empty or initial values by default. */
import { defaultRule } from '../naming/index.ts'
import {
  defaultScreens,
  SITE_VERSION,
  type Item,
  type Menu,
  type Screen,
  type Section,
  type Site,
  type SitePage,
} from './document/index.ts'

/** The n-th section, 10 characters after the one before. */
export const aSection = (n: number, over: Partial<Section> = {}): Section => ({
  key: `s${n}`,
  at: n * 10,
  point: null,
  title: `Section ${n}`,
  id: `id-${n}`,
  sourceId: null,
  former: [],
  heading: null,
  depth: 0,
  toTop: false,
  ...over,
})

/** An item for the n-th section; a found one with `links`. */
export const anItem = (n: number, ...links: number[]): Item => ({
  key: `i${n}`,
  label: `Item ${n}`,
  target: { kind: 'section', section: `s${n}` },
  links,
})

/** A made menu. */
export const aMenu = (items: Item[], over: Partial<Menu> = {}): Menu => ({
  key: 'm1',
  name: 'Menu',
  form: { kind: 'bar', place: 'top' },
  items,
  ...over,
})

export const aPage = (over: Partial<SitePage> = {}): SitePage => ({
  key: 'p1',
  file: 'index.html',
  source: '0',
  title: '',
  sections: [],
  menus: [],
  header: null,
  travel: { smooth: true, breathing: 24 },
  highlight: { bellOffset: 24 },
  ...over,
})

/** One wide, one narrow. */
export const twoScreens: Screen[] = defaultScreens.slice(0, 2)

export const aSite = (...pages: SitePage[]): Site => ({
  format: 'way-bell-site',
  version: SITE_VERSION,
  name: 'Site',
  rule: defaultRule,
  screens: twoScreens,
  pages,
})
