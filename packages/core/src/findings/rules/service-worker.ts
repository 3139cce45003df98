/** A worker that would answer for the page: the live page has none, since what one answers no policy sees. */
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'note',
  task: 'walk',
  inPage: ({ registersWorker }) =>
    registersWorker
      ? [
          {
            message:
              'A script of the page registers a service worker. The live page refuses it, as a browser does where none may be; for a visitor the page may answer otherwise once it was visited.',
            line: 1,
            column: 1,
            where: {},
            fix: null,
          },
        ]
      : [],
}
