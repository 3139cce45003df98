/**
 * Menus: `adopt.ts` takes over those that a page has, `make.ts` makes one, `mark.ts` says how their current item is marked; `forms/` has a file for each form of those that are made, `items/`
 * one for each kind of item. Menus are found in the markup by `page/`, since they and the outline say of each other what they are.
 */
export { adoptMenus, itemDepths, pageMenus, targetOf, type MatchedMenu } from './adopt.ts'
export { makeMenu } from './make.ts'
export { builtMenusOf, markFor } from './mark.ts'
export { formOf } from './form-of.ts'
export type { Link, Look, PiecePlace } from './forms/form.ts'
