/** A hash without a target. */
import type { Rule } from '../finding.ts'
import { brokenLinks, untilLinked } from '../links.ts'

export const rule: Rule = {
  severity: 'error',
  task: 'menus',
  inPage: (page) =>
    brokenLinks(page).flatMap(({ named, near, place }) =>
      near === null
        ? {
            message: `Nothing happens on pressing ${named}: the page has no such place. Give a section this ID, or link to another.`,
            ...place,
          }
        : [],
    ),
  whileOpen: untilLinked,
}
