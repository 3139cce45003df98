/** A section that is offered and has no heading. */
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'sections',
  inPage: ({ reading }) =>
    reading.candidates.flatMap(({ offered, heading, title, tag, line, column, at }) =>
      offered && heading === null
        ? {
            message: `A visitor who arrives at “${title}” (${tag}) cannot tell where: it has no heading.`,
            line,
            column,
            where: { at },
            fix: null,
          }
        : [],
    ),
  whileOpen: (draft, { sections }) => (sections.has(draft.where.at!) ? draft : null),
}
