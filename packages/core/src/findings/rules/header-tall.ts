/** A header that takes more than a sixth of a screen: one of the page's that stays, or one that is therefore not made to. */
import { coverOf, isKept, MOST_OF_SCREEN } from '../../arrival/index.ts'
import type { Draft, Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'travel',
  inSite: ({ page, site, surveys, placeOf }) =>
    site.screens.flatMap((screen): Draft[] => {
      const survey = surveys[screen.key]
      if (!survey) return []
      const at = page.header?.at
      const place = at === undefined ? { line: 1, column: 1 } : placeOf(at)
      const about = { ...place, where: { ...(at === undefined ? {} : { at }), screen: screen.key }, fix: null }
      const { arrival } = coverOf(page, survey)
      if (arrival > survey.height * MOST_OF_SCREEN)
        return [
          {
            message: `On “${screen.name}” the header takes ${Math.round(arrival)} of ${survey.height} px, more than a sixth of the screen, wherever one reads.`,
            ...about,
          },
        ]
      if (!page.header?.keep || !survey.header || isKept(page, survey)) return []
      return [
        {
          message: `On “${screen.name}” the header is left to scroll away: it would take ${Math.round(survey.header.height)} of ${survey.height} px.`,
          severity: 'note',
          ...about,
        },
      ]
    }),
}
