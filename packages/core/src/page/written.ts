/**
 * What a handover writes into a page, and how it is found again when the page is brought in a second time. Pieces carry
 * `data-wb` with their role: `style`, `settings`, `script`, `menu`, `anchor`.
 */
import { decodeFragment } from './fragment.ts'
import type { Tree } from './tree.ts'

/** What the script in the page goes by; JSON in the piece `settings`. Lengths in CSS px. */
export interface Settings {
  /** IDs of the sections, in page order. */
  sections: string[]
  /** IDs of those whose link goes to the top of the page. */
  toTop: string[]
  /** Former ID to the ID that its section has now. */
  former: Record<string, string>
  /** Sections that are points, by ID: the number in `data-wb-anchor` of the element that it stands before, and how far below its top. */
  points: Record<string, [anchor: number, shift: number]>
  breathing: number
  bellOffset: number
  smooth: boolean
  /** The page's header is made to stay in view. */
  keep: boolean
  /** Widest viewport of each screen with how much the page's header grows after moving (negative: shrinks), null where that was not measured; the last is for all wider. */
  shrink: [width: number, change: number | null][]
  /** Height of the made menu's bar, 0 without one. */
  bar: number
}

export type WrittenSettings = Omit<Settings, 'shrink' | 'bar'>

/** Says which element a point stands before. */
export const ANCHOR = 'data-wb-anchor'

export interface Written {
  /** Positions in the source of the pieces to replace, `[start, end)` by role. */
  pieces: Record<string, { start: number; end: number }>
  settings: WrittenSettings | null
  /** Elements that points stand before, by what their `data-wb-anchor` says. */
  anchors: Record<string, number>
  /** The made menu's items; an empty ID is the top. */
  menu: { items: { id: string; label: string }[] } | null
}

export function readWritten(tree: Tree): Written {
  const pieces: Written['pieces'] = {}
  let settings: WrittenSettings | null = null
  let menu: Written['menu'] = null
  for (const piece of tree.written) {
    if (pieces[piece.role]) continue
    pieces[piece.role] = { start: piece.at, end: piece.end }
    if (piece.role === 'settings') settings = parseSettings(piece.text)
    if (piece.role === 'menu') menu = { items: menuItems(piece.node) }
  }
  const anchors: Written['anchors'] = {}
  for (const el of tree.all) {
    const name = el.attrs.get(ANCHOR)
    if (name && el.at >= 0) anchors[name] ??= el.at
  }
  return { pieces, settings, anchors, menu }
}

/** Null for what we did not write, or what was changed by hand beyond use: it is then proposed anew. */
function parseSettings(text: string): WrittenSettings | null {
  try {
    const s = JSON.parse(text) as Partial<Settings>
    const isIds = (x: unknown): x is string[] => Array.isArray(x) && x.every((i) => typeof i === 'string')
    const isLength = (x: unknown): x is number => typeof x === 'number' && Number.isFinite(x) && Math.abs(x) < 10000
    const record = <T>(given: Record<string, T> | undefined, fits: (x: unknown) => boolean) =>
      Object.fromEntries(Object.entries(given ?? {}).filter(([, x]) => fits(x)))
    if (!isIds(s.sections) || !isIds(s.toTop) || !isLength(s.breathing) || !isLength(s.bellOffset)) return null
    return {
      sections: s.sections,
      toTop: s.toTop,
      former: record(s.former, (x) => typeof x === 'string'),
      points: record(s.points, (x) => Array.isArray(x) && x.length === 2 && x.every(isLength)),
      breathing: s.breathing,
      bellOffset: s.bellOffset,
      smooth: s.smooth !== false,
      keep: s.keep === true,
    }
  } catch {
    return null
  }
}

function menuItems(node: Tree['written'][number]['node']): { id: string; label: string }[] {
  const out: { id: string; label: string }[] = []
  const visit = (n: typeof node) => {
    if (n.tagName === 'a') {
      const href = n.attrs.find((a) => a.name === 'href')?.value ?? ''
      const label = n.childNodes.map((c) => ('value' in c ? c.value : '')).join('')
      out.push({ id: decodeFragment(href.slice(1)), label })
    }
    for (const child of n.childNodes) if ('tagName' in child) visit(child)
  }
  visit(node)
  return out
}
