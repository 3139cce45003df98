/** A hash without a target. */
import type { Rule } from '../finding.ts'
import { brokenLinks, untilLinked } from '../links.ts'

export const rule: Rule = {
  severity: 'error',
  task: 'menus',
  inPage: (page) =>
    brokenLinks(page).flatMap(({ wanted, near, place }) =>
      near === null
        ? { message: `The link to “#${wanted}” has no target on this page. Give a section this ID, or link to another.`, ...place }
        : [],
    ),
  whileOpen: untilLinked,
}
