/** A page script handles presses and stops elsewhere; the correction is visible to visitors. */
import { takenLinks } from '../../walk/index.ts'
import type { Rule } from '../finding.ts'
import { takePresses } from '../tried.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'travel',
  inSite: ({ page, site, surveys, tried }) => {
    const { links, isPutRight, worst } = takenLinks(page, surveys, tried)
    // Links that stay wrong are reported one by one.
    if (!worst || !isPutRight) return []
    const screen = site.screens.find((s) => s.key === worst.screen)!
    return [
      {
        message: `A page script handles ${links === 1 ? '1 link' : `${links} links`} and stops up to ${Math.round(Math.abs(worst.by))} px too ${worst.by < 0 ? 'high' : 'low'} (“${worst.label}” on “${screen.name}”); the page then jumps into place.`,
        line: 1,
        column: 1,
        where: { screen: screen.key },
        fix: takePresses({ page, surveys }),
      },
    ]
  },
}
