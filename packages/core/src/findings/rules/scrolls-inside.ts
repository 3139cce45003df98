/** The page scrolls in an element that isn't chosen, or that a script builds: offsets have no effect there. */
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
            message: `On ${on} the page scrolls inside an element built by its scripts. Offsets can’t be written there, and the mark doesn’t follow.`,
            where: { screen: first.key },
            line: 1,
            column: 1,
            fix: null,
          }
        : {
            message: `On ${on} the page scrolls inside an element, but offsets are written for the document.`,
            where: { at, screen: first.key },
            ...placeOf(at),
            fix: { label: 'Write offsets there', command: { type: 'scroller/choose', page: page.key, scroller: at } },
          }
    return [draft]
  },
}
