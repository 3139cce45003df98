/** The page's Content-Security-Policy blocks what a handover adds. */
import { isOwnTravel } from '../../arrival/index.ts'
import type { Rule } from '../finding.ts'

const SAID = { script: ['scripts', 'script-src'], style: ['styles', 'style-src'] } as const

export const rule: Rule = {
  severity: 'error',
  task: 'handover',
  inSite: ({ page, reading: { policy } }) => {
    // Nothing is added to a page that works already.
    if (!policy || !page.sections.length || (isOwnTravel(page) && page.highlight.pageMark)) return []
    const [what, where] = [0, 1].map((i) => policy.blocks.map((kind) => SAID[kind][i]).join(' and '))
    return [
      {
        message: `The page’s Content-Security-Policy blocks inline ${what}, so the handed-over ones do nothing. Allow them in ${where} ('unsafe-inline' or their hashes).`,
        line: policy.line,
        column: 1,
        where: {},
        fix: null,
      },
    ]
  },
}
