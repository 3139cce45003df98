/** A target without a box: links to it do nothing, on all screens by markup or on measured ones. */
import type { Rule } from '../finding.ts'
import { dropFix, orDrop } from '../sections.ts'

export const rule: Rule = {
  severity: 'error',
  task: 'sections',
  inPage: ({ ids, asked }) =>
    ids.flatMap(({ entry: { id, at, line, column, isHidden }, first }) =>
      id !== '' && !first && isHidden && asked.has(id)
        ? {
            message: `Links to “#${id}” do nothing: the element is hidden.`,
            line,
            column,
            where: { at },
            fix: null,
          }
        : [],
    ),
  whileOpen: orDrop,
  inSite: (facts) => {
    const { page, site, surveys, reading, placeOf } = facts
    const hidden = new Map(
      Object.entries(surveys).map(([key, survey]) => [key, new Set(survey.parts.flatMap((p) => (p.hasBox ? [] : p.at)))]),
    )
    // If hidden on all screens, link rules report it.
    const asked = new Set(reading.links.map((l) => l.target))
    const told = new Set(reading.ids.flatMap((i) => (i.isHidden && asked.has(i.at) ? i.at : [])))
    return page.sections.flatMap((section) => {
      const screens = site.screens.filter((s) => hidden.get(s.key)?.has(section.at))
      if (!screens.length || told.has(section.at)) return []
      const isOnNone = screens.length === site.screens.length
      const where = isOnNone ? 'on any screen' : `on ${screens.map((s) => `“${s.name}”`).join(', ')}`
      return {
        severity: isOnNone ? 'error' : 'warning',
        message: `Links to “${section.title}” do nothing ${where}: the section is hidden there.`,
        ...placeOf(section.at),
        where: { at: section.at, section: section.key, ...(screens.length === 1 ? { screen: screens[0]!.key } : {}) },
        fix: dropFix(facts, section),
      }
    })
  },
}
