/**
 * Surveying: the page's layout on a screen of the size that this frame has. `probe` scrolls through the page to see its header in each
 * state; `remeasure` reads the layout again without moving anything, after an edit. A file for each slice: `bars.ts` finds what stays
 * at the top, `header.ts` describes the header, `gives.ts` what it could give of its height, `makes-up.ts` what keeps its place, `shut.ts` what can be closed in it, `parts.ts` measures sections and what may become one, `look.ts` the page's colours, `paint.ts` gradients and pictures behind words, `menus.ts`
 * how menus mark their items, `headings.ts` what looks like a heading, `built.ts` what scripts made, `pictures.ts` pictures without a size, `estimates.ts` what is laid out late, `travel.ts` the page's own offset.
 */
import { LETS_GO, STEADY } from '@waybell/core/contract'
import { steadied, SURVEY_FORMAT, type Survey } from '@waybell/core/survey'
import type { SurveyRequest } from '../messages.ts'
import { forgetScroller, furthest, innerScroller, jumpTo, pageHeight, pageHolder, position, viewHeight } from '../page/scroller.ts'
import { throughThePage, untilLoaded, untilQuiet, untilSize, untilStill, untilThere } from '../page/settle.ts'
import { positionOf } from '../page/stamps.ts'
import { asIf } from './as-if.ts'
import { builtByScripts, builtTargets } from './built.ts'
import { estimatesOf, lateElements, layOut } from './estimates.ts'
import { headingsByLook } from './headings.ts'
import { watchMarks, type OwnMarks } from './menus.ts'
import { ownTravel } from './travel.ts'
import { headerElement } from './bars.ts'
import { givesOf } from './gives.ts'
import { currentHeader, mayBeMoved, probeHeader, type HeaderStates } from './header.ts'
import { pageLook } from './look.ts'
import { paintOf } from './paint.ts'
import { picturesOf } from './pictures.ts'
import { leadsOf, ownMargins, partsNow, topsOf } from './parts.ts'

/** What was seen on each screen before any edit, by the screen's key. */
interface Seen extends HeaderStates {
  /** The page's own `scroll-margin-top` of each part, as it was before any edit took it back. */
  margins: Map<number, number>
  leads: Map<number, number>
  /** Colours behind words, of those parts that have more than one. */
  paint: Map<number, string[]>
  maxScroll: number
  pageHeight: number
  own: Pick<Survey, 'menus' | 'rewrites' | 'isHeld' | 'pictures' | 'estimates' | 'padding' | 'smooth' | 'looks'>
  built: Omit<Survey['built'], 'targets'>
  late: ReturnType<typeof lateElements>
}
const seen = new Map<string, Seen>()

/** The screen that the frame had when it was last read. */
let last = ''

/** @returns true where that is another than before */
async function onScreen(request: SurveyRequest): Promise<boolean> {
  // A link that was tried before holds its place while the page's layout changes.
  document.dispatchEvent(new Event(LETS_GO))
  await untilSize(request)
  forgetScroller()
  const isOther = request.screen !== last
  last = request.screen
  return isOther
}

/** @throws Error where the page replaced functions that measuring needs: what came of that would be wrong, and believed */
function assertMeans(): void {
  if ([0].map(() => 1)[0] !== 1 || typeof document.documentElement.getBoundingClientRect().top !== 'number')
    throw new Error('the page replaced functions that measuring needs')
}

/** Reads the whole page, header states and all; leaves it at its top. */
export async function probe(request: SurveyRequest): Promise<Survey> {
  assertMeans()
  await onScreen(request)
  await untilLoaded()
  await untilQuiet()
  const address = location.href
  const marks = watchMarks(request.menus)
  await throughThePage(marks.look)
  const late = lateElements()
  const end = layOut(late)
  try {
    return await probeWhole(request, late, address, marks)
  } finally {
    end()
  }
}

async function probeWhole(request: SurveyRequest, late: Seen['late'], address: string, marks: OwnMarks): Promise<Survey> {
  forgetScroller()
  const rewrites = location.href !== address
  const states = await probeHeader(request, marks.look)
  const { maxScroll, isHeld } = await reachOf(states.key)
  marks.look()
  const built = builtByScripts(request.menus)
  const menus = await marks.of([...new Set([...request.menus, ...built.menus.flatMap((m) => m.at ?? [])])])
  jumpTo(0)
  await untilThere(states.key)
  const own = {
    menus,
    rewrites,
    isHeld,
    pictures: picturesOf(request),
    estimates: estimatesOf(late),
    ...ownTravel(),
    looks: request.looks ? headingsByLook() : [],
  }
  const paint = await paintOf(request)
  const el = headerElement(states.header?.at ?? null)
  const gives = el && givesOf(el, () => topsOf(request).values())
  states.header &&= { ...states.header, gives }
  seen.set(request.screen, {
    ...states,
    paint,
    margins: ownMargins(request),
    leads: leadsOf(request),
    maxScroll,
    pageHeight: pageHeight(),
    own,
    built,
    late,
  })
  return read(request)
}

