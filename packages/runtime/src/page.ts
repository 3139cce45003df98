/** What the script reads of the page: which section a link means, and how far the header reaches down. */
import type { Settings } from '@waybell/core'

export const root = document.documentElement
export const all = <T extends Element = HTMLElement>(selector: string, from: ParentNode = document): T[] => [
  ...from.querySelectorAll<T>(selector),
]
export const maxScroll = (): number => {
  // In quirks mode it is the body that scrolls.
  const box = document.scrollingElement ?? root
  return box.scrollHeight - box.clientHeight
}

export const settings = (): Settings => JSON.parse(document.querySelector('[data-wb="settings"]')!.textContent!) as Settings

export const elementOf = (id: string): HTMLElement | null => document.getElementById(id) ?? document.getElementsByName(id)[0] ?? null

const bare = (url: string) => url.split('#')[0]

/** True for a link that is meant to stay on this page; a `base` may make the browser think otherwise. */
export const isHere = (link: HTMLAnchorElement): boolean =>
  link.getAttribute('href')!.trim()[0] === '#' || (link.hash !== '' && bare(link.href) === bare(location.href))

/** What a hash says, percent-decoded where it is that. */
const named = (hash: string): string => {
  const id = hash.slice(1)
  try {
    return decodeURIComponent(id)
  } catch {
    return id
  }
}

/** Sends a visitor who comes by a former ID on to the one that the section has now. @returns true where it did; `hashchange` follows */
export function renewHash(s: Settings): boolean {
  const id = named(location.hash)
  if (!Object.hasOwn(s.former, id)) return false
  // Adds nothing to the history, and Tab goes on from the section itself.
  location.replace('#' + s.former[id]!.replace(/%/g, '%25'))
  return true
}

/** The section's ID that a hash leads to; undefined where it leads to none. The top stands for the section that begins there. */
export function sectionOf(hash: string, s: Settings): string | undefined {
  let id = hash.slice(1)
  if (!s.sections.includes(id)) id = named(hash)
  if (s.sections.includes(id)) return id
  return (id === '' || id.toLowerCase() === 'top') && !elementOf(id) ? s.toTop[0] : undefined
}

/** A point stands in the head: Tab is to go on from the element that it stands before. Nothing keeps the focus. */
export function tabFrom(id: string, s: Settings): void {
  const el = Object.hasOwn(s.points, id) ? document.querySelector<HTMLElement>(`[data-wb-anchor="${s.points[id]![0]}"]`) : null
  if (!el || el.contains(document.activeElement)) return
  const own = el.getAttribute('tabindex')
  if (own === null) el.tabIndex = -1
  el.focus({ preventScroll: true })
  el.blur()
  if (own === null) el.removeAttribute('tabindex')
}

const headers = () => all('[data-wb-header]')

/** How far down the page's own header reaches when it stays in view, in its present state, in px; null where the page has none that is known. */
export function headerReach(): number | null {
  let reach: number | null = null
  for (const el of headers()) {
    const style = getComputedStyle(el)
    const { height } = el.getBoundingClientRect()
    const stays = /fixed|sticky/.test(style.position) && height > 0
    reach = Math.max(reach ?? 0, stays ? (parseFloat(style.top) || 0) + height : 0)
  }
  return reach
}

/** The lower edge of what covers the viewport's top at this moment, in px. */
export function coveredNow(): number {
  let edge = 0
  for (const el of [...headers(), ...all('[data-wb="menu"]')])
    if (/fixed|sticky/.test(getComputedStyle(el).position)) edge = Math.max(edge, el.getBoundingClientRect().bottom)
  return edge
}
