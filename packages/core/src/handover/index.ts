/**
 * Handover: what leaves Way Bell. `plan.ts` plans the edits with reasons, `written/` has each thing that is written, `order.ts` a menu's
 * order; `outputs/` makes the files.
 */
export type { NewEntry, PageEdit, PlannedEdit } from './edit.ts'
export { liveScriptWith, SCRIPT_PARTS, type HandoverInput, type LiveScripts, type ScriptPart } from './input.ts'
export { writePage, type Handover } from './outputs/page.ts'
export { handoverPlan, layoutOf, pageEdits } from './plan.ts'
export { byDecisions } from './ranges.ts'
export { idSelector } from './written/selectors.ts'
export { pageStyle } from './written/style.ts'
export { waysFrom } from './writing.ts'
