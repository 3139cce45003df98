/** Leads to another page of the site, or a section of it. */
import type { ItemKind } from './kind.ts'

export interface Target {
  kind: 'page'
  page: string
  /** Null for the whole page. */
  section: string | null
}

export const item: ItemKind<Target> = {
  shape: (s) => ({ page: s.key, section: s.key.allow(null) }),
  href: ({ page, section }, { addressOf }) => addressOf({ page, section }),
  section: () => null,
  elsewhere: ({ page, section }) => ({ page, section }),
}
