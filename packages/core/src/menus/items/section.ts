/** Leads to a section of the page. */
import { hashOf } from '../../contract/index.ts'
import type { ItemKind } from './kind.ts'

export interface Target {
  kind: 'section'
  section: string
}

export const item: ItemKind<Target> = {
  shape: (s) => ({ section: s.key }),
  href: ({ section }, { idOf }) => hashOf(idOf(section)),
  section: ({ section }) => section,
}
