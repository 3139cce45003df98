/** A section that starts where the next one does, so scrolling never marks it. */
import { partOf, partsByAt } from '../../arrival/index.ts'
import type { SiteFacts } from '../facts.ts'
import type { Draft, Rule } from '../finding.ts'
import { onScreens } from '../screens.ts'

/** Keys of sections with a position but no stretch of their own on a screen. */
function silentOn({ page, surveys, bellsOn }: SiteFacts, screen: string): ReadonlySet<string> {
  const survey = surveys[screen]
  // Only for our own marking.
  if (!survey || survey.maxScroll <= 0 || page.highlight.pageMark) return new Set()
  const parts = partsByAt(survey)
  const ringing = new Set(bellsOn(screen).map((stretch) => stretch.section))
  return new Set(page.sections.flatMap((s) => (partOf(s, parts)?.hasBox && !ringing.has(s.key) ? s.key : [])))
}

export const rule: Rule = {
  severity: 'note',
  task: 'highlight',
  inSite: (facts) => {
    const { page, site, placeOf } = facts
    const silent = site.screens.map((screen) => ({ screen, keys: silentOn(facts, screen.key) }))
    return page.sections.flatMap((section): Draft[] => {
      const screens = silent.filter(({ keys }) => keys.has(section.key)).map(({ screen }) => screen)
      if (!screens.length) return []
      return [
        {
          message: `Scrolling never marks “${section.title}”, only a press does: another section starts at the same place (${onScreens(site, screens)}).`,
          ...placeOf(section.at),
          where: { at: section.at, section: section.key, ...(screens.length === 1 ? { screen: screens[0]!.key } : {}) },
          fix: null,
        },
      ]
    })
  },
}
