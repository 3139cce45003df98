/** A header, with the made bar, that takes more than a sixth of a screen, or is too tall to be kept in view. */
import { coverOf, isKept, isLetGo, MOST_OF_SCREEN, smallerBy } from '../../arrival/index.ts'
import { madeBar, plainScreens, type HeaderChoice, type Screen, type Site, type SitePage } from '../../site/index.ts'
import type { Survey } from '../../survey/index.ts'
import type { Draft, Fix, Rule } from '../finding.ts'
import { decidedBy, takenOff } from '../items.ts'

const letGo = ({ key, header }: SitePage, screen: Screen): Fix | null =>
  header && {
    label: `Let the header scroll away on “${screen.name}”`,
    command: { type: 'header/choose', page: key, header: { ...header, off: [...(header.off ?? []), screen.key] } },
  }

/** Scroll position in px at which it shrinks. */
const AFTER = 80

/** Null if its padding isn't enough, or it does something on some screens already. */
function smaller(site: Site, { key, header }: SitePage, screen: Screen, survey: Survey, by: number): Fix | null {
  if (!header || header.onScroll) return null
  const off = plainScreens(site.screens).flatMap((s) => (s.key === screen.key ? [] : s.key))
  const next: HeaderChoice = { ...header, onScroll: { after: AFTER, small: by, ...(off.length && { off }) } }
  return smallerBy({ header: next }, survey) < by
    ? null
    : {
        label: `Shrink the header by ${by} px on “${screen.name}” after scrolling`,
        command: { type: 'header/choose', page: key, header: next },
      }
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
      const by = decidedBy({ site, surveys }, screen)
      const most = survey.height * MOST_OF_SCREEN
      const made = bar ? madeBar(page) : undefined
      if (arrival > most) {
        const what = !made ? 'the header takes' : bar < arrival ? `the header and “${made.name}” take` : `“${made.name}” takes`
        return [
          {
            message: `On “${screen.name}” ${what} ${Math.round(arrival)} of ${survey.height} px, more than a sixth of the screen.`,
            ...about,
            // Removing the bar helps only if the header alone isn't too tall.
            fix: made ? takenOff(page.key, made, [by]) : (smaller(site, page, by, survey, Math.ceil(arrival - most)) ?? letGo(page, by)),
          },
        ]
      }
      if (survey.header?.isOver && !isLetGo(page, screen.key))
        return [
          {
            message: `On “${screen.name}” the header takes ${Math.round(survey.header.height)} of ${survey.height} px, more than half of the screen: links arrive under it.`,
            severity: 'error',
            ...about,
            fix: letGo(page, by),
          },
        ]
      if (!page.header?.keep || !survey.header || isKept(page, survey)) return []
      return [
        {
          message: `On “${screen.name}” the header scrolls away: fixed, it would take ${Math.round(survey.header.height)} of ${survey.height} px.`,
          severity: 'note',
          ...about,
        },
      ]
    }),
}
