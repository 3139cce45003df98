/**
 * Arrivals: where the page stops when a visitor follows a link. `survey.ts` says what is measured, `cover.ts` how
 * much of the viewport is covered on arrival, `solve.ts` turns both into arrivals. Pure: no DOM here.
 */
export type { Survey, SurveyPart, SurveyHeader } from './survey.ts'
export { partsByAt, placeOf } from './place.ts'
export { BAR_HEIGHT, coverOf, hasBar, type Cover } from './cover.ts'
export { landing, roomAtEnd, solveArrivals, type Arrival } from './solve.ts'
