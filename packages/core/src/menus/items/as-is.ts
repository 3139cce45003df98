/** Leaves a link of the page as it is. */
import type { ItemKind } from './kind.ts'

export interface Target {
  kind: 'as-is'
}

export const item: ItemKind<Target> = {
  shape: () => ({}),
  href: () => null,
  section: () => null,
}
