/** An overlay covers the whole page until a visitor closes it. Links are tried as if it were gone. */
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'note',
  task: 'walk',
  inSite: ({ site, tried }) => {
    const on = new Map<string, Set<string>>()
    for (const screen of site.screens)
      for (const { overlay } of tried[screen.key] ?? []) if (overlay) on.set(overlay, (on.get(overlay) ?? new Set()).add(screen.name))
    return [...on].map(([overlay, screens]) => ({
      message: `${overlay} covers the page and blocks the menu until closed (on ${[...screens].map((s) => `“${s}”`).join(', ')}). Links were tried without it.`,
      line: 1,
      column: 1,
      where: {},
      fix: null,
    }))
  },
}
