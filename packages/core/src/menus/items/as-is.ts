/** A link of the page's own that goes where it went before. */
import type { ItemKind } from './kind.ts'

export interface Target {
  kind: 'as-is'
}

export const item: ItemKind<Target> = {
  shape: () => ({}),
  href: () => null,
  section: () => null,
}
