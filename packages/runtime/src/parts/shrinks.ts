/** For headers that resize on scroll, or weren't measured: distinguishes their states. */
import { AHEAD, COVER, GROWS, lasts, PIECE, SHIFTS, type Settings } from '@waybell/core/contract'
import { root } from '../elements.ts'
import { box, position, said, viewTop } from '../page.ts'

/** The header's reach after scrolling, in px. */
export let own = 0
/** px that the page still moves up until then. */
export let ahead = 0

let width = -1
/** Reach before scrolling, and its change afterwards; in px. */
let rest = 0
let change = 0
/** True when the header's states weren't measured. */
let isUnknown = false

/**
 * Adds unmarked bars at the top, found as a survey finds them: on unmeasured screens, or built by scripts.
 * @param stays true for a bar that stays over the top
 */
export const withBuilt = (known: HTMLElement[], stays: (el: HTMLElement) => boolean): HTMLElement[] =>
  !isUnknown && known[0]
    ? known
    : known.concat(
        (document.elementsFromPoint(innerWidth / 2, viewTop() + 1) as HTMLElement[]).filter(
          (el) => !el.closest(`[${PIECE}]`) && stays(el) && lasts(getComputedStyle(el).position, el, el.parentElement!, box),
        ),
      )

/** Forgets the header's states, so that they're read again. */
export const forgetStates = (): void => void (width = -1)

/** @param reach its reach now, in px @param moves true while it changes its state */
export function tellApart(reach: () => number, s: Settings, moves: () => boolean): void {
  const y = position()
  const isOther = width !== innerWidth
  // NaN if not measured.
  if (isOther) isUnknown = isNaN(said(GROWS))
  const now = reach()
  const isMoving = moves()
  if (isOther) {
    width = innerWidth
    change = said(GROWS) || 0
    // The style has the reach at rest. After arriving by address it may be changing already.
    root.style.removeProperty(COVER)
    const full = said(COVER) - s.bar
    const isSo = isMoving || Math.abs(now - full) < 1 || Math.abs(now - full - change) < 1
    rest = !isUnknown && isSo ? full : y > 0 ? now - change : now
  } else if (isMoving) {
    // Its end is told.
  } else if (y <= 0) {
    // Just back at the top, it may not have started to grow.
    if (!change || Math.abs(now - rest - change) >= 1) rest = now
  } else if (Math.abs(now - rest - change) >= 1 && !(change && Math.abs(now - rest) < 1)) {
    // Neither state: it shrinks by an amount not known at this width, or its layout changed, such as an open menu.
    if (now < rest && (isUnknown || Math.abs(now - rest - change) <= -change)) change = now - rest
    else rest = now - change
  }
  own = rest + change
  // At full size over the page's top, links go to where their targets will be.
  ahead = y <= 0 && !isMoving && Math.abs(now - rest) < 1 ? -said(SHIFTS) : 0
  root.style.setProperty(AHEAD, `${ahead}px`)
}
