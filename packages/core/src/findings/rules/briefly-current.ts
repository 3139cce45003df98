/** A section that is current for less than one notch of the wheel. */
import type { SiteFacts } from '../facts.ts'
import type { Draft, Rule } from '../finding.ts'

/** Below this many px of scrolling, a visitor hardly notices a mark. */
const LEAST = 80

/** px of scrolling for which each section is current, by key, for those marked too briefly. */
function briefOn({ surveys, bellsOn }: SiteFacts, screen: string): Map<string, number> {
  const brief = new Map<string, number>()
  const { maxScroll } = surveys[screen] ?? { maxScroll: 0 }
  const map = maxScroll > 0 ? bellsOn(screen) : []
  for (const [n, { section, start }] of map.entries()) {
    const length = (map[n + 1]?.start ?? maxScroll) - start
    // At the page's end, several sections share the rest.
    if (section === null || length >= LEAST || n === map.length - 1 || start >= maxScroll - LEAST * 4) continue
    if (!brief.has(section)) brief.set(section, length)
  }
  return brief
}

export const rule: Rule = {
  severity: 'note',
  task: 'highlight',
  inSite: (facts) => {
    const { page, site, placeOf } = facts
    // Only for our own marking.
    if (page.highlight.pageMark) return []
    const brief = site.screens.map((screen) => ({ screen, lengths: briefOn(facts, screen.key) }))
    return page.sections.flatMap((section): Draft[] => {
      const first = brief.find(({ lengths }) => lengths.has(section.key))
      if (!first) return []
      const { screen, lengths } = first
      return [
        {
          message: `“${section.title}” is current for only ${Math.round(lengths.get(section.key)!)} px of scrolling on “${screen.name}”: its mark only flashes.`,
          ...placeOf(section.at),
          where: { at: section.at, section: section.key, screen: screen.key },
          fix: null,
        },
      ]
    })
  },
}
