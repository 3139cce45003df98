/** The site document and its commands. */
export * from './document.ts'
export { addSection, depthsOf, dropSections, mergeWithNext, nestSection, renameSection, renameSections } from './steps.ts'
export { apply, describe, type Applied, type Command, type SetUp } from './commands.ts'
export { upgradeCommand, upgradeSite } from './upgrade.ts'
export { afterChange, clash, emptyStacks, touches, type Change, type Stacks } from './history.ts'
