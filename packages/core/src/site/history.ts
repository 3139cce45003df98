/** The changes of a site as undo and redo see them. */
import type { Command } from './commands/index.ts'

export interface Change {
  /** Version of the site that the change led to; below 0 until the server has given one. */
  version: number
  command: Command
  inverse: Command
  /** Version of the change that this one takes back; null for a change of its own. */
  undoes: number | null
  /** The browser tab that made it; null where the server did. */
  tab: string | null
}

export type StackName = 'undo' | 'redo'

export interface Stacks {
  /** Changes that can be taken back, the latest last. */
  undo: Change[]
  /** Changes that can be made again; each took one back. */
  redo: Change[]
}

export const emptyStacks: Stacks = { undo: [], redo: [] }

/** The server sends this many changes of a stack at once, the latest ones. */
export const STACK_PAGE = 100

/** The stacks after one more change. Several tabs work on one site, so a change that is taken back need not be the last one. */
export function afterChange({ undo, redo }: Stacks, change: Change): Stacks {
  const without = (stack: Change[]) => stack.filter((c) => c.version !== change.undoes)
  if (change.undoes === null) return { undo: [...undo, change], redo: [] }
  if (redo.some((c) => c.version === change.undoes)) return { undo: [...undo, change], redo: without(redo) }
  return { undo: without(undo), redo: [...redo, change] }
}
