/**
 * The outline: which elements of a page are its sections. `outline.ts` finds the parts, `linked.ts` what the page's menus lead to among them,
 * `also.ts` what may become one; `facts.ts` weighs the elements, `kinds.ts` tells them apart, `titles.ts` names them.
 */
export { inFooter, isEmpty, isHiddenByMarkup, isNavigation, within } from './kinds.ts'
export { outline, type Outline } from './outline.ts'
export type { Part } from './parts.ts'
