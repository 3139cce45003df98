/**
 * A changed page brought in again: `print.ts` fingerprints elements, `match.ts` finds them again, `revise.ts` takes the new version
 * over.
 */
export {
  revisePage,
  reviewRevision,
  takeOver,
  type Decisions,
  type Offer,
  type NewSource,
  type Revision,
  type RevisionRow,
  type RevisionState,
} from './revise.ts'
export type { Version } from './version.ts'
