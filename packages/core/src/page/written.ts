/** Finds what an earlier handover wrote into a page. */
import {
  ANCHOR,
  ESTIMATE,
  hashOf,
  HEADER,
  LOOK,
  MADE,
  MOTION,
  NEW_TAB,
  OFF,
  readMade,
  readMotion,
  readSettings,
  ROOM,
  SCROLLER,
  SHUT_BY,
  SHUTS,
  SIZED,
  WAS,
  type Motion,
  type WrittenSettings,
} from '../contract/index.ts'
import type { Tree } from './tree.ts'

/** An item of a made menu. */
export interface WrittenItem {
  label: string
  /** Null for an opener. */
  link: { href: string; isNewTab: boolean } | null
  title?: string
  lang?: string
  motion?: Motion
  depth: number
  /** Keys of screens that it isn't on. */
  off: string[]
}

export interface WrittenMenu {
  name: string
  /** Its `data-wb-made`; null for early handovers, which wrote none. */
  made: string | null
  motion?: Motion
  items: WrittenItem[]
}

export interface Written {
  settings: WrittenSettings | null
  /** Elements with points before them, by their `data-wb-anchor`. */
  anchors: Record<string, number>
  /** The page's header. */
  header: number | null
  /** The element in which the page scrolls. */
  scroller: number | null
  /** The element with the end space. */
  endSpace: number | null
  /** `data-wb-look` of found menus, by element. */
  looks: Record<number, string>
  /** Motions of links and menus, by element. */
  motions: Record<number, Motion>
  /** Buttons that close found menus, by element. */
  shutBy: Record<number, number>
  /** Pictures that got sizes. */
  pictures: { at: number; width: number; height: number }[]
  /** Elements with estimated heights. */
  estimates: number[]
  /** Text of our skip link; null for none. */
  skip: string | null
  /** Buttons that became links. */
  buttons: boolean
  /** Made menus, by number. */
  menus: WrittenMenu[]
}

export function readWritten(tree: Tree): Written {
  let settings: WrittenSettings | null = null
  let skip: string | null = null
  const menus: WrittenMenu[] = []
  for (const piece of tree.written) {
    if (piece.role === 'menu') menus.push(menuOf(piece.node))
    if (piece.role === 'step') addStep(menus, piece.node)
    if (piece.role === 'skip') skip ??= piece.text
    if (piece.role === 'settings') settings ??= readSettings(piece.text)
  }
  const anchors: Written['anchors'] = {}
  let header: number | null = null
  let scroller: number | null = null
  let endSpace: number | null = null
  let buttons = false
  const looks: Written['looks'] = {}
  const motions: Written['motions'] = {}
  const estimates: Written['estimates'] = []
  const pictures: Written['pictures'] = []
  const shut: [at: number, number: string][] = []
  const shutters = new Map<string, number>()
  for (const el of tree.all) {
    if (settings && el.attrs.has(HEADER) && el.at >= 0) header ??= el.at
    if (settings && el.attrs.has(SCROLLER) && el.at >= 0) scroller ??= el.at
    if (settings && el.attrs.has(ROOM) && el.at >= 0) endSpace ??= el.at
    if (settings && el.tag === 'a' && el.attrs.has(WAS)) buttons = true
    if (settings && el.attrs.has(LOOK) && el.at >= 0) looks[el.at] = el.attrs.get(LOOK)!
    const motion = settings && readMotion(el.attrs.get(MOTION))
    if (motion && el.at >= 0) motions[el.at] = motion
    if (settings && el.attrs.has(SHUTS) && el.at >= 0) for (const number of el.attrs.get(SHUTS)!.split(' ')) shutters.set(number, el.at)
    if (settings && el.attrs.has(SHUT_BY) && el.at >= 0) shut.push([el.at, el.attrs.get(SHUT_BY)!])
    if (settings && el.attrs.has(ESTIMATE) && el.at >= 0) estimates.push(el.at)
    const [width, height] = ['width', 'height'].map((name) => Number(el.attrs.get(name)))
    if (settings && el.attrs.has(SIZED) && el.at >= 0 && width! > 0 && height! > 0)
      pictures.push({ at: el.at, width: width!, height: height! })
    const name = el.attrs.get(ANCHOR)
    if (name && el.at >= 0) anchors[name] ??= el.at
  }
  const shutBy = Object.fromEntries(shut.flatMap(([at, number]) => (shutters.has(number) ? [[at, shutters.get(number)!]] : [])))
  return {
    settings,
    anchors,
    header,
    scroller,
    endSpace,
    looks,
    motions,
    shutBy,
    pictures,
    estimates,
    skip,
    buttons,
    menus: menus.sort((a, b) => numberOf(a) - numberOf(b)),
  }
}

