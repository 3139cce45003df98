/** Parts and links built by scripts: they aren't in the source, so nothing can be written into them. */
import { named } from '../counted.ts'
import { builtOf, type BuiltMenu } from '../../survey/index.ts'
import type { Rule } from '../finding.ts'

const words = (menu: BuiltMenu): string[] => menu.links.map((l) => l.label)

export const rule: Rule = {
  severity: 'warning',
  task: 'sections',
  always: true,
  inSite: ({ surveys }) => {
    const { headings, menus } = builtOf(Object.values(surveys))
    if (!headings.length && !menus.length) return []
    const loose = menus.filter((m) => m.at === null).flatMap((m) => m.links.map((l) => l.label))
    const said = [
      ...(headings.length ? [`${named(headings, 'heading', 'headings')}, which can’t be linked`] : []),
      ...menus.flatMap((m) => (m.at === null ? [] : [`a menu of ${named(words(m), 'link', 'links')}, tried and marked`])),
      ...(loose.length ? [`${named(loose, 'link', 'links')}, tried but not marked`] : []),
    ]
    return [
      {
        message: `Page scripts build ${said.join('; ')}. To edit that, save the page from a browser and bring it in.`,
        line: 1,
        column: 1,
        where: {},
        fix: null,
      },
    ]
  },
}
