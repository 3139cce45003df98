/** Words of a menu that was made which cannot be read over everything that the menu stands over. */
import { READABLE } from '../../colour/index.ts'
import { contrastsOf, leastOpacity, lowest, nearestInk } from '../../menus/index.ts'
import { isMade, type Command, type MenuLook } from '../../site/index.ts'
import type { Draft, Fix, Rule } from '../finding.ts'

export const rule: Rule = {
  severity: 'warning',
  task: 'menus',
  inSite: ({ page, site, surveys }) =>
    page.menus.flatMap((menu): Draft[] => {
      const measured = Object.values(surveys)
      // Of one that the page has, what was given a look is ours.
      const told = contrastsOf(menu, page, measured).filter(
        (c) => isMade(menu) || menu.look?.states?.[c.state as keyof typeof menu.look.states],
      )
      const least = lowest(told)
      // How the page has its own words is the page's.
      if (!menu.look || !least || least.ratio >= READABLE) return []
      const { state, ratio, over, screen } = least
      const change = (label: string, look: MenuLook): Fix => {
        const command: Command = { type: 'menu/look', page: page.key, menu: menu.key, look }
        return { label, command }
      }
      const opacity = leastOpacity(menu, page, measured)
      const ink = nearestInk(menu, state, page, measured)
      const states = { ...menu.look.states, [state]: { ...menu.look.states?.[state], ...(ink !== null && { ink }) } }
      const fix =
        opacity !== null
          ? change(`Make its ground ${opacity} % opaque`, { ...menu.look, opacity })
          : ink !== null
            ? change(`Write it in ${ink}`, { ...menu.look, states })
            : null
      const where = `over ${over === null ? 'the page' : `“${over}”`} on “${site.screens.find((s) => s.key === screen)?.name ?? screen}”`
      const none = fix
        ? ''
        : ' No opacity of its ground and no one colour is read over all that it stands over: give it a ground of its own.'
      return [
        {
          message: `“${menu.name}” is hard to read, ${state === 'rest' ? 'at rest' : `where an item is ${WORDS[state]}`}: ${ratio.toFixed(1)} to 1 ${where}, where words need ${READABLE}.${none}`,
          line: 1,
          column: 1,
          where: { screen },
          fix,
        },
      ]
    }),
}

const WORDS = {
  visited: 'visited',
  within: 'above the current one',
  current: 'the current one',
  hover: 'under the pointer',
  focus: 'in focus',
  pressed: 'pressed',
  held: 'held back',
} as const
