/** For pages on which links travel in other ways than by the one motion that the style says, or write another address than browsers do. */
import { EASINGS, hashOf, MOTION, readMotion, timeOf, type Settings, type Timed } from '@waybell/core/contract'
import { bare, box, elementOf, jumpTo, padded, position, setBehavior, startTab } from '../page.ts'
import { watchPress } from './scripts.ts'

/** The press that is followed, what it asks for, and what of that is written. */
let pressed: { event: Event | undefined; link: Element | undefined; id: string; rule: Settings['address'] } | undefined
/** The motion takes a time of its own. */
let timed: Timed | undefined
/** On its way in such a motion: from where to where, in px; since when, until the last frame for how long, and for how long in all, in ms. */
let way: { from: number; to: number; since?: number; gone: number; ms: number } | undefined

/**
 * Before the browser goes: in what motion.
 * @returns true where it is not the browser that moves the page
 */
export function setMotion(id: string, s: Settings, link?: Element, event?: Event): boolean {
  endMotion()
  pressed = { event, link, id, rule: s.address }
  const motion = link && readMotion(link.closest(`[${MOTION}]`)?.getAttribute(MOTION) ?? s.timed)
  if (!motion) return false
  if (motion === 'jump') setBehavior('auto')
  else if (!matchMedia('(prefers-reduced-motion: reduce)').matches) setBehavior('smooth')
  // Whoever keeps the page still keeps this still too.
  if (typeof motion === 'object' && getComputedStyle(padded()).scrollBehavior === 'smooth') timed = motion
  return !!timed
}

/** It has arrived, or the visitor took a hand: then it stands where it stands. */
export function endMotion(): void {
  if (pressed) setBehavior('')
  pressed = timed = way = undefined
}

export const isGliding = (): boolean => !!way

/** Sets out for a place, or while on its way for where that is now. */
export function travel(to: number): void {
  const y = position()
  if (!timed) box.scrollTo({ top: to })
  else if (way) {
    const done = doneOf(way)
    // From where it would have come to stand here.
    if (done < 1) way.from = (y - to * done) / (1 - done)
    way.to = to
  } else {
    // What the browser began itself ends here.
    jumpTo(y)
    way = { from: y, to, gone: 0, ms: timeOf(timed, Math.abs(to - y)) }
    glide(way)
  }
}

const doneOf = ({ gone, ms }: NonNullable<typeof way>): number => EASINGS[timed!.easing](Math.min(1, gone / ms))

function glide(mine: typeof way): void {
  requestAnimationFrame((now) => {
    if (!way || way !== mine) return
    // By the time of frames, which on a busy machine is behind that of the clock.
    way.gone = now - (way.since ??= now)
    const done = doneOf(way)
    jumpTo(way.from + (way.to - way.from) * done)
    if (done < 1) glide(mine)
    else way = undefined
  })
}

/** Once the page's own scripts have had the press, and left it. @param aim goes there, where the browser does not */
export function watchTravel(aim: () => void): void {
  addEventListener('click', (event) => {
    if (!pressed?.rule || pressed.event !== event || event.defaultPrevented) return
    event.preventDefault()
    // It was not a script of the page that took it.
    watchPress(undefined)
    // As it is written: one that leads to the top may say so without a name.
    if (pressed.rule === 'replace') return location.replace(bare(location.href) + ((pressed.link as HTMLAnchorElement).hash || '#'))
    startTab(elementOf(pressed.id))
    aim()
  })
}

let saying: ReturnType<typeof setTimeout>
let saidAt: number | undefined
/** The current section stands in the address once the page has come to rest. Some browsers refuse a hundred such changes in half a minute. */
export function sayCurrent(id: string, s: Settings): void {
  const isFirst = saidAt === undefined
  const hasMoved = saidAt !== (saidAt = position())
  if (!s.follows || isFirst || !hasMoved) return
  clearTimeout(saying)
  saying = setTimeout(() => history.replaceState(history.state, '', bare(location.href) + (id && hashOf(id))), 300)
}
