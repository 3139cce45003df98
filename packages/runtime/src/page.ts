/** What the script reads of the page: where it stands, and which section a link means. */
import { fragmentOf, indicated, isFixed, PIECE, type Settings } from '@waybell/core/contract'
import { all, root } from './elements.ts'
import { placeOf } from './parts/scripts.ts'
import { unstuck } from './parts/sticky.ts'
import { contentOf, innerNow, onPage, viewTopOf } from './parts/scroller.ts'

/** Loaded again: the browser puts it back to where the visitor was, and not to the hash. */
export const isReturn = (performance.getEntriesByType('navigation')[0] as PerformanceNavigationTiming | undefined)?.type !== 'navigate'

let inner: HTMLElement | undefined
/** What scrolls: in quirks mode it is the body. */
export let box: Element = root
/** What it is changes with the layout. @returns what in it is to be watched for its size */
export function findBox(): Element[] {
  inner = innerNow()
  box = inner ?? document.scrollingElement ?? root
  return contentOf(inner)
}
/** What says how it scrolls: its padding, its motion. */
export const padded = (): Element => inner ?? root
/** How it moves from now on; empty for what the style says. */
export const setBehavior = (behavior: string): void => void ((padded() as HTMLElement).style.scrollBehavior = behavior)
/** What holds the page, and what is fixed does not stand in. */
const holder = (): HTMLElement => inner ?? document.body
/** Where what is seen of the page begins, in px below the viewport's top. */
export const viewTop = (): number => viewTopOf(inner)
/** Seen within what scrolls. */
export const isInside = (el: Element): boolean => holder().contains(el)
/** Scroll positions in px. */
export const position = (): number => box.scrollTop
export const maxScroll = (): number => box.scrollHeight - box.clientHeight
export const jumpTo = (top: number): void => box.scrollTo({ top, behavior: 'instant' })

/** Where an element stands now, and where one that sticks stands otherwise, in px from the page's top. */
export const topNow = (el: HTMLElement): number => unstuck(el, (e) => onPage(e.getBoundingClientRect().top, box, inner))
/** Where it begins; while it rises or slides into its place, where that is. */
export const topOf = (el: HTMLElement): number => placeOf(el, inner) ?? topNow(el)

/** A computed length in px; `auto` is none. */
export const lengthOf = (text: string): number => parseFloat(text) || 0

/** A length that the style says under a name, in px; 0 where it says nothing, not a number where it says that nobody knows. */
export const said = (name: string): number => parseFloat(getComputedStyle(root).getPropertyValue(name) || '0')

/** Of what a page may hold under this name, ours says which sections there are. */
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

/** True for what the browser scrolls to: it has a box, and no part of the viewport holds it. */
export const hasPlace = (el: HTMLElement | null): el is HTMLElement => !!el?.getClientRects().length && !isFixed(el, holder())

/** Tab goes on from an element. Nothing keeps the focus. */
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

/** True for a link that is meant to stay on this page; a `base` may make the browser think otherwise. */
export const isHere = (link: HTMLAnchorElement): boolean =>
  link.getAttribute('href')!.trim()[0] === '#' || (!!link.hash && bare(link.href) === bare(location.href))

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
