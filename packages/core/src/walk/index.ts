/**
 * A walk: `plan.ts` says what to try, `judge.ts` compares what was seen with what was computed; `tried.ts` does it for the quick walk,
 * which follows menu links. For anything that drives a browser.
 */
export { judge, TOLERANCE, type Verdict, type Visit } from './judge.ts'
export { FAR, walkPlan, type Start, type WalkStep } from './plan.ts'
export {
  coveringMenu,
  isLeftOpen,
  itemsHere,
  judgeTried,
  knownMenusOf,
  mayPass,
  stopsElsewhere,
  takenLinks,
  triedKey,
  triedTwice,
  type SizeProblem,
  type Stop,
  type TakenLinks,
  type Tried,
  type TryFault,
  type TryVerdict,
} from './tried.ts'
