/** Reads the page: its position, and which section a link means. */
import { fragmentOf, indicated, isFixed, PIECE, type Settings } from '@waybell/core/contract'
import { all, root } from './elements.ts'
import { placeOf } from './parts/scripts.ts'
import { unstuck } from './parts/sticky.ts'
import { contentOf, innerNow, onPage, viewTopOf } from './parts/scroller.ts'

/** After a reload, the browser restores the position instead of going to the hash. */
export const isReturn = (performance.getEntriesByType('navigation')[0] as PerformanceNavigationTiming | undefined)?.type !== 'navigate'

let inner: HTMLElement | undefined
/** The scroller; in quirks mode the body. */
export let box: Element = root
/** It may change with the layout. @returns elements in it whose size to watch */
export function findBox(): Element[] {
  inner = innerNow()
  box = inner ?? document.scrollingElement ?? root
  return contentOf(inner)
}
/** The element with scroll padding and behavior. */
export const padded = (): Element => inner ?? root
/** Sets the scroll behavior; empty for the style's. */
export const setBehavior = (behavior: string): void => void ((padded() as HTMLElement).style.scrollBehavior = behavior)
/** The page's container; fixed elements are outside. */
const holder = (): HTMLElement => inner ?? document.body
/** Top of the visible page, in px below the viewport's top. */
export const viewTop = (): number => viewTopOf(inner)
/** Seen within what scrolls. */
export const isInside = (el: Element): boolean => holder().contains(el)
/** Scroll positions in px. */
export const position = (): number => box.scrollTop
export const maxScroll = (): number => box.scrollHeight - box.clientHeight
export const jumpTo = (top: number): void => box.scrollTo({ top, behavior: 'instant' })

/** An element's top now, or if stuck, where it would be otherwise; in px from the page's top. */
export const topNow = (el: HTMLElement): number => unstuck(el, (e) => onPage(e.getBoundingClientRect().top, box, inner))
/** Where it starts; while it moves into place, where that will be. */
export const topOf = (el: HTMLElement): number => placeOf(el, inner) ?? topNow(el)

/** A computed length in px; `auto` is 0. */
export const lengthOf = (text: string): number => parseFloat(text) || 0

/** A length of a custom property, in px; 0 if unset, NaN if unknown. */
export const said = (name: string): number => parseFloat(getComputedStyle(root).getPropertyValue(name) || '0')

/** Of several such pieces, ours has sections. */
export function settings(): Settings {
  const read = (el: Element) => {
    try {
      return JSON.parse(el.textContent!) as Settings
    } catch {
      // The page's own.
    }
  }
  return all(`script[${PIECE}="settings"]`)
    .map(read)
    .find((found) => Array.isArray(found?.sections))!
}

export const elementOf = (id: string): HTMLElement | null =>
  document.getElementById(id) ?? all<HTMLAnchorElement>('a[name]').find((a) => a.name === id) ?? null

/** True when browsers scroll to it: it has a box and isn't fixed. */
export const hasPlace = (el: HTMLElement | null): el is HTMLElement => !!el?.getClientRects().length && !isFixed(el, holder())

/** Continues tab order from an element, without leaving the focus there. */
export function startTab(el: HTMLElement | null | undefined): void {
  if (!el || el.contains(document.activeElement)) return
  const isOwn = el.hasAttribute('tabindex')
  if (!isOwn) el.tabIndex = -1
  el.focus({ preventScroll: true })
  el.blur()
  if (!isOwn) el.removeAttribute('tabindex')
}

/** An address without its hash. */
export const bare = (url: string) => url.split('#')[0]

/** The link that a press follows in this tab; undefined for another button, or with a key that opens a new tab or a download. */
export function pressedLink(event: MouseEvent): HTMLAnchorElement | undefined {
  if (event.button || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return undefined
  return (event.target as Element).closest?.<HTMLAnchorElement>('a[href]') ?? undefined
}

/** True for a link to this page, even if a `base` makes the browser resolve it elsewhere. */
export const isHere = (link: HTMLAnchorElement): boolean =>
  link.getAttribute('href')!.trim()[0] === '#' || (!!link.hash && bare(link.href) === bare(location.href))

/** Stands for the page's top where no section starts. */
export const TOP = ''

/** ID of the section that a hash leads to; undefined for none. The top stands for the section that starts there. */
export function sectionOf(hash: string, s: Settings): string | undefined {
  const to = indicated<{ id: string }>(fragmentOf(hash), (name) => (s.sections.includes(name) ? { id: name } : elementOf(name)))
  if (to.kind === 'element') {
    const { id } = to.element
    if (s.sections.includes(id)) return id
    // An element around all sections starts at the first.
    const holds = (section: string) => (to.element as Element).contains(elementOf(section))
    if (!s.sections.length || !s.sections.every(holds)) return undefined
  }
  return to.kind === 'none' ? undefined : (s.toTop[0] ?? TOP)
}
