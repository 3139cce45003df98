/** A label without target that opens its nested items, in made menus. */
import type { ItemKind } from './kind.ts'

export interface Target {
  kind: 'group'
}

export const item: ItemKind<Target> = {
  shape: () => ({}),
  href: () => null,
  section: () => null,
}
