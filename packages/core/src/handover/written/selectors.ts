/** Selectors. */
import escapeIdentifier from 'css.escape'
import { SCROLLER } from '../../contract/index.ts'
import type { PageReading } from '../../page/index.ts'
import type { Section, SitePage } from '../../site/index.ts'

/** Selects a section's element: by ID, or by `name` on old pages. */
export function selectorOf(section: Section, reading: PageReading): string {
  const hasId = section.block !== undefined || section.sourceId !== section.id || reading.ids.some((i) => i.at === section.at)
  return hasId ? idSelector(section.id) : `a[name="${section.id.replace(/["\\]/g, '\\$&')}"]`
}

/** An ID as a CSS selector. @see CSSOM, "serialize an identifier" */
export const idSelector = (id: string): string => `#${escapeIdentifier(id)}`

/** The scroller as a selector; on other screens it may be the document. */
export const scrolls = ({ scroller }: SitePage) => (scroller === undefined ? 'html:root' : `html:root,\n:root [${SCROLLER}]`)
