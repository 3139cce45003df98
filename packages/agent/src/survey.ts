/**
 * Surveying: the page's layout on the screen that this frame has. `probe` scrolls through the page to see its header in each
 * state; `remeasure` reads the layout again without moving anything, after an edit.
 */
import { isFixed } from '@waybell/core/contract'
import { SURVEY_FORMAT, type Survey, type SurveyHeader, type SurveyPart } from '@waybell/core/survey'
import { backgroundOf, canStay, headerElement, isTransparent, reachNow, sourceElement, stayingBars, type Bar } from './header.ts'
import type { SurveyRequest } from './messages.ts'
import { jumpTo, twoFrames, untilLoaded, untilSteady } from './settle.ts'
import { elementAt } from './stamps.ts'

interface HeaderStates {
  bars: Bar[]
  header: SurveyHeader | null
  /** What is taken from the tops of parts after the page has moved, by part. */
  shift: Map<number, number>
  near: Survey['near']
  /** The page's own `scroll-margin-top` of each part, as it was before any edit took it back. */
  margins: Map<number, number>
  maxScroll: number
  pageHeight: number
}

let states: HeaderStates | null = null

/** What scrolls: in quirks mode it is the body. */
const scroller = () => document.scrollingElement ?? document.documentElement
const furthest = () => scroller().scrollHeight - scroller().clientHeight
const steadyKey = (bars: Bar[]) => `${reachNow(bars)} ${bars.map((b) => b.el.offsetHeight)} ${scroller().scrollHeight}`

/** Reads the whole page, header states and all; leaves it where it was. */
export async function probe(request: SurveyRequest): Promise<Survey> {
  await untilLoaded()
  const back = scrollY
  await throughThePage()
  jumpTo(0)
  let bars = stayingBars()
  await untilSteady(() => steadyKey(bars))
  bars = stayingBars()
  const rest = reachNow(bars)
  const restTops = topsOf(request)
  const end = furthest()
  let moved = rest
  let hides = false
  const shift = new Map<number, number>()
  const near: Survey['near'] = []
  if (end > 0) {
    // The first move is the one that counts as going down; a second look, a little higher, sees what comes back on the way up.
    jumpTo(Math.min(end, innerHeight))
    await twoFrames()
    jumpTo(Math.min(end, innerHeight * 1.5))
    await untilSteady(() => steadyKey(bars))
    const late = stayingBars().filter((b) => !bars.some((known) => known.el === b.el))
    bars = [...bars, ...late]
    moved = reachNow(bars)
    const movedTops = topsOf(request)
    for (const [at, top] of restTops) shift.set(at, (movedTops.get(at) ?? top) - top)
    if (bars.length && moved < rest) {
      jumpTo(Math.max(1, scrollY - 160))
      await untilSteady(() => steadyKey(bars))
      hides = moved < 1 && reachNow(bars) > 0
    }
    if (moved !== rest && !hides) near.push(...(await nearArrivals(request, restTops, bars, moved)))
  }
  jumpTo(1e7)
  await untilSteady(() => steadyKey(bars))
  const maxScroll = scrollY
  jumpTo(0)
  await untilSteady(() => steadyKey(bars))
  const margins = new Map(
    request.parts.map(({ at }) => {
      const el = elementAt(at)
      return [at, el ? parseFloat(getComputedStyle(el).scrollMarginTop) || 0 : 0]
    }),
  )
  const header = describeHeader(request, bars, rest, moved, hides)
  states = { bars, header, shift, near, margins, maxScroll, pageHeight: scroller().scrollHeight }
  const survey = remeasure(request)
  jumpTo(back)
  return survey
}

/** Parts that come in on the way, and pictures that load late, are brought in first. */
async function throughThePage(): Promise<void> {
  for (let y = 0, n = 0; y < furthest() && n < 60; y += innerHeight * 0.8, n++) {
    jumpTo(y)
    await twoFrames()
  }
  await untilSteady(() => `${scroller().scrollHeight}`, 1000)
}

/** How far the header reaches where the first sections arrive, which may be before it changes its state. */
async function nearArrivals(request: SurveyRequest, tops: Map<number, number>, bars: Bar[], moved: number): Promise<Survey['near']> {
  const out: Survey['near'] = []
  const close = request.parts.filter((p) => (tops.get(p.at) ?? 0) > moved && tops.get(p.at)! < innerHeight / 2).slice(0, 4)
  for (const part of close) {
    jumpTo(0)
    await untilSteady(() => steadyKey(bars))
    jumpTo(Math.max(0, tops.get(part.at)! - moved - 24))
    await untilSteady(() => steadyKey(bars))
    const cover = reachNow(bars)
    if (Math.abs(cover - moved) >= 1) out.push({ at: part.at, cover })
  }
  return out
}

