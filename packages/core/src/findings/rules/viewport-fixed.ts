/** Phones lay the page out wider and scale it down, so measurements at their width don't apply. */
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'travel',
  always: true,
  inSite: ({ site, reading: { fixedWidth }, surveys }) => {
    const narrow = site.screens.filter((s) => s.touch && fixedWidth !== null && s.width < fixedWidth && surveys[s.key])
    const [first] = narrow
    if (!first) return []
    const on = narrow.map((s) => `“${s.name}”`).join(', ')
    return [
      {
        message: `Phones lay this page out ${fixedWidth} px wide and shrink it, unlike ${on} here. Add <meta name="viewport" content="width=device-width, initial-scale=1"> to its head.`,
        line: 1,
        column: 1,
        where: { screen: first.key },
        fix: null,
      },
    ]
  },
}
