/** What a handover wrote into a page, found again when the page is brought in a second time. */
import { ANCHOR, HEADER, NEW_TAB, readSettings, SCROLLER, type PieceRole, type WrittenSettings } from '../contract/index.ts'
import type { Tree } from './tree.ts'

export interface WrittenLink {
  href: string
  label: string
  isNewTab: boolean
  title?: string
  lang?: string
}

export interface Written {
  /** Positions in the source of the pieces to replace, `[start, end)` by role. */
  pieces: Partial<Record<PieceRole, { start: number; end: number }>>
  settings: WrittenSettings | null
  /** Elements that points stand before, by what their `data-wb-anchor` says. */
  anchors: Record<string, number>
  /** The element that was the page's header. */
  header: number | null
  /** The element in which the page was seen to scroll. */
  scroller: number | null
  /** Links of the menu that was made. */
  menu: { links: WrittenLink[] } | null
}

export function readWritten(tree: Tree): Written {
  const pieces: Written['pieces'] = {}
  let settings: WrittenSettings | null = null
  let menu: Written['menu'] = null
  for (const piece of tree.written) {
    if (pieces[piece.role]) continue
    pieces[piece.role] = { start: piece.at, end: piece.end }
    if (piece.role === 'settings') settings = readSettings(piece.text)
    if (piece.role === 'menu') menu = { links: menuLinks(piece.node) }
  }
  const anchors: Written['anchors'] = {}
  let header: number | null = null
  let scroller: number | null = null
  for (const el of tree.all) {
    if (settings && el.attrs.has(HEADER) && el.at >= 0) header ??= el.at
    if (settings && el.attrs.has(SCROLLER) && el.at >= 0) scroller ??= el.at
    const name = el.attrs.get(ANCHOR)
    if (name && el.at >= 0) anchors[name] ??= el.at
  }
  return { pieces, settings, anchors, header, scroller, menu }
}

function menuLinks(node: Tree['written'][number]['node']): WrittenLink[] {
  const out: WrittenLink[] = []
  const visit = (n: typeof node) => {
    if (n.tagName === 'a') {
      const value = (name: string) => n.attrs.find((a) => a.name === name)?.value
      const label = n.childNodes.map((c) => ('value' in c ? c.value : '')).join('')
      const [title, lang] = [value('title'), value('lang')]
      const said = { ...(title !== undefined && { title }), ...(lang !== undefined && { lang }) }
      out.push({ href: value('href') ?? '', label, isNewTab: value('target') === NEW_TAB.target, ...said })
    }
    for (const child of n.childNodes) if ('tagName' in child) visit(child)
  }
  visit(node)
  return out
}
