/** The current section: `rule.ts` decides it, `map.ts` maps a whole page and finds the best bell line. */
export { bells, currentAt } from './rule.ts'
export { bellMap, bestBellOffset, safeBand, type Band, type Stretch } from './map.ts'
