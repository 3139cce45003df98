/** A section that is current for less than a notch of the wheel. */
import { bellMap } from '../../highlight/index.ts'
import type { Draft, Rule } from '../finding.ts'

/** px of scrolling below which a visitor hardly sees that an item was marked. */
const LEAST = 80

export const rule: Rule = {
  severity: 'note',
  task: 'highlight',
  inSite: ({ page, site, surveys, placeOf }) =>
    // By bells that are ours; a page that marks its items itself has a rule of its own.
    (page.highlight.own ? [] : page.sections).flatMap((section): Draft[] => {
      for (const screen of site.screens) {
        const survey = surveys[screen.key]
        if (!survey || survey.maxScroll <= 0) continue
        const map = bellMap(page, survey)
        const n = map.findIndex((s) => s.section === section.key)
        if (n < 0) continue
        const length = (map[n + 1]?.start ?? survey.maxScroll) - map[n]!.start
        // At the page's end several share what is left of it.
        if (length >= LEAST || n === map.length - 1 || map[n]!.start >= survey.maxScroll - LEAST * 4) continue
        return [
          {
            message: `“${section.title}” is current for only ${Math.round(length)} px of scrolling on “${screen.name}”; its item flashes by.`,
            ...placeOf(section.at),
            where: { at: section.at, section: section.key, screen: screen.key },
            fix: null,
          },
        ]
      }
      return []
    }),
}
