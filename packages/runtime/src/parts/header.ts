/** For pages with a header of their own: how much of the viewport's top is covered on arrival. It changes with the layout, never with the scroll position. */
import { COVER, coversEdge, HEADER, MADE_BAR, OWN_COVER, type Settings } from '@waybell/core/contract'
import { all, root } from '../elements.ts'
import { isInside, isReturn, viewTop } from '../page.ts'
import { ahead, forgetStates, own, tellApart, withBuilt } from './shrinks.ts'

/** In px: what covers on arrival, the page's own header and the made menu's bar. */
export let cover = 0

/** Forgets the header’s states, so that they are read anew. */
export const forgetHeader = (): void => forgetStates()

/**
 * Before the page is laid out. One that is loaded again is put back by its scroll position alone, and at once, until it is whole and its header has
 * settled. Chromium goes by what was seen first below what covers the page's top, and to another section where that is otherwise meanwhile. WebKit,
 * which keeps nothing in its place by itself, is left alone: without its smooth motion it goes to the hash instead.
 */
export function putBack(): void {
  const { style } = root
  if (!isReturn || !('overflowAnchor' in style)) return
  style.scrollBehavior = 'auto'
  style.overflowAnchor = 'none'
  // On a busy machine a header is still on its way long after, and the frame in which it ends is laid out after this.
  const end = () => requestAnimationFrame(headerMoves() ? end : () => (style.scrollBehavior = style.overflowAnchor = ''))
  addEventListener('load', () => setTimeout(requestAnimationFrame, 1000, end))
}

export function settleHeader(s: Settings): void {
  tellApart(headerReach, s, headerMoves)
  // There are screens that the bar is not on.
  cover = own + (all(MADE_BAR).some((el) => el.getClientRects().length) ? s.bar : 0)
  root.style.setProperty(COVER, `${cover}px`)
  if (s.bar) root.style.setProperty(OWN_COVER, `${own}px`)
}

/** The page's own header, where it stays over the viewport's top. */
const stays = (el: HTMLElement): boolean => {
  const style = getComputedStyle(el)
  return (
    (style.position === 'fixed' || (style.position === 'sticky' && isInside(el))) &&
    coversEdge(parseFloat(style.top), el.getBoundingClientRect(), { width: innerWidth, height: innerHeight })
  )
}

const headers = (): HTMLElement[] => withBuilt(all(`[${HEADER}]`), stays)

/** How far down the page's own header reaches when it stays in view, in its present state, in px. */
const headerReach = (): number => Math.max(0, ...headers().map((el) => (stays(el) ? insetOf(el) + el.getBoundingClientRect().height : 0)))

/** Where it stays, below where what is seen of the page begins. */
function insetOf(el: HTMLElement): number {
  const { position, top } = getComputedStyle(el)
  return parseFloat(top) - (position === 'fixed' ? viewTop() : 0)
}

/**
 * On its way from one state to another: how far it reaches now says nothing of where it will. What runs without end in it, or by the scroll position,
 * is no way to anywhere.
 */
const headerMoves = (): boolean =>
  headers().some((el) =>
    (el.getAnimations?.({ subtree: true }) as CSSTransition[] | undefined)?.some(
      ({ playState, transitionProperty }) => transitionProperty && playState === 'running',
    ),
  )

/** How much more is covered at this moment than on arrival, in px; nothing while the header is on its way from one state to another. */
export const coveredBeyond = (): number =>
  headerMoves() ? 0 : Math.max(0, ...[...headers(), ...all(MADE_BAR)].map((el) => (stays(el) ? edgeOf(el) - cover - ahead : 0)))

/** A sticky one that its place still holds lower covers nothing there: it stands before what it will cover. */
function edgeOf(el: HTMLElement): number {
  const { bottom, height } = el.getBoundingClientRect()
  const edge = bottom - viewTop()
  return getComputedStyle(el).position === 'sticky' ? Math.min(edge, insetOf(el) + height) : edge
}
