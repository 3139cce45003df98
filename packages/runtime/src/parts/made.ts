/** For made menus: visibility, and what opens in them. */
import { AWAY, decodeFragment, fragmentOf, MADE, type Settings } from '@waybell/core/contract'
import { all } from '../elements.ts'
import { position } from '../page.ts'

const wordOf = (menu: Element, word: string): string | undefined => new RegExp(` ${word}=(\\S+)`).exec(menu.getAttribute(MADE)!)?.[1]

let sections: readonly string[]
/** Index of the current section. */
let at = -1
/** Menus that appear after scrolling. */
let late: Element[] = []
/** How far the visitor has come, as an index of `sections`, by storage. */
const reached: Record<string, number> = {}

export function orderMade(s: Settings): void {
  ;({ sections } = s)
  late = all(`[${MADE}*=" after="]`)
  for (const holds of ['visit', 'browser']) reached[holds] = Math.max(reached[holds] ?? -1, sections.indexOf(keep(holds)))
}

/** In the browser, for the visit, or if storage is blocked, while the page is open. */
function keep(holds: string, id?: string): string {
  const key = `--wb-reached${location.pathname}`
  try {
    const store = holds === 'browser' ? localStorage : sessionStorage
    if (id) store.setItem(key, id)
    return store.getItem(key) ?? ''
  } catch {
    return ''
  }
}

/** Disables items beyond what the visitor has reached; a link from outside counts as reached. */
function hold(menu: Element, holds: string): void {
  if (at > reached[holds]!) {
    reached[holds] = at
    keep(holds, sections[at])
  }
  for (const link of all<HTMLAnchorElement>('a', menu)) {
    const isAhead = sections.indexOf(decodeFragment(fragmentOf(link.hash))) > reached[holds]!
    if (isAhead) {
      link.setAttribute('aria-disabled', 'true')
      link.tabIndex = -1
    } else for (const name of ['aria-disabled', 'tabindex']) link.removeAttribute(name)
  }
}

/** Shows a menu from one section to another, and after a scroll position; NaN for none. */
function place(menu: Element): void {
  const end = (word: string, otherwise: number) => {
    const id = wordOf(menu, word)
    return id === undefined ? otherwise : sections.indexOf(decodeURIComponent(id))
  }
  menu.toggleAttribute(AWAY, at < end('from', -1) || at > end('until', sections.length) || position() < +wordOf(menu, 'after')!)
}
/** The page stands elsewhere. */
export const passMade = (): void => late.forEach(place)

/** @param current ID of the section; empty before the first */
export function showMade(current: string): void {
  at = sections.indexOf(current)
  for (const menu of all(`[${MADE}]`)) {
    const holds = wordOf(menu, 'holds')
    if (holds) hold(menu, holds)
    place(menu)
  }
}

/** Escape closes what is open and returns the focus; so do a press outside and a followed link. */
export function watchMade(): void {
  addEventListener('keydown', ({ key, target }) => {
    const innermost =
      key === 'Escape' &&
      shuttable()
        .filter((d) => d.contains(target as Element))
        .pop()
    if (!innermost) return
    innermost.open = false
    innermost.querySelector('summary')!.focus()
  })
  addEventListener(
    'click',
    (event) => {
      if (!(event.target as Element).closest?.(`[${MADE}] [aria-disabled]`)) return
      event.preventDefault()
      event.stopImmediatePropagation()
    },
    true,
  )
  addEventListener('click', ({ target }) => {
    const pressed = target as Element
    const isFollowed = pressed.closest?.('a')
    for (const details of shuttable()) if (isFollowed || !details.contains(pressed)) details.open = false
  })
  openWide()
  addEventListener('resize', openWide)
}

/** Parts without an opener aren't closed. */
const shuttable = (): HTMLDetailsElement[] =>
  all<HTMLDetailsElement>(`[${MADE}] details[open]`).filter((d) => d.querySelector('summary')!.getClientRects().length)

/** In browsers that can't style the content of `details`, a menu that folds on small screens is opened on others. */
function openWide(): void {
  if (CSS.supports('selector(::details-content)')) return
  for (const fold of all<HTMLDetailsElement>(`[${MADE}]:not([${MADE}~="floating"]) > .wb-fold`))
    fold.open = innerWidth > parseInt(wordOf(fold.parentElement!, 'small')?.split(':')[1] ?? '640')
}
