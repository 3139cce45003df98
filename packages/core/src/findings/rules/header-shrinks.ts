/** A header that shrinks and moves the page up with it: a page that stops at that position may flicker. */
import { isLetGo } from '../../arrival/index.ts'
import type { HeaderChoice } from '../../site/index.ts'
import type { Rule } from '../finding.ts'
import { onScreens } from '../screens.ts'

export const rule: Rule = {
  severity: 'note',
  task: 'travel',
  inSite: ({ page, site, surveys, placeOf }) => {
    const seen = site.screens.flatMap(({ key, name }) => {
      const header = isLetGo(page, key) ? null : surveys[key]?.header
      return header?.makesUp && header.at !== null ? [{ at: header.at, by: header.makesUp, key, name }] : []
    })
    const first = seen[0]
    if (!first || page.header?.steady) return []
    const most = Math.round(Math.max(...seen.map((s) => s.by)))
    const choice: HeaderChoice = page.header ?? { at: first.at, keep: null, backing: null }
    return [
      {
        message: `The header shrinks by up to ${most} px on scrolling, and the page with it: content jumps and may flicker (${onScreens(site, seen)}).`,
        ...placeOf(first.at),
        where: { at: first.at, screen: first.key },
        fix: {
          label: `Keep its place of ${most} px while it is smaller`,
          command: { type: 'header/choose', page: page.key, header: { ...choice, steady: true } },
        },
      },
    ]
  },
}
