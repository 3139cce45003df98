/** The change log as undo and redo see it. */
import type { Command } from './commands/index.ts'

export interface Change {
  /** Version of the site that the change led to. */
  version: number
  command: Command
  inverse: Command
  /** Version of the change that this one takes back; null for a change of its own. */
  undoes: number | null
}

export interface Stacks {
  /** Changes that can be taken back, the latest last. */
  undo: Change[]
  /** Changes that can be done again; each takes back a change that itself took one back. */
  redo: Change[]
}

export const emptyStacks: Stacks = { undo: [], redo: [] }

/** The stacks after one more change. */
export function afterChange(stacks: Stacks, change: Change): Stacks {
  const { undo, redo } = stacks
  if (change.undoes === null) return { undo: [...undo, change], redo: [] }
  if (undo.at(-1)?.version === change.undoes) return { undo: undo.slice(0, -1), redo: [...redo, change] }
  if (redo.at(-1)?.version === change.undoes) return { undo: [...undo, change], redo: redo.slice(0, -1) }
  // It takes back what is no longer on top: then it is a change of its own.
  return { undo: [...undo, change], redo: [] }
}
