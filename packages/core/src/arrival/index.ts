/**
 * Arrivals: where the page stops when a visitor follows a link. `cover.ts` says how much of the viewport is covered on arrival,
 * `solve.ts` computes arrivals from that, `time.ts` the duration. Pure: no DOM here.
 */
export { partsByAt, partOf, standsAbove } from './part.ts'
export {
  canBeKept,
  coverOf,
  coverOfBar,
  isKept,
  isLetGo,
  isOwnTravel,
  isReached,
  MOST_OF_SCREEN,
  shiftOf,
  withMade,
  smallerBy,
  type Cover,
} from './cover.ts'
export { landing, leastAdjust, leastBreathing, roomAtEnd, solveArrivals, type Arrival } from './solve.ts'
export { endSpaceFor, endSpaceHolder, endSpaceOn } from './end-space.ts'
export { badness, signOf, type ArrivalSign, type Sign } from './sign.ts'
export { travelTime } from './time.ts'
export { matchingScroll, type Travelled } from './matching-scroll.ts'
