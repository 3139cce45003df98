/** A walk: `plan.ts` says what to try, `judge.ts` sets what was seen beside what was computed. Whoever drives a browser uses both. */
export { judge, TOLERANCE, type Verdict, type Visit } from './judge.ts'
export { FAR, walkPlan, type Start, type WalkStep } from './plan.ts'
