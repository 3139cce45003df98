/** What stays at the viewport's top, or its bottom, while the page scrolls, by what the browser makes of it, and how far it reaches. */
import { coversEdge, HEADER, lasts } from '@waybell/core/contract'
import { innerScroller, scroller, topOf, viewHeight, viewTop } from '../page/scroller.ts'
import { isPiece } from '../edits/patch.ts'
import { everyElement, positionOf } from '../page/stamps.ts'

export interface Bar {
  el: HTMLElement
  position: 'sticky' | 'fixed'
}

type Edge = 'top' | 'bottom'

/** Beyond this many elements, only those that can be met at that edge of the viewport are asked for their style. */
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

/** Elements that stay at that edge of the viewport while the page scrolls under them. */
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

/** How far the bars reach down now over what is seen of the page, as drawn; 0 while they are out of sight. */
export function reachNow(bars: readonly Bar[]): number {
  const above = viewTop()
  let reach = 0
  for (const { el } of bars) {
    const box = el.getBoundingClientRect()
    const style = getComputedStyle(el)
    // One that a script makes stay once the page has moved does not stay yet.
    if (style.position !== 'fixed' && style.position !== 'sticky') continue
    if (style.visibility === 'hidden' || box.bottom <= 0) continue
    // A sticky one counts as stuck, also where the page's top still holds it lower.
    reach = Math.max(
      reach,
      style.position === 'sticky' ? Math.min(box.bottom - above, parseFloat(style.top) + box.height) : box.bottom - above,
    )
  }
  return reach
}

/** How far up what stays at the bottom of what is seen reaches now, in px. */
export function bottomNow(): number {
  const end = viewTop() + viewHeight()
  return Math.max(0, ...stayingBars('bottom').map(({ el }) => end - Math.max(viewTop(), el.getBoundingClientRect().top)))
}

/** What is as high as this share of what is seen is laid over the page, and no header of it. */
const OVERLAY = 0.95

/** True where a header stays over more of what is seen than leaves room to read beside it. */
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

/** True where a static header would stay over most of the page if it were sticky. */
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

/** A bar laid over the page's top, across all of it: fixed, it would be in the same place. */
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

/** The nearest element, from `el` outwards, that the source has. */
export function sourceElement(el: Element): number | null {
  return positionOf(el) ?? null
}

export const headerElement = (at: number | null): HTMLElement | null => {
  const el = at === null ? undefined : everyElement().get(at)
  return el instanceof HTMLElement ? el : null
}
