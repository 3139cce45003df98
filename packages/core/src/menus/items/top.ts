/** Leads to the top of the page. */
import type { ItemKind } from './kind.ts'

export interface Target {
  kind: 'top'
}

export const item: ItemKind<Target> = {
  shape: () => ({}),
  href: () => '#',
  section: () => null,
}
