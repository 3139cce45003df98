/** Something lies over the whole page, its menu too, until a visitor sends it away. Links are tried as if it were gone. */
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'note',
  task: 'walk',
  inSite: ({ site, tried }) => {
    const on = new Map<string, Set<string>>()
    for (const screen of site.screens)
      for (const { veil } of tried[screen.key] ?? []) if (veil) on.set(veil, (on.get(veil) ?? new Set()).add(screen.name))
    return [...on].map(([veil, screens]) => ({
      message: `Nobody can press the menu’s links before ${veil} is gone, which lies over the page (on ${[...screens].map((s) => `“${s}”`).join(', ')}). They were tried as if it were gone.`,
      line: 1,
      column: 1,
      where: {},
      fix: null,
    }))
  },
}
