/** A script of the page puts it back wherever anything else moves it: its own links move it, and nothing that is handed over can. */
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
        message: `A script of the page says on every frame where the page stands, and puts it back from wherever else it is moved (${onScreens(site, on)}): its links go where that script takes them, and neither what is handed over nor going back, a reload or a link from outside can move it. Take that script out, or let it begin from where the page stands.`,
        line: 1,
        column: 1,
        where: {},
        fix: null,
      },
    ]
  },
}
