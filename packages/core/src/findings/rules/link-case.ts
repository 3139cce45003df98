/** A hash that differs from an ID only in case. */
import type { Rule } from '../finding.ts'
import { brokenLinks, untilLinked } from '../links.ts'

export const rule: Rule = {
  severity: 'error',
  task: 'menus',
  inPage: (page) =>
    brokenLinks(page).flatMap(({ named, near, place }) =>
      near === null ? [] : { message: `Pressing ${named} does nothing: the ID is “${near}”. Use the same capitals.`, ...place },
    ),
  whileOpen: untilLinked,
}
