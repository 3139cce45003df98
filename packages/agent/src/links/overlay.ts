/** Overlays that cover nearly the whole viewport, such as cookie banners and loading screens. */
import { now, pause } from '../page/pending.ts'

/** Minimum share of the viewport's width and height. */
const SHARE = 0.8

/** The overlay that keeps a visitor from pressing a link; null for none. */
export function overlayOver(link: Element): Element | null {
  const { left, right, top, bottom, width } = link.getBoundingClientRect()
  if (!width) return null
  for (let e = document.elementFromPoint((left + right) / 2, (top + bottom) / 2); e && !e.contains(link); e = e.parentElement) {
    const box = e.getBoundingClientRect()
    if (getComputedStyle(e).position === 'fixed' && box.width >= innerWidth * SHARE && box.height >= innerHeight * SHARE) return e
  }
  return null
}

/** Overlays that didn't go away; each is waited for once. */
const stayed = new WeakSet<Element>()

/**
 * Waits for an overlay to go away, as a loading screen does, and returns the one that stays. It polls: an overlay may be removed, hidden
 * or moved, with or without a transition, and no single observer sees all of these.
 * @param limit in ms
 */
export async function overlayLeftOver(link: Element, limit = 3000): Promise<Element | null> {
  const end = now() + limit
  let overlay = overlayOver(link)
  while (overlay && !stayed.has(overlay) && now() < end) {
    await pause(50)
    overlay = overlayOver(link)
  }
  if (overlay) stayed.add(overlay)
  return overlay
}
