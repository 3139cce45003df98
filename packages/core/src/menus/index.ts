/**
 * Menus: `adopt.ts` takes over those that a page has, `make.ts` makes some, `markup.ts` writes those, `shown.ts` says where they are seen, `mark.ts` says how their current item is marked; `forms/` has a file for each form of those that are made, `items/`
 * one for each kind of item. Menus are found in the markup by `page/`, since they and the outline say of each other what they are.
 */
export { adoptMenus, itemDepths, pageMenus, targetOf, type MatchedMenu } from './adopt.ts'
export { freshName, itemFor, madeBefore, makeBar, makeMenu, newForm } from './make.ts'
export { builtMenusOf, markFor } from './mark.ts'
export { fieldsOf, formKinds, formOf, formWords, type FormKind } from './form-of.ts'
export { onScrollFrom, partUnder } from './on-scroll.ts'
export { linkOf, markupOf, type Entry } from './markup.ts'
export { foundLookRules, lookRules, lookWords, marksByLook, stateDeclarations, withOpacity } from './look.ts'
export { contrastsOf, contrastTrip, leastOpacity, lowest, nearestInk, type ContrastStretch, type StateContrast } from './contrast.ts'
export { nestedItems, type Nested } from './nest.ts'
export { foldedOn, hiddenOn, isLate, isOn, shownWords, smallOf } from './shown.ts'
export {
  LOOK_FIELDS,
  SMALL,
  STATE_FIELDS,
  FOUND_STATES,
  STATES,
  type ItemState,
  type Field,
  type FormField,
  type Look,
  type PiecePlace,
  type Small,
} from './forms/form.ts'
