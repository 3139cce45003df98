/** The skip link, past everything before the first section, for keyboards and screen readers. */
import { escapeText } from 'entities'
import { hashOf, SAME_TAB } from '../../contract/index.ts'
import type { PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../writing.ts'

export function planSkip({ page: { travel, sections }, reading }: WritingInput): PlannedEdit[] {
  const [first] = sections
  if (travel.skip === undefined || !first) return []
  return [
    {
      edit: {
        kind: 'piece',
        role: 'skip',
        place: 'body-start',
        text: escapeText(travel.skip),
        attributes: { href: hashOf(first.id), ...(reading.baseLeaves && SAME_TAB) },
      },
      why: `The skip link to “${first.title}”.`,
      for: {},
      layout: null,
    },
  ]
}
