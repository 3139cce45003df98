/** For pages whose links have other motions than the style's, or other addresses than the browser's. */
import { EASINGS, hashOf, MOTION, readMotion, timeOf, type Settings, type Timed } from '@waybell/core/contract'
import { bare, box, elementOf, jumpTo, padded, position, setBehavior, startTab } from '../page.ts'
import { watchPress } from './scripts.ts'

/** The followed press, its hash, and the address rule. */
let pressed: { event: Event | undefined; link: Element | undefined; id: string; rule: Settings['address'] } | undefined
/** A timed motion. */
let timed: Timed | undefined
/** A timed motion under way: start and end in px; start time, elapsed and total in ms. */
let way: { from: number; to: number; since?: number; gone: number; ms: number } | undefined

/** Sets the motion before the browser scrolls. @returns true if the script scrolls instead */
export function setMotion(id: string, s: Settings, link?: Element, event?: Event): boolean {
  endMotion()
  pressed = { event, link, id, rule: s.address }
  const motion = link && readMotion(link.closest(`[${MOTION}]`)?.getAttribute(MOTION) ?? s.timed)
  if (!motion) return false
  if (motion === 'jump') setBehavior('auto')
  else if (!matchMedia('(prefers-reduced-motion: reduce)').matches) setBehavior('smooth')
  // Respects reduced motion.
  if (typeof motion === 'object' && getComputedStyle(padded()).scrollBehavior === 'smooth') timed = motion
  return !!timed
}

/** Arrived, or the visitor scrolled: stays there. */
export function endMotion(): void {
  if (pressed) setBehavior('')
  pressed = timed = way = undefined
}

export const isGliding = (): boolean => !!way

/** Starts a timed motion, or updates its end. */
export function travel(to: number): void {
  const y = position()
  if (!timed) box.scrollTo({ top: to })
  else if (way) {
    const done = doneOf(way)
    // Start that would lead to the present position.
    if (done < 1) way.from = (y - to * done) / (1 - done)
    way.to = to
  } else {
    // Ends the browser's own motion.
    jumpTo(y)
    way = { from: y, to, gone: 0, ms: timeOf(timed, Math.abs(to - y)) }
    glide(way)
  }
}

const doneOf = ({ gone, ms }: NonNullable<typeof way>): number => EASINGS[timed!.easing](Math.min(1, gone / ms))

function glide(mine: typeof way): void {
  requestAnimationFrame((now) => {
    if (!way || way !== mine) return
    // By frame time, which lags on a busy machine.
    way.gone = now - (way.since ??= now)
    const done = doneOf(way)
    jumpTo(way.from + (way.to - way.from) * done)
    if (done < 1) glide(mine)
    else way = undefined
  })
}

/** After page scripts had the press and left it. @param aim scrolls if the browser doesn't */
export function watchTravel(aim: () => void): void {
  addEventListener('click', (event) => {
    if (!pressed?.rule || pressed.event !== event || event.defaultPrevented) return
    event.preventDefault()
    // No page script handled it.
    watchPress(undefined)
    // As written: a link to the top may have an empty hash.
    if (pressed.rule === 'replace') return location.replace(bare(location.href) + ((pressed.link as HTMLAnchorElement).hash || '#'))
    startTab(elementOf(pressed.id))
    aim()
  })
}

let saying: ReturnType<typeof setTimeout>
let saidAt: number | undefined
/** Writes the current section to the address once the page is still. Some browsers refuse 100 changes in 30 s. */
export function sayCurrent(id: string, s: Settings): void {
  const isFirst = saidAt === undefined
  const hasMoved = saidAt !== (saidAt = position())
  if (!s.follows || isFirst || !hasMoved) return
  clearTimeout(saying)
  saying = setTimeout(() => history.replaceState(history.state, '', bare(location.href) + (id && hashOf(id))), 300)
}
