/** What stands before a rule’s declarations. */
import escapeIdentifier from 'css.escape'
import { SCROLLER } from '../../contract/index.ts'
import type { PageReading } from '../../page/index.ts'
import type { Section, SitePage } from '../../site/index.ts'

/** A section's element: by its ID, or by the name that it has instead, as pages had them before any element could be a target. */
export function selectorOf(section: Section, reading: PageReading): string {
  const hasId = section.block !== undefined || section.sourceId !== section.id || reading.ids.some((i) => i.at === section.at)
  return hasId ? idSelector(section.id) : `a[name="${section.id.replace(/["\\]/g, '\\$&')}"]`
}

/** An ID as a CSS selector. @see CSSOM, "serialize an identifier" */
export const idSelector = (id: string): string => `#${escapeIdentifier(id)}`

/** What scrolls, as a selector: on other screens than those measured it may be the document too. */
export const scrolls = ({ scroller }: SitePage) => (scroller === undefined ? 'html:root' : `html:root,\n:root [${SCROLLER}]`)
