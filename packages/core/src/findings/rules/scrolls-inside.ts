/** The page scrolls in an element of which the work does not know, or in one that a script builds: offsets have no say there. */
import { isOwnTravel, isReached } from '../../arrival/index.ts'
import type { Draft, Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'error',
  task: 'travel',
  inSite: ({ page, site, surveys, placeOf }) => {
    if (!page.sections.length || isOwnTravel(page)) return []
    const left = site.screens.filter((s) => surveys[s.key] && !isReached(page, surveys[s.key]!))
    const [first] = left
    if (!first) return []
    const { at } = surveys[first.key]!.scroller!
    const on = left.map((s) => `“${s.name}”`).join(', ')
    const draft: Draft =
      at === null
        ? {
            message: `On ${on} the page scrolls in an element that its scripts build. No offset can be written there, so links arrive as the page has them; the mark of the current item does not follow.`,
            where: { screen: first.key },
            line: 1,
            column: 1,
            fix: null,
          }
        : {
            message: `On ${on} the page scrolls in an element of its own, and the offsets are written for the document.`,
            where: { at, screen: first.key },
            ...placeOf(at),
            fix: { label: 'Write them there', command: { type: 'scroller/choose', page: page.key, scroller: at } },
          }
    return [draft]
  },
}
