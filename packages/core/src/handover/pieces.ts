/** The elements that hold what a handover writes; shared with the agent, which makes the same ones in the live page. */
import type { PieceRole } from './edits.ts'

export const pieceTags: Record<PieceRole, { tag: string; attributes: Record<string, string> }> = {
  style: { tag: 'style', attributes: { 'data-wb': 'style' } },
  settings: { tag: 'script', attributes: { type: 'application/json', 'data-wb': 'settings' } },
  script: { tag: 'script', attributes: { 'data-wb': 'script' } },
  anchors: { tag: 'div', attributes: { 'data-wb': 'anchors' } },
  menu: { tag: 'nav', attributes: { 'data-wb': 'menu', 'data-wb-menu': '', 'aria-label': 'Sections' } },
}
