/** Bars that stay at the viewport's top or bottom while scrolling, and their reach. */
import { coversEdge, HEADER, lasts } from '@waybell/core/contract'
import { innerScroller, scroller, topOf, viewHeight, viewTop } from '../page/scroller.ts'
import { isPiece } from '../edits/patch.ts'
import { everyElement, positionOf } from '../page/stamps.ts'

export interface Bar {
  el: HTMLElement
  position: 'sticky' | 'fixed'
}

type Edge = 'top' | 'bottom'

/** With more elements, only those that can be hit at that edge are checked. */
const MANY = 20000

function possibleBars(edge: Edge): Iterable<Element> {
  const all = document.body.getElementsByTagName('*')
  if (all.length <= MANY) return all
  const met = new Set<Element>()
  for (const x of [0.1, 0.5, 0.9])
    for (const y of [1, 12, 40, 80, 140])
      for (const hit of document.elementsFromPoint(innerWidth * x, edge === 'top' ? y : innerHeight - y))
        for (let e: Element | null = hit; e && e !== document.body; e = e.parentElement) met.add(e)
  return [...met].sort((a, b) => (a.compareDocumentPosition(b) & Node.DOCUMENT_POSITION_FOLLOWING ? -1 : 1))
}

/** Elements that stay at that edge while the page scrolls. */
export function stayingBars(edge: Edge = 'top'): Bar[] {
  const { innerWidth: width } = window
  const inner = innerScroller()
  const view = inner ? { width: inner.clientWidth, height: viewHeight() } : { width, height: innerHeight }
  const from = inner?.getBoundingClientRect().left ?? 0
  const out: Bar[] = []
  for (const el of possibleBars(edge)) {
    if (!(el instanceof HTMLElement) || isPiece(el)) continue
    const style = getComputedStyle(el)
    if (style.position !== 'fixed' && !(style.position === 'sticky' && scroller().contains(el))) continue
    const box = el.getBoundingClientRect()
    const isSeen = style.visibility !== 'hidden' && style.opacity !== '0' && box.height > 0 && box.right > 0 && box.left < width
    const bar = { left: box.left - from, width: box.width, height: box.height }
    if (!isSeen || !coversEdge(parseFloat(style[edge]), bar, view) || Number(style.zIndex) < 0) continue
    if (el.parentElement && lasts(style.position, el, el.parentElement, scroller()) && !out.some((b) => b.el.contains(el)))
      out.push({ el, position: style.position })
  }
  return out
}

/** Current reach of the bars over the visible page, as drawn; 0 while hidden. */
export function reachNow(bars: readonly Bar[]): number {
  const above = viewTop()
  let reach = 0
  for (const { el } of bars) {
    const box = el.getBoundingClientRect()
    const style = getComputedStyle(el)
    // One that becomes fixed by script on scroll doesn't stay yet.
    if (style.position !== 'fixed' && style.position !== 'sticky') continue
    if (style.visibility === 'hidden' || box.bottom <= 0) continue
    // Sticky bars count as stuck, even if the page's top still holds them lower.
    reach = Math.max(
      reach,
      style.position === 'sticky' ? Math.min(box.bottom - above, parseFloat(style.top) + box.height) : box.bottom - above,
    )
  }
  return reach
}

/** Current reach of bars at the bottom, in px. */
export function bottomNow(): number {
  const end = viewTop() + viewHeight()
  return Math.max(0, ...stayingBars('bottom').map(({ el }) => end - Math.max(viewTop(), el.getBoundingClientRect().top)))
}

/** An element this share of the viewport's height is an overlay, not a header. */
const OVERLAY = 0.95

/** True when a header leaves too little of the viewport to read. */
export function staysOver(el: HTMLElement): boolean {
  const { position, top } = getComputedStyle(el)
  const inner = innerScroller()
  const box = el.getBoundingClientRect()
  const view = { width: inner ? inner.clientWidth : innerWidth, height: viewHeight() }
  const half = { left: box.left - (inner?.getBoundingClientRect().left ?? 0), width: box.width, height: view.height / 2 }
  return (
    /fixed|sticky/.test(position) &&
    box.height > half.height &&
    box.height < view.height * OVERLAY &&
    coversEdge(parseFloat(top), half, view) &&
    lasts(position, el, el.parentElement!, scroller())
  )
}

/** True when a static header would stay over most of the page if sticky. */
export function canStay(el: HTMLElement): boolean {
  const box = el.getBoundingClientRect()
  const position = getComputedStyle(el).position
  if (position === 'absolute') return liesOver(el)
  if (!el.getAttribute(HEADER) && !/static|relative/.test(position)) return false
  const inner = innerScroller()
  if (inner && !inner.contains(el)) return false
  const width = inner?.clientWidth ?? innerWidth
  if (box.height > viewHeight() * 0.3 || box.width < width / 2 || topOf(el) > viewHeight()) return false
  for (let up = el.parentElement; up; up = up.parentElement) {
    if (up === inner || up === document.body || up === document.documentElement) break
    if (/auto|scroll|hidden/.test(getComputedStyle(up).overflow)) return false
  }
  const bodyOverflow = getComputedStyle(document.body).overflow
  if (!inner && /auto|scroll|hidden/.test(bodyOverflow) && getComputedStyle(document.documentElement).overflow !== 'visible') return false
  const parent = el.parentElement!
  const parentBox = parent.getBoundingClientRect()
  const isRow = /flex|grid/.test(getComputedStyle(parent).display) && parentBox.width > box.width + 1
  return !isRow && lasts('sticky', el, parent, scroller())
}

/** A bar over the page's top, full width: fixed, it would be in the same place. */
function liesOver(el: HTMLElement): boolean {
  const box = el.getBoundingClientRect()
  const parent = el.offsetParent
  const byPage = parent === null || parent === document.body || parent === document.documentElement
  return (
    byPage &&
    !innerScroller() &&
    box.height <= innerHeight * 0.3 &&
    box.top + scrollY <= 1 &&
    box.left <= 1 &&
    box.width >= document.documentElement.clientWidth - 2
  )
}

/** The nearest element of the source, from `el` outwards. */
export function sourceElement(el: Element): number | null {
  return positionOf(el) ?? null
}

export const headerElement = (at: number | null): HTMLElement | null => {
  const el = at === null ? undefined : everyElement().get(at)
  return el instanceof HTMLElement ? el : null
}
