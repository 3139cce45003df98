/** A link that arrives rightly, and elsewhere than was computed: the page was laid out otherwise when it was followed. */
import type { Rule } from '../finding.ts'
import { triedLinks } from '../tried.ts'

export const rule: Rule = {
  severity: 'note',
  task: 'walk',
  inSite: (facts) =>
    triedLinks(facts, ({ drift }) =>
      drift
        ? {
            kind: 'drift',
            why: `arrives rightly, but ${Math.round(Math.abs(drift))} px ${drift > 0 ? 'below' : 'above'} where it was computed: the page is laid out otherwise when it is followed, by parts that open or pictures that come late. Figures of what stands below may be off by as much`,
          }
        : null,
    ),
}
