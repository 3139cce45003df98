/** A changed ID that the page's own styles or scripts use. */
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'sections',
  inSite: ({ page, named, hadId, placeOf }) =>
    page.sections.flatMap((section) => {
      const was = section.point ? undefined : hadId.get(section.at)
      if (!was || was === section.id) return []
      const who = [named.styles.includes(was) ? 'styles' : [], named.scripts.includes(was) ? 'scripts' : []].flat().join(' and ')
      if (!who) return []
      const former = section.former.filter((f) => f !== was)
      return {
        message: `The page’s ${who} still use “#${was}”, but the ID is “#${section.id}” now, so they no longer apply.`,
        ...placeOf(section.at),
        where: { at: section.at, section: section.key },
        fix: { label: `Keep “${was}”`, command: { type: 'section/id', page: page.key, section: section.key, id: was, former } },
      }
    }),
}
