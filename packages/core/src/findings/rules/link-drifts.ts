/** A link that arrives rightly, and elsewhere than was computed: the page was laid out otherwise when it was followed. */
import type { Rule } from '../finding.ts'
import { triedLinks } from '../tried.ts'

export const rule: Rule = {
  severity: 'note',
  task: 'walk',
  inSite: (facts) =>
    triedLinks(facts, ({ drift, tried }) => {
      if (!drift) return null
      const by = `${Math.round(Math.abs(drift))} px ${drift > 0 ? 'below' : 'above'}`
      const why = tried.isTaken
        ? 'a script of the page takes the press, and the page is another then'
        : 'the page is laid out otherwise when it is followed, by parts that open or pictures that come late'
      return {
        kind: 'drift',
        why: `arrives rightly, but ${by} where it was computed: ${why}. Figures of what stands below may be off by as much`,
      }
    }),
}
