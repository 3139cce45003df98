/** A site's changes, for undo and redo. */
import type { Command } from './commands/index.ts'

export interface Change {
  /** Site version after the change; negative until the server assigns one. */
  version: number
  command: Command
  inverse: Command
  /** Version of the change that this one undoes; null for an ordinary change. */
  undoes: number | null
  /** The browser tab that made it; null for the server. */
  tab: string | null
}

export type StackName = 'undo' | 'redo'

export interface Stacks {
  /** Changes that can be undone, the latest last. */
  undo: Change[]
  /** Undos that can be redone. */
  redo: Change[]
}

export const emptyStacks: Stacks = { undo: [], redo: [] }

/** Number of latest changes that the server sends per stack. */
export const STACK_PAGE = 100

/** The stacks after one more change. With several tabs, an undone change needn't be the last one. */
export function afterChange({ undo, redo }: Stacks, change: Change): Stacks {
  const without = (stack: Change[]) => stack.filter((c) => c.version !== change.undoes)
  if (change.undoes === null) return { undo: [...undo, change], redo: [] }
  if (redo.some((c) => c.version === change.undoes)) return { undo: [...undo, change], redo: without(redo) }
  return { undo: without(undo), redo: [...redo, change] }
}
