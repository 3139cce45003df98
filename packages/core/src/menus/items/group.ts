/** Words that lead nowhere and open the list of the items that are nested in it; in a menu that is made. */
import type { ItemKind } from './kind.ts'

export interface Target {
  kind: 'group'
}

export const item: ItemKind<Target> = {
  shape: () => ({}),
  href: () => null,
  section: () => null,
}
