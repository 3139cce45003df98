/** A page script undoes every scroll that isn't its own. */
import type { Rule } from '../finding.ts'
import { onScreens } from '../screens.ts'

export const rule: Rule = {
  severity: 'error',
  task: 'travel',
  inSite: ({ site, surveys }) => {
    const on = site.screens.filter(({ key }) => surveys[key]?.isHeld)
    if (!on.length) return []
    return [
      {
        message: `A page script sets the scroll position on every frame (${onScreens(site, on)}), so only its own links move the page. Remove that script.`,
        line: 1,
        column: 1,
        where: {},
        fix: null,
      },
    ]
  },
}
