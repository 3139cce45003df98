/** Text of a made menu, or of a menu in a header with a new background, that isn't readable everywhere. */
import { READABLE } from '../../colour/index.ts'
import { contrastsOf, leastOpacity, lowest, nearestInk } from '../../menus/index.ts'
import { isMade, type Command, type MenuLook, type SitePage } from '../../site/index.ts'
import type { Draft, Fix, Rule } from '../finding.ts'

/** Null if the background was chosen and isn't just for the top. */
function ownGround({ key, header }: SitePage): Fix | null {
  if (!header?.onScroll?.clear) return null
  const { onScroll, ...rest } = header
  const others = { ...onScroll }
  delete others.clear
  // Absent if it does nothing.
  const next = others.shadow || others.away || others.small ? { ...rest, onScroll: others } : rest
  return { label: 'Give the header its background at the top too', command: { type: 'header/choose', page: key, header: next } }
}

export const rule: Rule = {
  severity: 'warning',
  task: 'menus',
  inSite: ({ page, site, surveys }) =>
    page.menus.flatMap((menu): Draft[] => {
      const isGiven = !isMade(menu) && !!(page.header?.backing || page.header?.onScroll?.clear)
      const measured = Object.values(surveys)
      // For a found menu, only styled parts are ours.
      const told = contrastsOf(menu, page, measured).filter(
        (c) => isMade(menu) || menu.look?.states?.[c.state as keyof typeof menu.look.states] || (isGiven && c.state === 'rest'),
      )
      const least = lowest(told)
      // The page's own text colours are its own.
      if (!(menu.look || isGiven) || !least || least.ratio >= READABLE) return []
      const { state, ratio, over, screen } = least
      const change = (label: string, look: MenuLook): Fix => {
        const command: Command = { type: 'menu/look', page: page.key, menu: menu.key, look }
        return { label, command }
      }
      const isOfHeader = !isMade(menu) && state === 'rest' && !menu.look?.states?.rest
      const opacity = leastOpacity(menu, page, measured)
      const ink = nearestInk(menu, state, page, measured)
      const states = { ...menu.look?.states, [state]: { ...menu.look?.states?.[state], ...(ink !== null && { ink }) } }
      const fix = isOfHeader
        ? ownGround(page)
        : opacity !== null
          ? change(`Make its background ${opacity} % opaque`, { ...menu.look, opacity })
          : ink !== null
            ? change(`Set its text to ${ink}`, { ...menu.look, states })
            : null
      const where = `over ${over === null ? 'the page' : `“${over}”`} on “${site.screens.find((s) => s.key === screen)?.name ?? screen}”`
      const none = fix || isOfHeader ? '' : ' No single text colour works: give it a background.'
      return [
        {
          message: `“${menu.name}” is hard to read${state === 'rest' ? '' : ` while an item is ${WORDS[state]}`}: contrast ${ratio.toFixed(1)} ${where}, ${READABLE} needed.${none}`,
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
  current: 'current',
  hover: 'hovered',
  focus: 'focused',
  pressed: 'pressed',
  held: 'disabled',
} as const
