/** A section that is current for less than a notch of the wheel. */
import type { SiteFacts } from '../facts.ts'
import type { Draft, Rule } from '../finding.ts'

/** px of scrolling below which a visitor hardly sees that an item was marked. */
const LEAST = 80

/** How long each section is current on a screen that marks it too briefly, in px of scrolling, by its key. */
function briefOn({ surveys, bellsOn }: SiteFacts, screen: string): Map<string, number> {
  const brief = new Map<string, number>()
  const { maxScroll } = surveys[screen] ?? { maxScroll: 0 }
  const map = maxScroll > 0 ? bellsOn(screen) : []
  for (const [n, { section, start }] of map.entries()) {
    const length = (map[n + 1]?.start ?? maxScroll) - start
    // At the page's end several share what is left of it.
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
    // By bells that are ours; a page that marks its items itself has a rule of its own.
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