const numberOf = ({ made }: WrittenMenu): number => parseInt(made ?? '1')

/** A link under a section belongs to the menu with its number: the section's item, and the one it leads to. */
function addStep(menus: WrittenMenu[], node: Node): void {
  const made = valueOf(node, MADE)!
  const { number, words } = readMade(made)!
  let menu = menus.find((m) => m.made !== null && readMade(m.made)?.number === number)
  if (!menu) menus.push((menu = { name: words.name ?? '', made, items: [] }))
  const item = (href: string, over: Partial<WrittenItem> = {}): WrittenItem => ({
    label: '',
    link: { href, isNewTab: false },
    depth: 0,
    off: [],
    ...over,
  })
  const own = hashOf(words.of ?? '')
  if (menu.items[menu.items.length - 1]?.link?.href !== own) menu.items.push(item(own))
  const [to] = menuOf(node).items
  const says = elementsIn(node).map((a) => valueOf(a, 'aria-label'))[0]
  if (to) menu.items.push(says !== undefined && words.text ? { ...to, label: says.slice(words.text.length + 2) } : to)
}

type Node = Tree['written'][number]['node']

const valueOf = (node: Node, name: string) => node.attrs.find((a) => a.name === name)?.value
const elementsIn = (node: Node): Node[] => node.childNodes.flatMap((n) => ('tagName' in n ? n : []))
const textOf = (node: Node): string => node.childNodes.map((n) => ('value' in n ? n.value : 'tagName' in n ? textOf(n) : '')).join('')

function motionOf(node: Node): { motion?: Motion } {
  const motion = readMotion(valueOf(node, MOTION))
  return motion ? { motion } : {}
}

function menuOf(node: Node): WrittenMenu {
  const items: WrittenItem[] = []
  const visit = (n: Node, depth: number, off: string[]) => {
    const isWords = (n.tagName === 'summary' && valueOf(n, 'aria-label') === undefined) || valueOf(n, 'class') === 'wb-words'
    if (n.tagName === 'a' || isWords) {
      const [title, lang] = [valueOf(n, 'title'), valueOf(n, 'lang')]
      const link = n.tagName === 'a' ? { href: valueOf(n, 'href') ?? '', isNewTab: valueOf(n, 'target') === NEW_TAB.target } : null
      items.push({
        label: textOf(n),
        link,
        ...(title !== undefined && { title }),
        ...(lang !== undefined && { lang }),
        ...motionOf(n),
        depth: Math.max(0, depth),
        off,
      })
      return
    }
    const isFold = valueOf(n, 'class') === 'wb-fold'
    const own = n.tagName === 'li' ? (valueOf(n, OFF)?.split(' ').filter(Boolean) ?? []) : off
    for (const child of elementsIn(n))
      if (!isFold || child.tagName !== 'summary') visit(child, depth + (child.tagName === 'ul' ? 1 : 0), own)
  }
  visit(node, -1, [])
  return { name: valueOf(node, 'aria-label') ?? '', made: valueOf(node, MADE) ?? null, ...motionOf(node), items }
}
