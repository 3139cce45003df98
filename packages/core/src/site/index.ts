/** The site document and its commands. */
export * from './document.ts'
export { apply, describe, type Applied, type Command, type SetUp } from './commands.ts'
export { afterChange, clash, emptyStacks, touches, type Change, type Stacks } from './history.ts'
