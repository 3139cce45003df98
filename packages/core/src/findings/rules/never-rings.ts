/** A section that begins where the next one does: scrolling never makes it the current one. */
import { bellMap } from '../../highlight/index.ts'
import { partsByAt, placeOf } from '../../arrival/index.ts'
import type { Found, Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'note',
  task: 'highlight',
  inSite: ({ page, site, surveys, placeOf: placeInSource }) =>
    page.sections.flatMap((section): Found[] => {
      const screens = site.screens.filter(({ key }) => {
        const survey = surveys[key]
        const hasBox = survey && survey.maxScroll > 0 && placeOf(section, partsByAt(survey))?.hasBox
        return hasBox && !bellMap(page, survey).some((stretch) => stretch.section === section.key)
      })
      if (!screens.length) return []
      const where = screens.length === site.screens.length ? 'on every screen' : `on ${screens.map((s) => `“${s.name}”`).join(', ')}`
      return [
        {
          message: `The section “${section.title}” begins where another does ${where}; scrolling never marks its item there, only a click does.`,
          ...placeInSource(section.at),
          where: { at: section.at, section: section.key, ...(screens.length === 1 ? { screen: screens[0]!.key } : {}) },
          fix: null,
        },
      ]
    }),
}