function describeHeader(request: SurveyRequest, bars: Bar[], rest: number, moved: number, hides: boolean): SurveyHeader | null {
  // Of several bars, the one with the page's menu in it, else the lowest.
  const known = headerElement(request.header)
  const main =
    bars.find((b) => known && (b.el === known || b.el.contains(known))) ??
    [...bars].sort((a, b) => b.el.getBoundingClientRect().bottom - a.el.getBoundingClientRect().bottom)[0]
  if (main) {
    const { el, position } = main
    return {
      at: sourceElement(el),
      position,
      height: el.offsetHeight,
      rest,
      moved,
      hides,
      canStay: false,
      transparent: isTransparent(el),
      color: getComputedStyle(el).color,
    }
  }
  if (!known?.getClientRects().length) return null
  const position = getComputedStyle(known).position === 'absolute' ? 'absolute' : 'static'
  return {
    at: request.header,
    position,
    height: known.offsetHeight,
    rest: 0,
    moved: 0,
    hides: false,
    canStay: canStay(known),
    transparent: isTransparent(known),
    color: getComputedStyle(known.querySelector('a') ?? known).color,
  }
}

function topsOf(request: SurveyRequest): Map<number, number> {
  const out = new Map<number, number>()
  const y = scrollY
  for (const { at } of request.parts) {
    const el = elementAt(at)
    if (el) out.set(at, el.getBoundingClientRect().top + y)
  }
  return out
}

/** Reads the layout as it is, with the header's states as they were last seen. @throws Error before the first `probe` */
export function remeasure(request: SurveyRequest): Survey {
  if (!states) throw new Error('the page was not surveyed yet')
  const { shift, near, bars, margins } = states
  const y = scrollY
  // Away from the top the header may have shrunk: what that takes from the page is put back.
  const hasMoved =
    y > 0 &&
    bars.length > 0 &&
    states.header !== null &&
    Math.abs(reachNow(bars) - states.header.moved) < 1 &&
    states.header.moved !== states.header.rest
  const parts = request.parts.map(({ at, heading }): SurveyPart => {
    const el = elementAt(at)
    const box = el?.getBoundingClientRect()
    const lost = shift.get(at) ?? 0
    const top = (box?.top ?? 0) + y - (hasMoved ? lost : 0)
    const headingBox = heading === null ? null : elementAt(heading)?.getBoundingClientRect()
    return {
      at,
      top,
      bottom: top + (box?.height ?? 0),
      movedTop: top + lost,
      margin: margins.get(at) ?? 0,
      hasBox: !!el?.getClientRects().length && !isFixed(boxed(el), document.body),
      heading: headingBox?.height ? { top: top + headingBox.top - box!.top, bottom: top + headingBox.bottom - box!.top } : null,
      background: backgroundOf(el ?? null),
    }
  })
  return {
    format: SURVEY_FORMAT,
    screen: request.screen,
    width: innerWidth,
    height: innerHeight,
    pageHeight: scroller().scrollHeight,
    // What the header's states do to the page's length stays as it was seen.
    maxScroll: Math.max(0, states.maxScroll + scroller().scrollHeight - states.pageHeight),
    parts,
    header: currentHeader(request),
    near,
    color: getComputedStyle(document.body).color,
    background: backgroundOf(document.body),
  }
}

/** The header's height follows the layout; the difference between its states is kept. */
function currentHeader(request: SurveyRequest): SurveyHeader | null {
  const { header, bars } = states!
  if (!header) return null
  const el = headerElement(header.at)
  if (header.position === 'static' || header.position === 'absolute') return el ? { ...describeHeader(request, [], 0, 0, false)! } : header
  if (scrollY > 0 || header.hides) return header
  const rest = reachNow(bars)
  return { ...header, rest, moved: header.moved + rest - header.rest }
}

/** Of a part of a drawing, the drawing's surroundings say where it is held. */
const boxed = (el: Element): HTMLElement => {
  let e: Element | null = el
  while (e && !(e instanceof HTMLElement)) e = e.parentElement
  return e ?? document.body
}
