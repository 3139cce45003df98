/** A missing file that the page needs. */
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'sections',
  inPage: ({ reading, missing }) =>
    reading.assets.flatMap(({ path, line, column }) =>
      missing.has(path)
        ? {
            message: `The file “${path}” is missing, so the page looks different here. Add it with a new version.`,
            line,
            column,
            where: {},
            fix: null,
          }
        : [],
    ),
}
