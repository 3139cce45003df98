/** What the rules about a single section have in common. */
import { dropSections, type Section } from '../site/index.ts'
import type { SiteFacts } from './facts.ts'
import type { Fix, Draft } from './finding.ts'

export const dropFix = ({ site, page }: SiteFacts, section: Section): Fix => ({
  label: 'Remove this section',
  command: dropSections(site, page, [section]),
})

/** Stays, and a section of the site can be dropped for it. */
export function orDrop(draft: Draft, facts: SiteFacts): Draft {
  const section = facts.sections.get(draft.where.at!)
  return section ? { ...draft, fix: dropFix(facts, section) } : draft
}
