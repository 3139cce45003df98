/** Handover: what leaves Way Bell. */
export { pageEdits, boundary, type HandoverInput, type NewSlot, type PageEdit, type PieceRole } from './edits.ts'
export { writePage, type Handover } from './bytes.ts'
export { pieceTags } from './pieces.ts'
export { idSelector, pageStyle } from './style.ts'
