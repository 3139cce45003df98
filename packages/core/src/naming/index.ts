/** Naming: `rule.ts` makes IDs from titles, `check.ts` says what is wrong with one. */
export { defaultRule, freeId, idFromTitle, proposeId, typedName, wrapName, type NamingRule } from './rule.ts'
export { checkId, faultOf, isKeepable, isSelector, soundId, type IdCode, type IdContext, type IdProblem, type Owner } from './check.ts'
