/** Whether a menu's links are large enough to press and to read. */
import type { SizeProblem } from '@waybell/core'
import { isShown } from './marks.ts'

/** Min target size each way, in px. @see WCAG 2.2, 2.5.8, Target size (minimum) */
const LEAST = 24

const middleOf = ({ left, top, width, height }: DOMRect) => ({ x: left + width / 2, y: top + height / 2 })

/** True for a link smaller than that and so close to another that a finger can't tell them apart. */
function isTight(link: Element, menu: Element): boolean {
  const box = link.getBoundingClientRect()
  if (!box.width || (box.width >= LEAST && box.height >= LEAST)) return false
  const { x, y } = middleOf(box)
  return [...menu.querySelectorAll('a[href], button, summary')].some((other) => {
    if (other === link || link.contains(other) || other.contains(link) || !isShown(other)) return false
    const there = other.getBoundingClientRect()
    const isSmall = there.width < LEAST || there.height < LEAST
    // A circle around this one's centre, and the other's box or circle.
    const [dx, dy] = isSmall
      ? [middleOf(there).x - x, middleOf(there).y - y]
      : [Math.max(there.left - x, 0, x - there.right), Math.max(there.top - y, 0, y - there.bottom)]
    return Math.hypot(dx, dy) < (isSmall ? LEAST : LEAST / 2) - 0.5
  })
}

const scrolls = (el: Element): boolean => /auto|scroll/.test(getComputedStyle(el).overflowX) && el.scrollWidth > el.clientWidth + 1

/** True when part of its label is out of reach: beside a viewport that doesn't scroll, or clipped. */
function isCut(link: Element): boolean {
  const range = document.createRange()
  range.selectNodeContents(link)
  const words = range.getBoundingClientRect()
  if (!words.width) return false
  let [left, right] = [0, document.documentElement.clientWidth]
  for (let e: Element | null = link; e && e !== document.body; e = e.parentElement) {
    if (scrolls(e)) return false
    const { overflowX, clipPath, position } = getComputedStyle(e)
    // Text for screen readers only isn't visible.
    if (clipPath !== 'none') return false
    if (overflowX !== 'visible') {
      const box = e.getBoundingClientRect()
      if (box.width < 2) return false
      left = Math.max(left, box.left)
      right = Math.min(right, box.right)
    }
    if (position === 'fixed') break
  }
  const own = link.getBoundingClientRect()
  // Text moved out of view beside a visible link is for screen readers; an icon replaces it.
  const isPutAway = (words.right <= left || words.left >= right) && own.left >= left - 1 && own.right <= right + 1
  return !isPutAway && (words.left < left - 1 || words.right > right + 1)
}

/** True for several lines, in a menu with items in a row. */
function isWrapped(link: Element, menu: Element): boolean {
  const others = [...menu.querySelectorAll('a[href]')].filter((a) => a !== link && isShown(a)).map((a) => a.getBoundingClientRect())
  const box = link.getBoundingClientRect()
  const isBeside = others.some((o) => o.top < box.bottom && o.bottom > box.top && (o.left >= box.right - 1 || o.right <= box.left + 1))
  const words = document.createTreeWalker(link, NodeFilter.SHOW_TEXT, (n) =>
    n.nodeValue!.trim() ? NodeFilter.FILTER_ACCEPT : NodeFilter.FILTER_SKIP,
  )
  const text = words.nextNode()
  if (!isBeside || !text) return false
  const range = document.createRange()
  range.selectNodeContents(text)
  return new Set([...range.getClientRects()].map((r) => Math.round(r.top))).size > 1
}

export function sizeProblems(link: Element, menu: Element): SizeProblem[] {
  const is: Record<SizeProblem, () => boolean> = {
    tight: () => isTight(link, menu),
    cut: () => isCut(link),
    wrapped: () => isWrapped(link, menu),
  }
  return isShown(link) ? (Object.keys(is) as SizeProblem[]).filter((problem) => is[problem]()) : []
}
