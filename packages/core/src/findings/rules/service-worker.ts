/** A service worker: the live page doesn't run it, because its answers bypass the policy. */
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'note',
  task: 'walk',
  inPage: ({ registersWorker }) =>
    registersWorker
      ? [
          {
            message: 'A page script registers a service worker, which the live page refuses. Returning visitors may see a different page.',
            line: 1,
            column: 1,
            where: {},
            fix: null,
          },
        ]
      : [],
}
