/** Menu links that are too small, or whose labels are cut off or wrapped, seen when they were tried. */
import { formOf, smallOf } from '../../menus/index.ts'
import { isMade, type Command, type MadeMenu, type Screen } from '../../site/index.ts'
import type { SizeProblem } from '../../walk/index.ts'
import type { Draft, Fix, Rule } from '../finding.ts'

const kinds: Record<SizeProblem, (n: number) => string> = {
  tight: (n: number) => `${n === 1 ? 'is' : 'are'} smaller than 24 px and too close to the next for a finger`,
  cut: (n: number) => `${n === 1 ? 'doesn’t' : 'don’t'} fit into the menu, which cuts off the ${n === 1 ? 'label' : 'labels'}`,
  wrapped: (n: number) => `${n === 1 ? 'wraps' : 'wrap'} to a second line`,
}

export const rule: Rule = {
  severity: 'warning',
  task: 'menus',
  inSite: ({ page, site, tried }) =>
    (Object.keys(kinds) as SizeProblem[]).flatMap((kind): Draft[] => {
      const found = new Map<string, { labels: Set<string>; screens: Screen[] }>()
      for (const screen of site.screens)
        for (const one of (tried[screen.key] ?? []).filter(({ sizeProblems }) => sizeProblems.includes(kind))) {
          const known = found.get(one.menu) ?? { labels: new Set(), screens: [] }
          found.set(one.menu, known)
          known.labels.add(one.label)
          if (!known.screens.includes(screen)) known.screens.push(screen)
        }
      return [...found].map(([name, { labels, screens }]): Draft => {
        const some = [...labels].slice(0, 3).map((l) => `“${l}”`)
        const more = labels.size > 3 ? ` and ${labels.size - 3} more` : ''
        const where = screens.map((s) => `“${s.name}”`).join(', ')
        const menu = page.menus.filter(isMade).find((m) => m.name === name)
        return {
          message: `${some.join(', ')}${more} ${kinds[kind](labels.size)} (${name && `in “${name}” `}on ${where}).`,
          line: 1,
          column: 1,
          where: { screen: screens[0]!.key },
          fix: menu ? fixOf(page.key, menu, kind, screens) : null,
        }
      })
    }),
}

/** Padding around the labels; on a narrow screen a button or a scrolling row. */
function fixOf(page: string, menu: MadeMenu, kind: SizeProblem, screens: readonly Screen[]): Fix | null {
  const at = { page, menu: menu.key }
  const change = (label: string, command: Command): Fix => ({ label, command })
  if (kind === 'tight')
    return change('Give its items 12 px on either side', {
      type: 'menu/look',
      ...at,
      look: { ...menu.look, size: Math.max(16, menu.look?.size ?? 16), spacing: 12 },
    })
  const { small } = formOf(menu.form)
  const as = small.includes('folds') ? 'folds' : small.includes('scrolls') ? 'scrolls' : null
  const upTo = Math.max(...screens.map((s) => s.width))
  if (!as || (smallOf(menu).as === as && smallOf(menu).upTo >= upTo)) return null
  return change(`${as === 'folds' ? 'Fold it behind a button' : 'Let it scroll sideways'} up to ${upTo} px`, {
    type: 'menu/shown',
    ...at,
    shown: { ...menu.shown, small: { upTo, as } },
  })
}
