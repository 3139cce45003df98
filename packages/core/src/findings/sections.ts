/** What the rules about a single section have in common. */
import { dropSections, type Section, type SitePage } from '../site/index.ts'
import type { SiteFacts } from './facts.ts'
import type { Fix, Draft } from './finding.ts'

export const dropFix = (page: SitePage, section: Section): Fix => ({ label: 'Remove this section', command: dropSections(page, [section]) })

/** Stays, and a section of the site can be dropped for it. */
export function orDrop(draft: Draft, { sections, page }: SiteFacts): Draft {
  const section = sections.get(draft.where.at!)
  return section ? { ...draft, fix: dropFix(page, section) } : draft
}
