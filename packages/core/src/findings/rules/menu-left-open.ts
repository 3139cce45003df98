/** A menu that stays open after a press, and covers the target or moves it. */
import { isFound, type Menu, type Screen } from '../../site/index.ts'
import { isLeftOpen } from '../../walk/index.ts'
import { named } from '../counted.ts'
import type { Draft, Fix, Rule } from '../finding.ts'

interface Left {
  menu: Menu | undefined
  labels: Set<string>
  screens: Set<Screen>
  by: number | null
  /** False when its elements can't be found in the source. */
  isSeen: boolean
}

export const rule: Rule = {
  severity: 'error',
  task: 'menus',
  inSite: ({ page, site, verdictsOn, placeOf }) => {
    const left = new Map<Menu | undefined, Left>()
    for (const screen of site.screens)
      for (const verdict of verdictsOn(screen.key)) {
        if (!isLeftOpen(verdict)) continue
        const { label, leftOpen } = verdict.tried
        const found = page.menus.filter(isFound)
        // In a handed-over page its position differs; its items don't.
        const menu =
          found.find((m) => isFound(m) && m.form.elements.includes(leftOpen!.menu ?? -1)) ??
          found.find((m) => m.items.some((i) => i.label === label))
        const one = left.get(menu) ?? { menu, labels: new Set(), screens: new Set(), by: null, isSeen: false }
        left.set(menu, one)
        one.labels.add(label)
        one.screens.add(screen)
        one.by ??= leftOpen!.by
        one.isSeen ||= leftOpen!.menu !== null
      }
    return [...left.values()].map(({ menu, labels, screens, by, isSeen }): Draft => {
      const at = menu && isFound(menu) ? menu.form.elements[0] : undefined
      const links = named([...labels], 'link', 'links')
      const where = [...screens].map((s) => `“${s.name}”`).join(', ')
      const fix = menu && by !== null ? shutBehind(page.key, menu, by) : null
      const reason = fix || !isSeen ? '' : ' Its button is built by a script, or wasn’t found.'
      return {
        message: `${menu ? `The menu “${menu.name}”` : 'A menu built by a script'} stays open after pressing ${links} and covers or shifts their targets (on ${where}).${reason}`,
        ...(at === undefined ? { line: 1, column: 1 } : placeOf(at)),
        where: { ...(at === undefined ? {} : { at }), screen: [...screens][0]!.key },
        fix,
      }
    })
  },
}

const shutBehind = (page: string, { key, name }: Menu, by: number): Fix => ({
  label: `Close “${name}” after each press`,
  command: { type: 'menu/shut-by', page, menu: key, by },
})
