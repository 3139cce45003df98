/** A page whose `<base href>` gives every address another beginning, bare hashes too. */
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'menus',
  inPage: ({ reading: { base } }) =>
    base === null
      ? []
      : [
          {
            message: `The page has <base href="${base}">, so that “#” and an ID mean a place at that address and not on this page. The script that is handed over keeps such links here; where scripts are off they leave the page. Take the base out where the page can do without it.`,
            line: 1,
            column: 1,
            where: {},
            fix: null,
          },
        ],
}
