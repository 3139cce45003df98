/** A former ID that something else on the page has now. */
import { hostedIds } from '../../page/index.ts'
import type { Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'sections',
  inSite: ({ page, reading, sections, placeOf }) => {
    const ours = hostedIds(reading)
    return page.sections.flatMap((section) =>
      section.former.flatMap((former) => {
        const other = page.sections.find((s) => s !== section && (s.id === former || s.former.includes(former)))
        const element = reading.ids.find((i) => i.id === former && !sections.has(i.at) && ours.get(i.id) !== i.at)
        if (!other && !element) return []
        const who = other ? `the section “${other.title}”` : `the ${element!.tag} on line ${element!.line}`
        const rest = section.former.filter((f) => f !== former)
        return {
          message: `Old links to “#${former}” may miss “${section.title}”: ${who} has that ID too. Forget it for one of them.`,
          ...placeOf(section.at),
          where: { at: section.at, section: section.key },
          fix: {
            label: `Forget “${former}”`,
            command: { type: 'section/id', page: page.key, section: section.key, id: section.id, former: rest },
          },
        }
      }),
    )
  },
}
