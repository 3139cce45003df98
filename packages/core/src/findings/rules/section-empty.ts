/** A section with an ID and no content. */
import type { Rule } from '../finding.ts'
import { orDrop } from '../sections.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'sections',
  inPage: ({ ids, asked }) =>
    ids.flatMap(({ entry: { id, at, line, column, isEmpty, isHidden }, first }) =>
      id !== '' && !first && isEmpty && !(isHidden && asked.has(id))
        ? {
            message: `The section “${id}” has no text and no picture; a visitor who arrives sees what follows it.`,
            line,
            column,
            where: { at },
            fix: null,
          }
        : [],
    ),
  whileOpen: orDrop,
}
