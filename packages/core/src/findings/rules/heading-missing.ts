/** An offered section without a heading. */
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'sections',
  inPage: ({ reading }) =>
    reading.candidates.flatMap(({ offered, heading, title, tag, line, column, at }) =>
      offered && heading === null
        ? {
            message: `“${title}” (${tag}) has no heading, so a visitor who arrives can’t tell where. Add one.`,
            line,
            column,
            where: { at },
            fix: null,
          }
        : [],
    ),
  whileOpen: (draft, { sections }) => (sections.has(draft.where.at!) ? draft : null),
}
