/** Stands alone: a header that is smaller once the page has moved keeps its place on the page then, by more margin below it. */
import { SMALLER, STEADY, TALL } from '@waybell/core/contract'
import { all } from '../elements.ts'
import { said } from '../page.ts'
import { innerNow } from '../parts/scroller.ts'

interface Held {
  /** As it was last seen, in px. */
  height: number
  /** Its height at rest in this layout, in px. */
  tall: number
  width: number
  /** What stands between it and what follows, in px: its margin, or what that runs into. Not known until it is smaller. */
  own?: number | undefined
  /** Its margin, which no transition of the page's own leads to its place late. */
  made?: Animation | undefined
  /** When it had another size last. */
  since: number
}

const here = document as Document & { wbSteady?: true }
const held = new Map<HTMLElement, Held>()
/** Wider than any that a page has, in px: what it runs into is narrower, and counts for nothing. @see CSS 2.2, "Collapsing margins" */
const WIDE = 2000
/** What has one size for so long has come to rest, in ms. */
const QUIET = 300

const heightOf = (el: HTMLElement): number => el.getBoundingClientRect().height
const position = (): number => (innerNow() ?? document.scrollingElement!).scrollTop

/** Laid out, and not drawn yet: in the frame in which it becomes smaller nothing is seen to move. */
function hold(el: HTMLElement): void {
  const height = heightOf(el)
  const [by, full] = [said(SMALLER), said(TALL)]
  const known = held.get(el) ?? { height, tall: full, width: -1, since: 0 }
  held.set(el, known)
  known.height = height
  known.since = performance.now()
  watch()
  setTimeout(settle, QUIET, el)
  if (known.width !== innerWidth) {
    // In another layout it is as small as it was, or as it was measured.
    const isSmall = position() > 0 && (known.made || Math.abs(height - full + by) < 1)
    known.tall = isSmall ? height + by : height
    known.width = innerWidth
    known.own = undefined
  }
  const lacks = el.hasAttribute(STEADY) ? known.tall - height : 0
  free()
  if (!(lacks > 0) || isNaN(by)) return set(el, known)
  if (known.own === undefined) {
    set(el, known)
    const top = endOf(el)
    set(el, known, WIDE)
    known.own = WIDE - endOf(el) + top
  }
  set(el, known, known.own + lacks)
}

/** @param margin in px; none for what the page says */
function set(el: HTMLElement, known: Held, margin?: number): void {
  if (margin === undefined) {
    known.made?.cancel()
    known.made = undefined
    return
  }
  const frames = { marginBottom: Array<string>(2).fill(`${margin}px`) }
  if (known.made) return (known.made.effect as KeyframeEffect).setKeyframes(frames)
  known.made = el.animate(frames, { duration: 1, fill: 'both' })
  known.made.pause()
}

/** Where what follows it in the flow begins, in px below the viewport's top. */
function endOf(el: Element): number {
  for (let next = el.nextElementSibling; next; next = next.nextElementSibling)
    if (next.getClientRects().length && !/absolute|fixed/.test(getComputedStyle(next).position)) return next.getBoundingClientRect().top
  return el.parentElement ? endOf(el.parentElement) : 0
}

/** At the page's top it has come to its full size, which may be another than before by a late font; a menu that opened in it is more. */
function settle(el: HTMLElement): void {
  const known = held.get(el)!
  free()
  if (performance.now() - known.since < QUIET || position() > 0 || Math.abs(heightOf(el) - known.tall) * 2 >= said(SMALLER)) return
  if (heightOf(el) !== known.tall) {
    known.tall = heightOf(el)
    hold(el)
  }
}

/**
 * Where it changes its size, and while it does, the browser keeps nothing in its place by itself: a script of the page that reads the position in between
 * would find another.
 */
function free(): void {
  const isChanging = [...held].some(
    ([el, { since }]) => el.hasAttribute(STEADY) && (performance.now() - since < QUIET || position() < innerHeight),
  )
  const { style } = innerNow() ?? document.body
  const anchor = isChanging ? 'none' : ''
  if (style.overflowAnchor !== anchor) style.overflowAnchor = anchor
}

const holdChanged = (): void => {
  for (const [el, { height }] of held) if (heightOf(el) !== height) hold(el)
}

/** Frames are looked at until then. */
let until = 0
let isWatching = false

/**
 * Before a frame is laid out, so that who watches sizes is told of none that does not last; where nothing changed, reading costs nothing. What a script
 * of the page changes later in the frame the watcher tells.
 */
function watch(): void {
  if (!held.size) return
  until = performance.now() + QUIET
  if (!isWatching) requestAnimationFrame(eachFrame)
  isWatching = true
}
function eachFrame(): void {
  holdChanged()
  isWatching = performance.now() < until
  if (isWatching) requestAnimationFrame(eachFrame)
}

const watcher = new ResizeObserver(holdChanged)

function onScroll(): void {
  free()
  watch()
}

function look(): void {
  for (const el of new Set([...held.keys(), ...all(`[${STEADY}]`)])) {
    watcher.observe(el, { box: 'border-box' })
    hold(el)
  }
}

if (!here.wbSteady) {
  here.wbSteady = true
  if (document.readyState === 'loading') document.addEventListener('DOMContentLoaded', look)
  else look()
  addEventListener('scroll', onScroll, { passive: true, capture: true })
  for (const type of ['transitionrun', 'transitionstart']) addEventListener(type, watch, true)
  // In a live page the work changes under it.
  document.addEventListener('waybell', look)
}
