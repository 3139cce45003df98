/**
 * The outline: which elements are sections. `outline.ts` finds the parts, `linked.ts` adds what menus lead to, `also.ts` further
 * candidates; `facts.ts` weighs elements, `kinds.ts` classifies them, `titles.ts` names them.
 */
export { inFooter, isEmpty, isHiddenByMarkup, isNavigation, within } from './kinds.ts'
export { outline, type Outline } from './outline.ts'
export type { Part } from './parts.ts'
