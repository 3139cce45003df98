/** Phones lay the page out wider than they are and show that small: what is measured at their own width is not what they show. */
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
        message: `The page does not say that it is to be as wide as the screen, so phones lay it out ${fixedWidth} px wide and show it small. Figures for ${on} are those of a window so narrow. Where the page is made for phones, put <meta name="viewport" content="width=device-width, initial-scale=1"> into its head.`,
        line: 1,
        column: 1,
        where: { screen: first.key },
        fix: null,
      },
    ]
  },
}
