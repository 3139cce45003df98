/**
 * For pages with a header of their own: how much of the viewport's top is covered on arrival. The header's states are told apart: it changes with
 * the layout, never with the scroll position.
 */
import { COVER, coversTop, HEADER, MADE_MENU, OWN_COVER, type Settings } from '@waybell/core/contract'
import { all, position, root } from '../page.ts'

/** In px: what covers on arrival, the page's own header and the made menu's bar. */
export let cover = 0

let width = -1
/** The page's own header before the page has moved, and what it changes by once it has; in px. */
let rest = 0
let change = 0
/** True until the header's states were seen, where nobody measured them before. */
let learning = false
/** When the page was first seen at its top again. */
let backAt: number | undefined

/** What was seen of the header is not to be gone by any more. */
export const forgetHeader = (): void => void (width = -1)

/** @returns false where it is to be looked at again a little later */
export function settleHeader(s: Settings): boolean {
  const now = headerReach()
  const y = position()
  let isDone = true
  if (y > 0) backAt = undefined
  if (width !== innerWidth) {
    width = innerWidth
    const measured = s.shrink.find(([widest]) => width <= widest)?.[1] ?? null
    learning = measured === null
    change = measured ?? 0
    rest = y > 0 ? now - change : now
  } else if (headerMoves()) {
    // Its end is told.
  } else if (y <= 0) {
    // Where it just came back to the top it may not have begun to grow.
    const isAsMoved = change !== 0 && Math.abs(now - rest - change) < 1
    backAt ??= performance.now()
    if (isAsMoved && performance.now() - backAt < 500) isDone = false
    else rest = now
  } else if (Math.abs(now - rest - change) >= 1 && !(change && Math.abs(now - rest) < 1)) {
    // Neither of its states: it shrinks and nobody knew, or its layout is another, a menu opened in it say.
    if (learning && now < rest) change = now - rest
    else rest = now - change
  }
  cover = rest + change + s.bar
  root.style.setProperty(COVER, `${cover}px`)
  if (s.bar) root.style.setProperty(OWN_COVER, `${rest + change}px`)
  return isDone
}

/** The page's own header, where it stays over the viewport's top. */
const stays = (el: HTMLElement): boolean => {
  const style = getComputedStyle(el)
  const { width, height } = el.getBoundingClientRect()
  return (
    /fixed|sticky/.test(style.position) &&
    coversTop({ inset: parseFloat(style.top), width, height }, { width: innerWidth, height: innerHeight })
  )
}
const headers = () => all(`[${HEADER}]`)

/** How far down the page's own header reaches when it stays in view, in its present state, in px. */
const headerReach = (): number =>
  Math.max(0, ...headers().map((el) => (stays(el) ? parseFloat(getComputedStyle(el).top) + el.getBoundingClientRect().height : 0)))

/** On its way from one state to another: how far it reaches now says nothing of where it will. */
export const headerMoves = (): boolean =>
  headers().some((el) => el.getAnimations?.({ subtree: true }).some(({ playState }) => playState === 'running'))

/** The lower edge of what covers the viewport's top at this moment, in px. */
export const coveredNow = (): number => Math.max(0, ...[...headers(), ...all(MADE_MENU)].map((el) => (stays(el) ? edgeOf(el) : 0)))

/** A sticky one that its place still holds lower covers nothing there: it stands before what it will cover. */
function edgeOf(el: HTMLElement): number {
  const { bottom, height } = el.getBoundingClientRect()
  const { position, top } = getComputedStyle(el)
  return position === 'sticky' ? Math.min(bottom, parseFloat(top) + height) : bottom
}
