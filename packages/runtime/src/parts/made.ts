/** For menus that Way Bell made: where they are seen, and what opens in them. */
import { AWAY, MADE, type Settings } from '@waybell/core/contract'
import { all } from '../page.ts'

const wordOf = (menu: Element, word: string): string | undefined => new RegExp(` ${word}=(\\S+)`).exec(menu.getAttribute(MADE)!)?.[1]

let sections: readonly string[]
export const orderMade = (s: Settings): void => void (sections = s.sections)

/** A menu is seen from one section on and up to another. @param current empty before the first */
export function showMade(current: string): void {
  const at = sections.indexOf(current)
  for (const menu of all(`[${MADE}]`)) {
    const end = (word: string, otherwise: number) => {
      const id = wordOf(menu, word)
      return id === undefined ? otherwise : sections.indexOf(decodeURIComponent(id))
    }
    menu.toggleAttribute(AWAY, at < end('from', -1) || at > end('until', sections.length))
  }
}

/** What opens is shut by Escape, which gives the focus back, by a press beside it, and when a link in it is followed. */
export function watchMade(): void {
  addEventListener('keydown', ({ key, target }) => {
    const open = key === 'Escape' ? shuttable().filter((d) => d.contains(target as Element)) : []
    const innermost = open[open.length - 1]
    if (!innermost) return
    innermost.open = false
    innermost.querySelector('summary')!.focus()
  })
  addEventListener('click', ({ target }) => {
    const pressed = target as Element
    const isFollowed = pressed.closest?.('a')
    for (const details of shuttable()) if (isFollowed || !details.contains(pressed)) details.open = false
  })
  openWide()
  addEventListener('resize', openWide)
}

/** What stands open with nothing to press is not shut. */
const shuttable = (): HTMLDetailsElement[] =>
  all<HTMLDetailsElement>(`[${MADE}] details[open]`).filter((d) => d.querySelector('summary')!.getClientRects().length)

/** Where a browser has no style for what `details` holds, a menu that folds on small screens is opened on all others. */
function openWide(): void {
  if (CSS.supports('selector(::details-content)')) return
  for (const fold of all<HTMLDetailsElement>(`[${MADE}] > .wb-fold`)) {
    const menu = fold.parentElement!
    const isAlways = menu.matches(`[${MADE}~="floating"]`)
    if (!isAlways) fold.open = innerWidth > parseInt(wordOf(menu, 'small')?.split(':')[1] ?? '640')
  }
}
