/** The current section: `rule.ts` says which it is, `map.ts` draws it for a whole page and finds the best bell line. */
export { bells, currentAt } from './rule.ts'
export { bellMap, bestBellOffset, safeBand, type Band, type Stretch } from './map.ts'
