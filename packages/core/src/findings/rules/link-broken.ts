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
            message: `Pressing ${named} does nothing: no element has that ID. Give it to a section, or change the link.`,
            ...place,
          }
        : [],
    ),
  whileOpen: untilLinked,
}
