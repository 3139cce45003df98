/** Headings without heading tags, on pages that have none. */
import type { Survey } from '@waybell/core/survey'
import { isShown } from '../links/marks.ts'
import { everyElement } from '../page/stamps.ts'

const LONGEST = 120
const MOST = 500
/** Larger than the following text by this factor, or heavier by this much at the same size. */
const LARGER = 1.15
const HEAVIER = 200

const notHeadings = 'nav, a, button, label, form, th, footer, figcaption, summary, select, svg, dialog, [role="navigation"]'

interface Like {
  at: number
  el: Element
  size: number
  weight: number
}

const textIn = (el: Element): string => (el.textContent ?? '').trim().replace(/\s+/g, ' ')

function sizeOf(el: Element): { size: number; weight: number } {
  // The style of its text, which may be in a child.
  let inner = el
  while (inner.children.length === 1 && textIn(inner.children[0]!) === textIn(inner)) inner = inner.children[0]!
  const style = getComputedStyle(inner)
  return { size: parseFloat(style.fontSize), weight: Number(style.fontWeight) || 400 }
}

/** The element with the next text, within the block around both. */
function nextText(el: Element, block: Element): Element | null {
  const walker = document.createTreeWalker(block, NodeFilter.SHOW_TEXT)
  walker.currentNode = el
  for (let node = walker.nextNode(); node; node = walker.nextNode()) {
    if (el.contains(node) || !node.nodeValue!.trim() || !node.parentElement || !isShown(node.parentElement)) continue
    return node.parentElement
  }
  return null
}

const isInline = (el: Element): boolean => getComputedStyle(el).display.startsWith('inline')

/** True when an inline element has a line to itself: between blocks, rules or line breaks, ignoring empty anchors. */
function hasLine(el: Element): boolean {
  const ends = (step: 'previousSibling' | 'nextSibling'): boolean => {
    for (let node = el[step]; node; node = node[step]) {
      if (node instanceof Element) {
        if (['BR', 'HR'].includes(node.tagName) || !isInline(node)) return true
        if (textIn(node)) return false
      } else if (node.nodeType === Node.TEXT_NODE && node.nodeValue!.trim()) return false
    }
    return !!el.parentElement && !isInline(el.parentElement)
  }
  return ends('previousSibling') && ends('nextSibling')
}

function isHeadingLike(el: Element): Omit<Like, 'at'> | null {
  // An element with blocks is no heading; its text needn't be read.
  if ([...el.children].some((c) => !isInline(c))) return null
  const words = textIn(el)
  if (!words || words.length > LONGEST || el.closest(notHeadings) || !isShown(el) || (isInline(el) && !hasLine(el))) return null
  // A single cell of a row isn't a heading.
  const cell = el.closest('td')
  if (cell && textIn(cell) === words) return null
  let block = el.parentElement
  while (block && block !== document.body && block.children.length === 1 && !hasOwnText(block)) block = block.parentElement
  const next = block && nextText(el, block)
  if (!next) return null
  const own = sizeOf(el)
  const text = sizeOf(next)
  const isLarger = own.size >= text.size * LARGER
  return isLarger || (own.size >= text.size && own.weight >= text.weight + HEAVIER) ? { el, ...own } : null
}

const hasOwnText = (el: Element): boolean => [...el.childNodes].some((n) => n.nodeType === Node.TEXT_NODE && n.nodeValue!.trim() !== '')

/** Headings by look: similar ones share a level, larger ones have a higher level. */
export function headingsByLook(): Survey['looks'] {
  const found: Like[] = []
  for (const [at, el] of everyElement()) {
    const like = el instanceof HTMLElement && found.length < MOST ? isHeadingLike(el) : null
    if (like) found.push({ at, ...like })
  }
  const groups = new Map<string, Like[]>()
  for (const like of found.filter((f) => !found.some((other) => other !== f && other.el.contains(f.el)))) {
    const name = `${Math.round(like.size)} ${like.weight >= 600}`
    groups.set(name, [...(groups.get(name) ?? []), like])
  }
  const inOrder = [...groups.values()].sort((a, b) => b[0]!.size - a[0]!.size || b[0]!.weight - a[0]!.weight)
  const firstRepeated = inOrder.findIndex((g) => g.length >= 2)
  if (firstRepeated < 0) return []
  // A heading larger than all that repeat is the page's title.
  const levels = inOrder.map((_, n) => (n < firstRepeated ? 1 : Math.min(2 + n - firstRepeated, 6)))
  return inOrder.flatMap((group, n) => group.map(({ at }) => ({ at, level: levels[n]! }))).sort((a, b) => a.at - b.at)
}
