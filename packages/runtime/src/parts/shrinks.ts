/** For headers that change their size once the page has moved, or that nobody has measured: their states are told apart. */
import { AHEAD, COVER, GROWS, lasts, PIECE, SHIFTS, type Settings } from '@waybell/core/contract'
import { root } from '../elements.ts'
import { box, position, said, viewTop } from '../page.ts'

/** How far the page's own header reaches once the page has moved, in px. */
export let own = 0
/** What the page still moves up by until then, in px. */
export let ahead = 0

let width = -1
/** Before the page has moved, and what it changes by once it has; in px. */
let rest = 0
let change = 0
/** True where nobody measured the header's states. */
let isUnknown = false

/**
 * With what stays at the top beside them, found as a survey finds it: on a screen that nobody measured, or where the page's scripts made it, so
 * that it has no mark.
 * @param stays true for what does, and covers the top
 */
export const withBuilt = (known: HTMLElement[], stays: (el: HTMLElement) => boolean): HTMLElement[] =>
  !isUnknown && known[0]
    ? known
    : known.concat(
        (document.elementsFromPoint(innerWidth / 2, viewTop() + 1) as HTMLElement[]).filter(
          (el) => !el.closest(`[${PIECE}]`) && stays(el) && lasts(getComputedStyle(el).position, el, el.parentElement!, box),
        ),
      )

/** Forgets the header’s states, so that they are read anew. */
export const forgetStates = (): void => void (width = -1)

/** @param reach how far it reaches in its present state, in px @param moves true while it is on its way to another */
export function tellApart(reach: () => number, s: Settings, moves: () => boolean): void {
  const y = position()
  const isOther = width !== innerWidth
  // Not a number where nobody measured it.
  if (isOther) isUnknown = isNaN(said(GROWS))
  const now = reach()
  const isMoving = moves()
  if (isOther) {
    width = innerWidth
    change = said(GROWS) || 0
    // The style says how far it reaches at rest. Coming from outside it may be on its way to its other state.
    root.style.removeProperty(COVER)
    const full = said(COVER) - s.bar
    const isSo = isMoving || Math.abs(now - full) < 1 || Math.abs(now - full - change) < 1
    rest = !isUnknown && isSo ? full : y > 0 ? now - change : now
  } else if (isMoving) {
    // Its end is told.
  } else if (y <= 0) {
    // Where it just came back to the top it may not have begun to grow.
    if (!change || Math.abs(now - rest - change) >= 1) rest = now
  } else if (Math.abs(now - rest - change) >= 1 && !(change && Math.abs(now - rest) < 1)) {
    // Neither of its states: it shrinks by as much as nobody knew at this width, or its layout is another, a menu opened in it say.
    if (now < rest && (isUnknown || Math.abs(now - rest - change) <= -change)) change = now - rest
    else rest = now - change
  }
  own = rest + change
  // Where it stands at its full size over the page's top, a link leads to where its target will be.
  ahead = y <= 0 && !isMoving && Math.abs(now - rest) < 1 ? -said(SHIFTS) : 0
  root.style.setProperty(AHEAD, `${ahead}px`)
}
