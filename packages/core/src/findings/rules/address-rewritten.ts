/** A script of the page that writes the address anew while the page is scrolled. */
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'travel',
  inSite: ({ surveys }) =>
    Object.values(surveys).some((s) => s.rewrites)
      ? [
          {
            message:
              'A script of the page writes the address anew while one scrolls: what a visitor copies or comes back to is what that script says, whichever item is marked.',
            line: 1,
            column: 1,
            where: {},
            fix: null,
          },
        ]
      : [],
}
