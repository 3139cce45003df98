/** A second element with an ID: links go to the first. */
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
            message: `Links to “#${id}” never arrive here: an element before has the same ID (line ${first.line}). Give this one another.`,
            line,
            column,
            where: { at },
            fix: null,
          }
        : [],
    ),
  whileOpen: untilRenamed,
}
