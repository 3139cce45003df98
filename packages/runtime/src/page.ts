/** What the script reads of the page: which section a link means, and how far the header reaches down. */
import {
  ANCHOR,
  coversTop,
  decodeFragment,
  fragmentOf,
  HEADER,
  indicated,
  isFixed,
  MADE_MENU,
  PIECE,
  type Settings,
} from '@waybell/core/contract'

export const root = document.documentElement
export const all = <T extends Element = HTMLElement>(selector: string, from: ParentNode = document): T[] => [
  ...from.querySelectorAll<T>(selector),
]
export const maxScroll = (): number => {
  // In quirks mode it is the body that scrolls.
  const box = document.scrollingElement ?? root
  return box.scrollHeight - box.clientHeight
}

/** Of what a page may hold under this name, ours says which sections there are. */
export function settings(): Settings {
  for (const el of all(`script[${PIECE}="settings"]`)) {
    try {
      const found = JSON.parse(el.textContent!) as Settings
      if (Array.isArray(found.sections)) return found
    } catch {
      // The page's own.
    }
  }
  throw new Error('Way Bell: the settings of this page are gone')
}

export const elementOf = (id: string): HTMLElement | null =>
  document.getElementById(id) ?? [...document.getElementsByName(id)].find((el) => el instanceof HTMLAnchorElement) ?? null

/** True for what the browser scrolls to: it has a box, and no part of the viewport holds it. */
export const hasPlace = (el: HTMLElement | null): el is HTMLElement => !!el?.getClientRects().length && !isFixed(el, document.body)

const bare = (url: string) => url.split('#')[0]

/** True for a link that is meant to stay on this page; a `base` may make the browser think otherwise. */
export const isHere = (link: HTMLAnchorElement): boolean =>
  link.getAttribute('href')!.trim()[0] === '#' || (link.hash !== '' && bare(link.href) === bare(location.href))

/** Sends a visitor who comes by a former ID on to the one that the section has now. @returns true where it did; `hashchange` follows */
export function renewHash(s: Settings): boolean {
  const id = decodeFragment(fragmentOf(location.hash))
  const renewed = s.former.find(([was]) => was === id)
  // Adds nothing to the history, and Tab goes on from the section itself.
  if (renewed) location.replace('#' + renewed[1].replace(/%/g, '%25'))
  return !!renewed
}

/** Stands for the page's top where no section begins there. */
export const TOP = ''

/** The section's ID that a hash leads to; undefined where it leads to none. The top stands for the section that begins there. */
export function sectionOf(hash: string, s: Settings): string | undefined {
  const to = indicated<{ id: string }>(fragmentOf(hash), (name) => (s.sections.includes(name) ? { id: name } : elementOf(name)))
  if (to.kind === 'element') {
    const { id } = to.element
    if (s.sections.includes(id)) return id
    // What holds the whole page begins where that does.
    const holds = (section: string) => (to.element as Element).contains(elementOf(section))
    if (!s.sections.length || !s.sections.every(holds)) return undefined
  }
  return to.kind === 'none' ? undefined : (s.toTop[0] ?? TOP)
}

/** A point stands in the head: Tab is to go on from the element that it stands before. Nothing keeps the focus. */
export function tabFrom(id: string, s: Settings): void {
  const point = s.points.find(([own]) => own === id)
  const el = point && document.querySelector<HTMLElement>(`[${ANCHOR}="${point[1]}"]`)
  if (!el || el.contains(document.activeElement)) return
  const own = el.getAttribute('tabindex')
  if (own === null) el.tabIndex = -1
  el.focus({ preventScroll: true })
  el.blur()
  if (own === null) el.removeAttribute('tabindex')
}

/** The page's own header, where it stays over the viewport's top. */
const stays = (el: HTMLElement): boolean => {
  const style = getComputedStyle(el)
  const { width, height } = el.getBoundingClientRect()
  return (
    /fixed|sticky/.test(style.position) &&
    coversTop({ inset: parseFloat(style.top), width, height }, { width: innerWidth, height: innerHeight })
  )
}
const headers = () => all(`[${HEADER}]`)

/** How far down the page's own header reaches when it stays in view, in its present state, in px; null where the page has none that is known. */
export function headerReach(): number | null {
  let reach: number | null = null
  for (const el of headers())
    reach = Math.max(reach ?? 0, stays(el) ? parseFloat(getComputedStyle(el).top) + el.getBoundingClientRect().height : 0)
  return reach
}

/** On its way from one state to another: how far it reaches now says nothing of where it will. */
export const headerMoves = (): boolean =>
  headers().some((el) => el.getAnimations?.({ subtree: true }).some(({ playState }) => playState === 'running'))

/** The lower edge of what covers the viewport's top at this moment, in px. */
export const coveredNow = (): number => Math.max(0, ...[...headers(), ...all(MADE_MENU)].map((el) => (stays(el) ? edgeOf(el) : 0)))

/** A sticky one that its place still holds lower covers nothing there: it stands before what it will cover. */
function edgeOf(el: HTMLElement): number {
  const { bottom, height } = el.getBoundingClientRect()
  const { position, top } = getComputedStyle(el)
  return position === 'sticky' ? Math.min(bottom, parseFloat(top) + height) : bottom
}
