/** A second element with the same ID: links go to the first. */
import type { Rule } from '../finding.ts'
import { untilRenamed } from '../ids.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'sections',
  inPage: ({ ids, asked }) =>
    ids.flatMap(({ entry: { id, at, line, column }, first }) =>
      first
        ? {
            severity: asked.has(id) ? 'error' : 'warning',
            message: `Links to “#${id}” never arrive here: line ${first.line} has the same ID. Give this element another.`,
            line,
            column,
            where: { at },
            fix: null,
          }
        : [],
    ),
  whileOpen: untilRenamed,
}
