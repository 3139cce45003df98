/** Separate script: a header that shrinks after scrolling keeps its space by a larger margin below. */
import { SMALLER, STEADY, TALL } from '@waybell/core/contract'
import { all } from '../elements.ts'
import { said } from '../page.ts'
import { innerNow } from '../parts/scroller.ts'

interface Held {
  /** Last seen height, in px. */
  height: number
  /** Height at rest in this layout, in px. */
  tall: number
  width: number
  /** Space between it and the next content, in px: its margin, or the one that it collapses with. Unknown until it shrinks. */
  own?: number | undefined
  /** Its margin, as an animation that overrides the page's transitions. */
  made?: Animation | undefined
  /** Time of its last change of size. */
  since: number
}

const here = document as Document & { wbSteady?: true }
const held = new Map<HTMLElement, Held>()
/** Larger than any margin, in px: an adjoining one is smaller and collapses. @see CSS 2.2, "Collapsing margins" */
const WIDE = 2000
/** Constant for this long counts as at rest, in ms. */
const QUIET = 300

const heightOf = (el: HTMLElement): number => el.getBoundingClientRect().height
const position = (): number => (innerNow() ?? document.scrollingElement!).scrollTop

/** After layout and before painting: nothing is seen to move when it shrinks. */
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
    // In another layout it's as small as before, or as measured.
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

/** @param margin in px; none for the page's own */
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

/** Top of the next content in the flow, in px below the viewport's top. */
function endOf(el: Element): number {
  for (let next = el.nextElementSibling; next; next = next.nextElementSibling)
    if (next.getClientRects().length && !/absolute|fixed/.test(getComputedStyle(next).position)) return next.getBoundingClientRect().top
  return el.parentElement ? endOf(el.parentElement) : 0
}

/** At the page's top it has its full size, which may differ because of a late font; an open menu makes it larger. */
function settle(el: HTMLElement): void {
  const known = held.get(el)!
  free()
  if (performance.now() - known.since < QUIET || position() > 0 || Math.abs(heightOf(el) - known.tall) * 2 >= said(SMALLER)) return
  if (heightOf(el) !== known.tall) {
    known.tall = heightOf(el)
    hold(el)
  }
}

/** Turns off scroll anchoring while it changes its size: a page script that reads the position would get a wrong one. */
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

/** Frames are watched until then. */
let until = 0
let isWatching = false

/**
 * Before layout, so that resize observers see no temporary size; without changes, reading costs nothing. The observer reports later
 * changes in the frame.
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
  // In a live page, edits change it.
  document.addEventListener('waybell', look)
}
