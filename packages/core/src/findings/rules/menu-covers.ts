/** A made menu that covered targets when links were tried. */
import { isMade, type MadeMenu, type Screen, type SitePage } from '../../site/index.ts'
import { coveringMenu } from '../../walk/index.ts'
import type { Draft, Fix, Rule } from '../finding.ts'
import { decidedBy, takenOff } from '../items.ts'

export const rule: Rule = {
  severity: 'error',
  task: 'menus',
  inSite: ({ page, site, surveys, verdictsOn }) =>
    page.menus.filter(isMade).flatMap((menu): Draft[] => {
      const over = site.screens.flatMap((screen) => {
        const labels = verdictsOn(screen.key).flatMap((v) => (coveringMenu(v) === menu.name ? v.tried.label : []))
        return labels.length ? [{ screen, labels }] : []
      })
      if (!over.length) return []
      const labels = [...new Set(over.flatMap((o) => o.labels))]
      const some = labels.slice(0, 3).map((l) => `“${l}”`)
      const more = labels.length > 3 ? ` and ${labels.length - 3} more` : ''
      const where = over.map((o) => `“${o.screen.name}”`).join(', ')
      return [
        {
          message: `The menu “${menu.name}” covers the targets of ${some.join(', ')}${more} (on ${where}).`,
          line: 1,
          column: 1,
          where: { screen: over[0]!.screen.key },
          fix: fixOf(page, menu, [...new Set(over.map((o) => decidedBy({ site, surveys }, o.screen)))]),
        },
      ]
    }),
}

/** A rail gets space beside the page; other menus are taken off those screens. */
function fixOf(page: SitePage, menu: MadeMenu, screens: readonly Screen[]): Fix {
  const at = { page: page.key, menu: menu.key }
  const { form } = menu
  if (form.kind === 'rail' && form.stands === 'over')
    return { label: 'Put it beside the page', command: { type: 'menu/form', ...at, form: { ...form, stands: 'beside' } } }
  return takenOff(page.key, menu, screens)
}
