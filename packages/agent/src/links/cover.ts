/** What covers the place where a link arrives. */
import { MADE, madeMenuNamed, readMade } from '@waybell/core/contract'

/** True for an element without text that paints nothing, whatever its height: it's only a target. */
function isEmpty(el: Element): boolean {
  if (el.textContent?.trim() || el.matches(MEDIA) || el.querySelector(MEDIA)) return false
  return [el, ...el.querySelectorAll('*')].every((e) => {
    const { visibility, backgroundImage, backgroundColor, borderTopStyle } = getComputedStyle(e)
    const isClear = backgroundImage === 'none' && /^rgba\(.*, 0\)$|^transparent$/.test(backgroundColor) && borderTopStyle === 'none'
    return visibility === 'hidden' || isClear
  })
}
const MEDIA = 'img, svg, video, canvas, iframe, object, embed'

/** What a visitor sees first of a target, its heading or else its first words: the box, and the element that holds it. */
function firstOf(target: Element): { box: DOMRect; of: Element } {
  const heading = target.matches('h1,h2,h3,h4,h5,h6') ? target : target.querySelector('h1,h2,h3,h4,h5,h6,[role=heading]')
  const of = heading ?? target
  const range = document.createRange()
  // An empty target stands for the content after it.
  const isClear = isEmpty(of)
  const words = document.createTreeWalker(isClear ? document.body : of, NodeFilter.SHOW_TEXT, {
    acceptNode: (n) =>
      n.nodeValue!.trim() && n.parentElement!.getClientRects().length ? NodeFilter.FILTER_ACCEPT : NodeFilter.FILTER_SKIP,
  })
  if (isClear) words.currentNode = of
  const first = words.nextNode()
  if (first) range.selectNodeContents(first)
  const box = first && range.getClientRects()[0]
  return box ? { box, of: first.parentElement! } : { box: of.getBoundingClientRect(), of }
}

/**
 * The element that covers the start of a target: a header, a menu that was left open, or anything opaque. `out` when the start is out
 * of view, null when it's visible.
 * @param overlay treated as if it were gone
 */
export function coverOver(target: Element, leftOpen: Element | null, overlay: Element | null): Element | 'out' | null {
  const { box, of } = firstOf(target)
  const [x, y] = [Math.min(box.left + Math.min(box.width, 40) / 2, innerWidth - 1), box.top + box.height / 2]
  if (y < 0 || y > innerHeight || box.right < 0 || box.left > innerWidth) return 'out'
  const over = document.elementsFromPoint(Math.max(0, x), y).find((e) => !overlay?.contains(e))
  for (let e: Element | null = over ?? null; e && e !== document.body; e = e.parentElement) {
    if (leftOpen && (leftOpen.contains(e) || (e.contains(leftOpen) && getComputedStyle(e).position !== 'static'))) return e
    // An element that holds the text doesn't cover it, sticky or not.
    if (e.contains(of)) return null
    const { position } = getComputedStyle(e)
    if (position === 'fixed' || (position === 'sticky' && e.getBoundingClientRect().top <= parseFloat(getComputedStyle(e).top) + 1))
      return e
    if (!target.contains(e) && hides(e) && canBeRead(of)) return e
  }
  return null
}

/** True for an opaque element. */
function hides(el: Element): boolean {
  const { opacity, backgroundColor } = getComputedStyle(el)
  return parseFloat(opacity) === 1 && (el.matches('img, video, canvas, iframe') || backgroundColor.startsWith('rgb('))
}

/** False for hidden text, as some targets have. A measuring frame itself is transparent, so only the element's own opacity counts. */
const canBeRead = (el: Element): boolean =>
  el.checkVisibility({ visibilityProperty: true }) && getComputedStyle(el).opacity !== '0' && el.getBoundingClientRect().height > 2

/** Name of the made menu that an element belongs to; null for others. Step links have it in their attribute. */
export function madeNameOf(el: Element): string | null {
  const made = readMade(el.getAttribute(MADE) ?? '')
  return made && (el.getAttribute('aria-label') ?? made.words.name ?? '')
}

/** An element's name in findings. */
export const nameOf = (el: Element): string => {
  const made = madeNameOf(el)
  if (made !== null) return madeMenuNamed(made)
  const [first] = el.classList
  return el.id ? `“#${el.id}”` : first ? `“.${first}”` : `the page’s ${el.localName}`
}
