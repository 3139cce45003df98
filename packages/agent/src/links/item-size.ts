/** How much room a menu's link has for who presses it and who reads it. */
import type { SizeProblem } from '@waybell/core'
import { isShown } from './marks.ts'

/** The least that a target measures each way, in px. @see WCAG 2.2, 2.5.8, Target size (minimum) */
const LEAST = 24

const middleOf = ({ left, top, width, height }: DOMRect) => ({ x: left + width / 2, y: top + height / 2 })

/** Smaller than that, and so near to another of the menu's links that the two cannot be told apart by a finger. */
function isTight(link: Element, menu: Element): boolean {
  const box = link.getBoundingClientRect()
  if (!box.width || (box.width >= LEAST && box.height >= LEAST)) return false
  const { x, y } = middleOf(box)
  return [...menu.querySelectorAll('a[href], button, summary')].some((other) => {
    if (other === link || link.contains(other) || other.contains(link) || !isShown(other)) return false
    const there = other.getBoundingClientRect()
    const isSmall = there.width < LEAST || there.height < LEAST
    // A circle around the middle of this one, and the other one, or the circle around its middle.
    const [dx, dy] = isSmall
      ? [middleOf(there).x - x, middleOf(there).y - y]
      : [Math.max(there.left - x, 0, x - there.right), Math.max(there.top - y, 0, y - there.bottom)]
    return Math.hypot(dx, dy) < (isSmall ? LEAST : LEAST / 2) - 0.5
  })
}

const scrolls = (el: Element): boolean => /auto|scroll/.test(getComputedStyle(el).overflowX) && el.scrollWidth > el.clientWidth + 1

/** Some of its label is out of reach: beside the viewport where nothing scrolls, or cut off by what it stands in. */
function isCut(link: Element): boolean {
  const range = document.createRange()
  range.selectNodeContents(link)
  const words = range.getBoundingClientRect()
  if (!words.width) return false
  let [left, right] = [0, document.documentElement.clientWidth]
  for (let e: Element | null = link; e && e !== document.body; e = e.parentElement) {
    if (scrolls(e)) return false
    const { overflowX, clipPath, position } = getComputedStyle(e)
    // What is there for who hears it alone is no label that is seen.
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
  // Words that were put away beside a link that is in view are for who hears it, and a picture stands for them.
  const isPutAway = (words.right <= left || words.left >= right) && own.left >= left - 1 && own.right <= right + 1
  return !isPutAway && (words.left < left - 1 || words.right > right + 1)
}

/** In more than one line, in a menu whose items stand beside each other. */
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
