/** A page script that rewrites the address on scroll. */
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'travel',
  inSite: ({ surveys }) =>
    Object.values(surveys).some((s) => s.rewrites)
      ? [
          {
            message: 'A page script changes the address while scrolling: copied addresses follow that script, not the marked item.',
            line: 1,
            column: 1,
            where: {},
            fix: null,
          },
        ]
      : [],
}
