/** What the rules about a single section have in common. */
import { dropSections, type Section, type SitePage } from '../site/index.ts'
import type { SiteFacts } from './facts.ts'
import type { Fix, Found } from './finding.ts'

export const dropFix = (page: SitePage, section: Section): Fix => ({ label: 'Drop this section', command: dropSections(page, [section]) })

/** Stays, and a section of the site can be dropped for it. */
export function orDrop(found: Found, { sections, page }: SiteFacts): Found {
  const section = sections.get(found.where.at!)
  return section ? { ...found, fix: dropFix(page, section) } : found
}
