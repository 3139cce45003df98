/** Where a link of the page's own leads, where that is another place than before. */
import { NEW_TAB } from '../../contract/index.ts'
import type { PageLink } from '../../page/index.ts'
import type { Way } from '../../site/index.ts'
import type { For, PlannedEdit } from '../edit.ts'

/** @param named what leads there, for the reason: `the item “Tickets”` */
export function planTarget({ at, href: was }: PageLink, { href, isNewTab }: Way, named: string, about: For = {}): PlannedEdit[] {
  const values = { ...(href === null || href === was ? {} : { href }), ...(isNewTab ? NEW_TAB : {}) }
  return Object.entries(values).map(([name, value]) => ({
    edit: { kind: 'attribute', at, name, value },
    why: name === 'href' ? `Where ${named} leads.` : `So that ${named} opens in a tab of its own.`,
    for: about,
    layout: null,
  }))
}
