/** A page whose `<base href>` changes every address, including bare hashes. */
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'menus',
  inPage: ({ reading: { base } }) =>
    base === null
      ? []
      : [
          {
            message: `<base href="${base}"> makes “#” links leave the page. The handed-over script keeps them here, but not with scripts off. Remove the base if you can.`,
            line: 1,
            column: 1,
            where: {},
            fix: null,
          },
        ],
}
