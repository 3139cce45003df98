/**
 * Commands: every change of a site is one. `apply` is pure and returns the new document and the inverse command. Commands are data: they
 * can be sent, stored, repeated and undone. Each subject has a file with everything about its commands: type, payload, effect, inverse,
 * what they touch, names.
 */
import type { Site } from '../document/index.ts'
import { checkInvariants } from '../invariants.ts'
import { syncMenus } from '../synced-menus.ts'
import { highlightCommands, type HighlightCommand } from './highlight.ts'
import { itemCommands, type ItemCommand } from './item.ts'
import type { Applied, CommandKind, Touched } from './kind.ts'
import { linkCommands, type LinkCommand } from './link.ts'
import { menuCommands, type MenuCommand } from './menu.ts'
import { pageCommands, type PageCommand } from './page.ts'
import { screenCommands, type ScreenCommand } from './screen.ts'
import { sectionCommands, type SectionCommand } from './section.ts'
import { siteCommands, type SiteCommand } from './site.ts'
import { travelCommands, type TravelCommand } from './travel.ts'

export type { SetUp } from './page.ts'
export { faultOfScreen } from './screen.ts'

/** A command that isn't a batch. */
export type SingleCommand =
  SiteCommand | ScreenCommand | PageCommand | SectionCommand | MenuCommand | ItemCommand | LinkCommand | TravelCommand | HighlightCommand

/** Several commands, done and undone as one, with a label. */
export type Batch = { type: 'batch'; label: string; commands: Command[] }

export type Command = SingleCommand | Batch

export const commandKinds = {
  ...siteCommands,
  ...screenCommands,
  ...pageCommands,
  ...sectionCommands,
  ...menuCommands,
  ...itemCommands,
  ...linkCommands,
  ...travelCommands,
  ...highlightCommands,
}

const kindOf = (command: SingleCommand) => commandKinds[command.type] as unknown as CommandKind<SingleCommand, SingleCommand>

/** @throws CommandError when the command doesn't fit the document or would break it; the document stays unchanged */
export function apply(site: Site, command: Command): Applied<Command> {
  const { site: changed, inverse } = step(site, command)
  const next = syncMenus(changed)
  checkInvariants(site, next)
  return { site: next, inverse }
}

function step(site: Site, command: Command): Applied<Command> {
  if (command.type !== 'batch') return kindOf(command).apply(site, command)
  const inverses: Command[] = []
  let now = site
  for (const c of command.commands) {
    const { site: next, inverse } = step(now, c)
    now = next
    inverses.push(inverse)
  }
  return { site: now, inverse: { ...command, commands: inverses.reverse() } }
}

/** A command's name, for undo, redo and the history. */
export const describe = (command: Command): string => (command.type === 'batch' ? command.label : kindOf(command).name)

/** How much a command does, if more than one thing; else null. */
export function extent(command: Command): string | null {
  const count = (n: number, one: string, many: string) => (n === 1 ? `1 ${one}` : `${n} ${many}`)
  if (command.type === 'batch') return command.commands.length > 1 ? count(command.commands.length, 'change', 'changes') : null
  if (command.type !== 'page/set-up') return null
  const { sections, menus } = command.setUp
  const items = menus.reduce((n, m) => n + m.items.length, 0)
  return `${count(sections.length, 'section', 'sections')}, ${count(items, 'menu item', 'menu items')}, header, offsets and marking`
}

/** What a command reads and writes. */
export function touches(command: Command): Touched & { reads: string[] } {
  if (command.type !== 'batch') return { reads: [], ...kindOf(command).touches(command) }
  const all = command.commands.map(touches)
  return { writes: [...new Set(all.flatMap((t) => t.writes))], reads: [...new Set(all.flatMap((t) => t.reads))] }
}

/** True when one writes what the other reads or writes; others can be done in either order. */
export function clash(a: Command, b: Command): boolean {
  const [left, right] = [touches(a), touches(b)]
  return meet(left.writes, [...right.writes, ...right.reads]) || meet(right.writes, left.reads)
}

function meet(xs: readonly string[], ys: readonly string[]): boolean {
  const covers = (x: string, y: string) => x === y || (x.endsWith('*') && y.startsWith(x.slice(0, -1)))
  const plain = new Set(ys.filter((y) => !y.endsWith('*')))
  const wide = ys.filter((y) => y.endsWith('*'))
  return xs.some((x) => plain.has(x) || wide.some((y) => covers(y, x)) || (x.endsWith('*') && ys.some((y) => covers(x, y))))
}
