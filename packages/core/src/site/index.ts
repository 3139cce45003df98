/**
 * The site: `document/` holds what a designer decided, `commands/` how it changes, `invariants.ts` what always holds, `steps.ts` has
 * edits of several commands, `history.ts` undo and redo, `upgrade.ts` upgrades earlier versions.
 */
export * from './document/index.ts'
export { CommandError } from './errors.ts'
export {
  addSection,
  depthsOf,
  dropMenu,
  dropPage,
  dropSections,
  endsWithout,
  leadersTo,
  mergeWithNext,
  moveItem,
  nestItem,
  nestSection,
  renameSection,
  renameSections,
  takeToPages,
  withOtherPages,
  knownOutside,
  type KnownOutside,
  type Otherwise,
} from './steps.ts'
export { setUpOf } from './commands/page.ts'
export { syncedKey } from './synced-menus.ts'
export {
  apply,
  clash,
  commandKinds,
  describe,
  extent,
  touches,
  type Batch,
  type Command,
  type SetUp,
  faultOfScreen,
} from './commands/index.ts'
export { fourth, secondCommand, secondSite, ThirdLog, thirdSite, upgradeSite } from './upgrade.ts'
export { afterChange, emptyStacks, STACK_PAGE, type Change, type StackName, type Stacks } from './history.ts'
