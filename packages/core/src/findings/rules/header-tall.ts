/** What takes more than a sixth of a screen: a header of the page's that stays, with the bar that was made, or one that is therefore not made to. */
import { coverOf, isKept, MOST_OF_SCREEN } from '../../arrival/index.ts'
import { madeBar, type Screen, type SitePage } from '../../site/index.ts'
import type { Draft, Fix, Rule } from '../finding.ts'
import { takenOff } from '../items.ts'

const letGo = ({ key, header }: SitePage, screen: Screen): Fix | null =>
  header && {
    label: `Let the header scroll away on “${screen.name}”`,
    command: { type: 'header/choose', page: key, header: { ...header, off: [...(header.off ?? []), screen.key] } },
  }

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
      const { arrival, bar } = coverOf(page, survey)
      const most = survey.height * MOST_OF_SCREEN
      const made = bar ? madeBar(page) : undefined
      if (arrival > most) {
        const what = !made ? 'the header takes' : bar < arrival ? `the header and “${made.name}” take` : `“${made.name}” takes`
        return [
          {
            message: `On “${screen.name}” ${what} ${Math.round(arrival)} of ${survey.height} px, more than a sixth of the screen, wherever one reads.`,
            ...about,
            // Without the bar there is less; a header that is too high by itself stays so.
            fix: made ? takenOff(page.key, made, [screen]) : letGo(page, screen),
          },
        ]
      }
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
