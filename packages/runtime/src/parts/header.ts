/**
 * For pages with a header: how much of the viewport's top is covered on arrival. Changes with the layout, never with the scroll
 * position.
 */
import { COVER, coversEdge, HEADER, MADE_BAR, OWN_COVER, type Settings } from '@waybell/core/contract'
import { all, root } from '../elements.ts'
import { isInside, isReturn, viewTop } from '../page.ts'
import { ahead, forgetStates, own, tellApart, withBuilt } from './shrinks.ts'

/** In px: the covered height on arrival, header and made bar. */
export let cover = 0

/** Forgets the header's states, so that they're read again. */
export const forgetHeader = (): void => forgetStates()

/**
 * Before layout: a reloaded page is restored by its scroll position alone, until it's complete and its header at rest. Chromium would go
 * by the first visible content below the cover, which may have changed. WebKit has no scroll anchoring and is left alone: without smooth
 * motion it would go to the hash.
 */
export function putBack(): void {
  const { style } = root
  if (!isReturn || !('overflowAnchor' in style)) return
  style.scrollBehavior = 'auto'
  style.overflowAnchor = 'none'
  // On a busy machine a header may still move; the frame in which it ends is laid out after this.
  const end = () => requestAnimationFrame(headerMoves() ? end : () => (style.scrollBehavior = style.overflowAnchor = ''))
  addEventListener('load', () => setTimeout(requestAnimationFrame, 1000, end))
}

export function settleHeader(s: Settings): void {
  tellApart(headerReach, s, headerMoves)
  // The bar isn't on every screen.
  cover = own + (all(MADE_BAR).some((el) => el.getClientRects().length) ? s.bar : 0)
  root.style.setProperty(COVER, `${cover}px`)
  if (s.bar) root.style.setProperty(OWN_COVER, `${own}px`)
}

/** True for the page's header when it stays over the viewport's top. */
const stays = (el: HTMLElement): boolean => {
  const style = getComputedStyle(el)
  return (
    (style.position === 'fixed' || (style.position === 'sticky' && isInside(el))) &&
    coversEdge(parseFloat(style.top), el.getBoundingClientRect(), { width: innerWidth, height: innerHeight })
  )
}

const headers = (): HTMLElement[] => withBuilt(all(`[${HEADER}]`), stays)

/** Current reach of the page's header when it stays, in px. */
const headerReach = (): number => Math.max(0, ...headers().map((el) => (stays(el) ? insetOf(el) + el.getBoundingClientRect().height : 0)))

/** Its distance below the top of the visible page. */
function insetOf(el: HTMLElement): number {
  const { position, top } = getComputedStyle(el)
  return parseFloat(top) - (position === 'fixed' ? viewTop() : 0)
}

/** True while it changes its state: its reach now isn't final. Endless and scroll-driven animations don't count. */
const headerMoves = (): boolean =>
  headers().some((el) =>
    (el.getAnimations?.({ subtree: true }) as CSSTransition[] | undefined)?.some(
      ({ playState, transitionProperty }) => transitionProperty && playState === 'running',
    ),
  )

/** px covered now beyond what is covered on arrival; 0 while the header changes its state. */
export const coveredBeyond = (): number =>
  headerMoves() ? 0 : Math.max(0, ...[...headers(), ...all(MADE_BAR)].map((el) => (stays(el) ? edgeOf(el) - cover - ahead : 0)))

/** A sticky bar that isn't stuck yet covers nothing there. */
function edgeOf(el: HTMLElement): number {
  const { bottom, height } = el.getBoundingClientRect()
  const edge = bottom - viewTop()
  return getComputedStyle(el).position === 'sticky' ? Math.min(edge, insetOf(el) + height) : edge
}
