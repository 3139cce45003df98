/** A link that arrives, but elsewhere than computed, because the layout changed. */
import type { Rule } from '../finding.ts'
import { triedLinks } from '../tried.ts'

export const rule: Rule = {
  severity: 'note',
  task: 'walk',
  inSite: (facts) =>
    triedLinks(facts, ({ drift, tried }) => {
      if (!drift) return null
      const by = `${Math.round(Math.abs(drift))} px ${drift > 0 ? 'below' : 'above'}`
      const why = tried.isTaken ? 'a page script handles the press and changes the page' : 'parts open or pictures load on the way'
      return {
        kind: 'drift',
        why: `arrives, but ${by} where computed: ${why}`,
      }
    }),
}
