/** A file that the page needs and that did not come along. */
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'sections',
  inPage: ({ reading, missing }) =>
    reading.assets.flatMap(({ path, line, column }) =>
      missing.has(path)
        ? { message: `The page looks different than it should: the file “${path}” did not come along.`, line, column, where: {}, fix: null }
        : [],
    ),
}
