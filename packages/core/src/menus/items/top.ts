/** Leads to the page's top. */
import type { ItemKind } from './kind.ts'

export interface Target {
  kind: 'top'
}

export const item: ItemKind<Target> = {
  shape: () => ({}),
  href: () => '#',
  section: () => null,
}
