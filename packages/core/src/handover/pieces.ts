/** The elements that hold what a handover writes; shared with the agent, which makes the same ones in the live page. */
import type { PieceRole } from './edits.ts'

export const pieceTags: Record<PieceRole, { tag: string; attributes: Record<string, string>; isVoid?: true }> = {
  style: { tag: 'style', attributes: { 'data-wb': 'style' } },
  settings: { tag: 'script', attributes: { type: 'application/json', 'data-wb': 'settings' } },
  script: { tag: 'script', attributes: { 'data-wb': 'script' } },
  anchor: { tag: 'meta', attributes: { 'data-wb': 'anchor', name: 'way-bell', content: 'anchor' }, isVoid: true },
  menu: { tag: 'nav', attributes: { 'data-wb': 'menu', 'data-wb-menu': '', 'aria-label': 'Sections' } },
}
