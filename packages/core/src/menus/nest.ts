/** Nested items of a made menu. */
import type { Item, MadeMenu } from '../site/index.ts'
import { formOf } from './form-of.ts'

export interface Nested {
  item: Item
  children: Nested[]
}

/** At most one level deeper than the item before, within its form's levels; without items that have no target. */
export function nestedItems(menu: MadeMenu): Nested[] {
  const { levels } = formOf(menu.form)
  const top: Nested[] = []
  const open = [top]
  for (const item of menu.items) {
    if (item.target.kind === 'as-is') continue
    const one: Nested = { item, children: [] }
    const depth = Math.min(item.depth ?? 0, open.length - 1, levels - 1)
    open.length = depth + 1
    open[depth]!.push(one)
    open.push(one.children)
  }
  return withoutEmpty(top)
}

/** A group without items is left out. */
const withoutEmpty = (all: readonly Nested[]): Nested[] =>
  all.flatMap(({ item, children }) => {
    const kept = withoutEmpty(children)
    return item.target.kind === 'group' && !kept.length ? [] : [{ item, children: kept }]
  })
