/** Handover: what leaves Way Bell. */
export { pageEdits, type NewSlot, type PageEdit, type PieceRole } from './edits.ts'
export { writePage, type Handover } from './bytes.ts'
export type { HandoverInput } from './input.ts'
export { pieceTags } from './pieces.ts'
export { idSelector, pageStyle } from './style.ts'
