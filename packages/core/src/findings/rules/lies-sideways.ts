/** Sections side by side and out of view: offsets and marking assume vertical scrolling. */
import { partOf, partsByAt } from '../../arrival/index.ts'
import { named } from '../counted.ts'
import type { Rule } from '../finding.ts'
import { onScreens } from '../screens.ts'

export const rule: Rule = {
  severity: 'error',
  task: 'travel',
  inSite: ({ page, site, surveys, placeOf }) => {
    const beside = new Map(
      site.screens.map((screen) => {
        const survey = surveys[screen.key]
        const parts = survey && partsByAt(survey)
        const isOut = (left: number) => survey !== undefined && (left >= survey.width || left <= -survey.width)
        return [screen, parts ? page.sections.filter((s) => isOut(partOf(s, parts)?.left ?? 0)) : []]
      }),
    )
    const screens = site.screens.filter((s) => beside.get(s)!.length > 1)
    const sections = page.sections.filter((s) => screens.some((screen) => beside.get(screen)!.includes(s)))
    if (!sections.length) return []
    const what = named(
      sections.map((s) => s.title),
      'section lies',
      'sections lie',
    )
    return [
      {
        message: `${what} out of view at the side ${onScreens(site, screens)}. Sideways pages aren’t supported yet: a press marks an item, scrolling doesn’t.`,
        ...placeOf(sections[0]!.at),
        where: { at: sections[0]!.at, section: sections[0]!.key, ...(screens.length === 1 ? { screen: screens[0]!.key } : {}) },
        fix: null,
      },
    ]
  },
}
