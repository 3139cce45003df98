/**
 * A walk: `plan.ts` says what to try, `judge.ts` sets what was seen beside what was computed; `tried.ts` does so for the quick walk, which
 * follows what the menus hold. Whoever drives a browser uses them.
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
