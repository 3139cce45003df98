/** The page's header: its states on scroll, and its properties. */
import type { Survey, SurveyHeader } from '@waybell/core/survey'
import { GLIDES } from '@waybell/core/contract'
import type { SurveyRequest } from '../messages.ts'
import { furthest, pageHeight, position, viewHeight } from '../page/scroller.ts'
import { moveTo, twoFrames, untilThere } from '../page/settle.ts'
import { bottomNow, canStay, headerElement, reachNow, sourceElement, stayingBars, staysOver, type Bar } from './bars.ts'
import { isTransparent } from './look.ts'
import { makesUpFor } from './makes-up.ts'
import { topsOf } from './parts.ts'
import { closable, reachWithout } from './shut.ts'

export interface HeaderStates {
  bars: Bar[]
  header: SurveyHeader | null
  /** px that parts lose above them after scrolling, by part. */
  movedBy: Map<number, number>
  near: Survey['near']
  bottom: number
  /** Equal while the header is at rest. */
  key: () => string
}

const steadyKey = (bars: Bar[]) => `${reachNow(bars)} ${bars.map((b) => b.el.offsetHeight)} ${pageHeight()}`

/** Scrolls the page to see its header's states; leaves it anywhere. @param look called at each stop */
export async function probeHeader(request: SurveyRequest, look: () => void): Promise<HeaderStates> {
  await moveTo(0)
  let bars = stayingBars()
  const key = () => steadyKey(bars)
  await untilThere(key)
  bars = stayingBars()
  look()
  const rest = reachNow(bars)
  const restTops = topsOf(request)
  const shuts = closable(bars)
  const shut = shuts && { rest: reachWithout(shuts, bars), moved: 0 }
  const main = mainOf(request, bars)
  const tall = { height: main?.el.getBoundingClientRect().height ?? 0, page: pageHeight() }
  const end = furthest()
  let moved = rest
  let hides = false
  let makesUp: SurveyHeader['makesUp'] = null
  const movedBy = new Map<number, number>()
  const near: Survey['near'] = []
  if (end > 0) {
    // The first scroll counts as going down; a second, slightly higher, shows what returns on the way up.
    await moveTo(Math.min(end, viewHeight()))
    await twoFrames()
    await moveTo(Math.min(end, viewHeight() * 1.5))
    await untilThere(key)
    look()
    const late = stayingBars().filter((b) => !bars.some((known) => known.el === b.el))
    bars = [...bars, ...late]
    moved = reachNow(bars)
    const movedTops = topsOf(request)
    for (const [at, top] of restTops) movedBy.set(at, (movedTops.get(at) ?? top) - top)
    if (main?.position === 'sticky' && moved < rest) makesUp = makesUpFor(main.el, tall, restTops, () => topsOf(request))
    if (bars.length && moved < rest) {
      await moveTo(Math.max(1, position() - 160))
      await untilThere(key)
      hides = moved < 1 && reachNow(bars) > 0
    }
    if (moved !== rest && !hides) near.push(...(await nearArrivals(request, restTops, bars, moved)))
  }
  if (shut) shut.moved = reachWithout(shuts, bars)
  const header = describeHeader(request, bars, rest, moved, hides)
  return {
    bars,
    header: header && {
      ...header,
      makesUp: hides ? null : makesUp,
      shut: shut && (shut.rest !== rest || shut.moved !== moved) ? shut : null,
    },
    movedBy,
    near,
    bottom: bottomNow(),
    key,
  }
}

/** The header's reach where the first sections arrive, maybe before its state changes. */
async function nearArrivals(request: SurveyRequest, tops: Map<number, number>, bars: Bar[], moved: number): Promise<Survey['near']> {
  const out: Survey['near'] = []
  const close = request.parts.filter((p) => (tops.get(p.at) ?? 0) > moved && tops.get(p.at)! < viewHeight() / 2).slice(0, 4)
  for (const part of close) {
    await moveTo(0)
    await untilThere(() => steadyKey(bars))
    await moveTo(Math.max(0, tops.get(part.at)! - moved - 24))
    await untilThere(() => steadyKey(bars))
    const cover = reachNow(bars)
    if (Math.abs(cover - moved) >= 1) out.push({ at: part.at, cover })
  }
  return out
}

/** Of several bars, the one with the page's menu, else the lowest. */
function mainOf(request: SurveyRequest, bars: readonly Bar[]): Bar | undefined {
  const known = headerElement(request.header)
  return (
    bars.find((b) => known && (b.el === known || b.el.contains(known))) ??
    [...bars].sort((a, b) => b.el.getBoundingClientRect().bottom - a.el.getBoundingClientRect().bottom)[0]
  )
}

/** Max bars. */
const MOST_BARS = 20

/** Other bars that stay, if in the source. */
const othersOf = (bars: readonly Bar[], el: HTMLElement): number[] =>
  [...new Set(bars.flatMap((b) => (b.el === el ? [] : (sourceElement(b.el) ?? []))))].slice(0, MOST_BARS)

function describeHeader(request: SurveyRequest, bars: Bar[], rest: number, moved: number, hides: boolean): SurveyHeader | null {
  const main = mainOf(request, bars)
  if (main) {
    const { el, position } = main
    return {
      at: sourceElement(el),
      others: othersOf(bars, el),
      position,
      height: el.offsetHeight,
      rest,
      moved,
      hides,
      canStay: false,
      isOver: false,
      gives: null,
      makesUp: null,
      shut: null,
      transition: transitionOf(el),
      transparent: isTransparent(el),
      color: getComputedStyle(el).color,
    }
  }
  const known = headerElement(request.header)
  if (!known?.getClientRects().length) return null
  const position = getComputedStyle(known).position === 'absolute' ? 'absolute' : 'static'
  return {
    at: request.header,
    others: [],
    position,
    height: known.offsetHeight,
    rest: 0,
    moved: 0,
    hides: false,
    canStay: canStay(known),
    isOver: staysOver(known),
    gives: null,
    makesUp: null,
    shut: null,
    transition: transitionOf(known),
    transparent: isTransparent(known),
    color: getComputedStyle(known.querySelector('a') ?? known).color,
  }
}

/** From here on, an earlier handover's. */
const OURS = new RegExp(`(^|, )${GLIDES.split(',')[0]}`)

function transitionOf(el: Element): string {
  const { transition, transitionDuration } = getComputedStyle(el)
  return /[1-9]/.test(transitionDuration) ? transition.split(OURS)[0]! : ''
}

/** True when the header has two sizes and isn't at rest now: it may be animating. */
export const mayBeMoved = ({ header, bars }: HeaderStates): boolean =>
  !!header && Math.abs(header.moved - header.rest) >= 1 && Math.abs(reachNow(bars) - header.rest) >= 1

/** The header's height follows the layout; the difference between its states stays. */
export function currentHeader(request: SurveyRequest, { header, bars }: HeaderStates): SurveyHeader | null {
  if (!header) return null
  if (header.position === 'static' || header.position === 'absolute') {
    if (!headerElement(header.at)) return header
    const now = describeHeader(request, [], 0, 0, false)
    // As before any edit.
    return now && { ...now, gives: header.gives, transition: header.transition }
  }
  if (position() > 0 || header.hides) return header
  const rest = reachNow(bars)
  return { ...header, rest, moved: header.moved + rest - header.rest }
}
