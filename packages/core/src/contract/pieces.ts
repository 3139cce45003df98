/**
 * Pieces: the elements that a handover writes, and how to recognise them. A page may have `data-wb` of its own: ours have our element,
 * our attributes and our content; everything else belongs to the page.
 */
import { MADE, MENU, MOTION, PIECE, SAME_TAB } from './attributes.ts'
import { readMade } from './made-words.ts'
import { readSettings } from './settings.ts'

export const pieceTags = {
  style: { tag: 'style', attributes: { [PIECE]: 'style' } },
  settings: { tag: 'script', attributes: { type: 'application/json', [PIECE]: 'settings' } },
  script: { tag: 'script', attributes: { [PIECE]: 'script' } },
  anchor: { tag: 'meta', attributes: { [PIECE]: 'anchor', name: 'way-bell', content: 'anchor' }, isVoid: true },
  menu: { tag: 'nav', attributes: { [PIECE]: 'menu', [MENU]: '' } },
  step: { tag: 'p', attributes: { [PIECE]: 'step' } },
  skip: { tag: 'a', attributes: { [PIECE]: 'skip' } },
} satisfies Record<string, { tag: string; attributes: Record<string, string>; isVoid?: true }>

export type PieceRole = keyof typeof pieceTags

/** The parts of an element that identify a piece. */
export interface Piecelike {
  tag: string
  attributes: ReadonlyMap<string, string>
  /** Its text, if it has no child elements. */
  text: string
  /** Tags of its child elements. */
  children: readonly string[]
}

const content: Record<PieceRole, (el: Piecelike) => boolean> = {
  // Early styles had no name in them.
  style: ({ text }) => text.includes('Way Bell') || text.includes('--wb-header:'),
  settings: ({ text }) => readSettings(text) !== null,
  // Earlier scripts all set the header's height.
  script: ({ text }) => /data-wb-menu|--wb-header/.test(text) && text.includes('data-wb'),
  anchor: () => true,
  // Early menus were a bar of bare links.
  menu: ({ children, attributes }) =>
    attributes.has(MADE) ? readMade(attributes.get(MADE)!) !== null : children.every((tag) => tag === 'a'),
  skip: ({ text }) => text.trim() !== '',
  step: ({ attributes, children }) => readMade(attributes.get(MADE)!) !== null && children.every((tag) => tag === 'a'),
}

/** The role of a piece of ours; null for the page's own elements. */
export function roleOf(el: Piecelike): PieceRole | null {
  const role = el.attributes.get(PIECE)
  if (role === undefined || !Object.keys(pieceTags).includes(role)) return null
  const { tag, attributes } = pieceTags[role as PieceRole]
  // Only some have these.
  const said = [MADE, MOTION].filter((name) => el.attributes.has(name))
  const own: Partial<Record<PieceRole, string[]>> = {
    anchor: ['id'],
    menu: ['aria-label', ...said],
    step: [MADE, ...said],
    // On pages whose links open in another tab.
    skip: ['href', ...(el.attributes.get('target') === SAME_TAB.target ? ['target'] : [])],
  }
  const free = own[role as PieceRole] ?? []
  const names = [...new Set([...Object.keys(attributes), ...free])]
  const isOurs =
    el.tag === tag &&
    el.attributes.size === names.length &&
    names.every(
      (name) =>
        el.attributes.has(name) && (free.includes(name) || el.attributes.get(name) === (attributes as Record<string, string>)[name]),
    )
  return isOurs && content[role as PieceRole](el) ? (role as PieceRole) : null
}
