/** The change log as undo and redo see it. */
import type { Command } from './commands.ts'

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

/** What a command reads or writes, as keys; two commands without a key in common can be done in either order. */
export function touches(command: Command): string[] {
  switch (command.type) {
    case 'batch':
      return [...new Set(command.commands.flatMap(touches))]
    case 'site/rename':
      return ['site/name']
    case 'site/rule':
      return ['site/rule']
    case 'page/add':
      return ['pages', `${command.page.key}/*`]
    case 'page/drop':
      return ['pages', `${command.page}/*`]
    case 'page/set-up':
    case 'page/revise':
      return [`${command.page}/*`]
    case 'section/title':
    case 'section/to-top':
    case 'section/depth':
    case 'section/point':
      return [`${command.page}/section/${command.section}/${command.type}`]
    case 'section/id':
      return [`${command.page}/ids`]
    case 'section/add':
      return [`${command.page}/section/${command.section.key}/*`, `${command.page}/ids`]
    case 'section/drop':
      return [`${command.page}/section/${command.section}/*`]
    case 'menu/add':
      return [`${command.page}/menu/${command.menu.key}/*`]
    case 'menu/drop':
      return [`${command.page}/menu/${command.menu}/*`]
    case 'item/label':
    case 'item/target':
      return [`${command.page}/menu/${command.menu}/${command.item}/${command.type}`]
    case 'item/add':
      return [`${command.page}/menu/${command.menu}/order`]
    case 'item/drop':
    case 'item/move':
      return [`${command.page}/menu/${command.menu}/order`, `${command.page}/menu/${command.menu}/${command.item}/*`]
    case 'header/choose':
    case 'travel/smooth':
    case 'travel/breathing':
    case 'highlight/bell':
      return [`${command.page}/${command.type}`]
  }
}

/** True where one touches what the other does. */
export function clash(a: Command, b: Command): boolean {
  const covers = (x: string, y: string) => x === y || (x.endsWith('*') && y.startsWith(x.slice(0, -1)))
  const [left, right] = [touches(a), touches(b)]
  return left.some((x) => right.some((y) => covers(x, y) || covers(y, x)))
}
