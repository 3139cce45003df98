/** Naming: `rule.ts` makes IDs from titles, `check.ts` finds faults, `words.ts` picks the words that carry a title. */
export { defaultRule, freeId, idFromTitle, proposeId, typedName, wrapName, type NamingRule } from './rule.ts'
export { checkId, faultOf, isKeepable, isSelector, soundId, type IdCode, type IdContext, type IdProblem, type Owner } from './check.ts'
export { isCarrying, LABEL_LENGTH, labelOf } from './words.ts'
