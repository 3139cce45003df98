/** Shared by the rules about a single section. */
import { dropSections, type Section } from '../site/index.ts'
import type { SiteFacts } from './facts.ts'
import type { Fix, Draft } from './finding.ts'

export const dropFix = ({ site, page }: SiteFacts, section: Section): Fix => ({
  label: 'Remove this section',
  command: dropSections(site, page, [section]),
})

/** Stays open; the fix drops the section. */
export function orDrop(draft: Draft, facts: SiteFacts): Draft {
  const section = facts.sections.get(draft.where.at!)
  return section ? { ...draft, fix: dropFix(facts, section) } : draft
}
