/**
 * Menus: `adopt.ts` adopts the page's own, `make.ts` makes new ones, `markup.ts` writes those, `shown.ts` says where they're visible,
 * `mark.ts` how the current item is marked; `forms/` has a file for each form, `items/` for each kind of item. `page/` finds menus,
 * because menus and outline depend on each other.
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