/** Moves the page to its end and says how far that is, and whether it is held. @param key the same while the header is at rest */
async function reachOf(key: () => string): Promise<Pick<Survey, 'maxScroll' | 'isHeld'>> {
  jumpTo(1e7)
  const reached = position()
  await untilThere(key)
  const end = () => Math.min(reached, furthest())
  if (position() >= end() - 1) return { maxScroll: position(), isHeld: false }
  if (!(await untilQuiet(300))) await untilStill(position, 300, 3000)
  if (position() > 1) return { maxScroll: position(), isHeld: false }
  // One that begins again at its end is back at its top too, but stays where it is moved to on the way there.
  jumpTo(Math.round(end() / 2))
  if (!(await untilQuiet(300))) await untilStill(position, 300, 3000)
  return { maxScroll: end(), isHeld: position() <= 1 }
}

/** Reads the layout as it is, with the header's states as they were last seen on this screen. @throws Error before the first `probe` */
export async function remeasure(request: SurveyRequest): Promise<Survey> {
  assertMeans()
  // What moves to its new place there has to arrive first.
  if (await onScreen(request)) await untilThere(() => `${pageHeight()}`)
  // The page's own scripts may have moved it, or a link that was tried.
  if (position() > 0) jumpTo(0)
  const states = seen.get(request.screen)
  // Its header answers that a while after.
  if (states && mayBeMoved(states)) await untilThere(states.key)
  const end = layOut(states?.late ?? [])
  try {
    return read(request)
  } finally {
    end()
  }
}

function read(request: SurveyRequest): Survey {
  const states = seen.get(request.screen)
  if (!states) throw new Error(`the page was not measured on this screen yet: ${request.screen}`)
  const survey: Survey = {
    format: SURVEY_FORMAT,
    screen: request.screen,
    width: innerWidth,
    height: innerHeight,
    scroller: scrollerNow(),
    pageHeight: pageHeight(),
    ownHeight: ownHeight(),
    // What the header's states do to the page's length stays as it was seen.
    maxScroll: Math.max(0, states.maxScroll + pageHeight() - states.pageHeight),
    parts: partsNow(request, states.movedBy, states.margins, states.leads, states.paint),
    header: currentHeader(request, states),
    near: states.near,
    bottom: states.bottom,
    built: { ...states.built, targets: builtTargets(movedAt(request, states.movedBy)) },
    ...states.own,
    ...pageLook(),
  }
  // The work says so; what was seen of the page is as it was before.
  return headerElement(survey.header?.at ?? null)?.hasAttribute(STEADY) ? steadied(survey) : survey
}

/** How high what is on the page is: where that is less than what is seen of it, what is put before it shows where it ends. */
function ownHeight(): number {
  const [high, view] = [pageHeight(), viewHeight()]
  if (high > view) return high
  const holder = pageHolder()
  const first = [...holder.children].find((el) => el.getClientRects().length && !/absolute|fixed/.test(getComputedStyle(el).position))
  const firstTop = () => first?.getBoundingClientRect().top ?? 0
  const top = firstTop()
  const before = view + parseFloat(getComputedStyle(holder).paddingTop)
  // By as much as all moved down; margins may come apart, which no bar that is put there does to them.
  const read = () => pageHeight() - (first ? firstTop() - top : view)
  return asIf([[holder, { 'box-sizing': 'border-box', 'padding-top': `${before}px` }]], read)
}

function scrollerNow(): Survey['scroller'] {
  const inner = innerScroller()
  return inner && { at: positionOf(inner) ?? null, height: viewHeight() }
}

/** What is taken from a place once the page has moved: as much as from the part that begins last above it. */
function movedAt(request: SurveyRequest, movedBy: ReadonlyMap<number, number>): (top: number) => number {
  const tops = [...topsOf(request)].sort(([, a], [, b]) => a - b)
  return (top) => movedBy.get(tops.findLast(([, own]) => own <= top)?.[0] ?? -1) ?? 0
}
