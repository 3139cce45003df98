/**
 * Surveying: the page's layout on a screen with this frame's size. `probe` scrolls through the page to see the header's states;
 * `remeasure` reads the layout again after edits, without scrolling. One file per slice: `bars.ts` finds what stays at the top,
 * `header.ts` describes the header, `gives.ts` its spare padding, `makes-up.ts` what compensates for shrinking, `shut.ts` closable bars,
 * `parts.ts` measures sections and candidates, `look.ts` colours, `paint.ts` gradients and pictures behind text, `menus.ts` marks of
 * menus, `headings.ts` headings by look, `built.ts` what scripts built, `pictures.ts` pictures without size, `estimates.ts` late parts,
 * `travel.ts` the page's own offset.
 */
import { LETS_GO, STEADY } from '@waybell/core/contract'
import { steadied, SURVEY_FORMAT, type Survey } from '@waybell/core/survey'
import type { SurveyRequest } from '../messages.ts'
import { forgetScroller, furthest, innerScroller, jumpTo, pageHeight, position, viewHeight } from '../page/scroller.ts'
import { throughThePage, untilLoaded, untilQuiet, untilSize, untilStill, untilThere } from '../page/settle.ts'
import { positionOf } from '../page/stamps.ts'
import { builtByScripts, builtTargets } from './built.ts'
import { estimatesOf, lateElements, layOut } from './estimates.ts'
import { headingsByLook } from './headings.ts'
import { watchMarks, type OwnMarks } from './menus.ts'
import { ownTravel } from './travel.ts'
import { headerElement } from './bars.ts'
import { givesOf } from './gives.ts'
import { currentHeader, mayBeMoved, probeHeader, type HeaderStates } from './header.ts'
import { pageLook } from './look.ts'
import { ownHeight } from './own-height.ts'
import { paintOf } from './paint.ts'
import { picturesOf } from './pictures.ts'
import { leadsOf, ownMargins, partsNow, topsOf } from './parts.ts'

/** State of each screen before any edit, by screen key. */
interface Seen extends HeaderStates {
  /** The page's own `scroll-margin-top` of each part, before any edit. */
  margins: Map<number, number>
  leads: Map<number, number>
  /** Colours behind text, for parts with more than one. */
  paint: Map<number, string[]>
  maxScroll: number
  pageHeight: number
  own: Pick<Survey, 'menus' | 'rewrites' | 'isHeld' | 'pictures' | 'estimates' | 'padding' | 'smooth' | 'looks'>
  built: Omit<Survey['built'], 'targets'>
  late: ReturnType<typeof lateElements>
}
const seen = new Map<string, Seen>()

/** The frame's screen at the last reading. */
let last = ''

/** @returns true if it changed */
async function onScreen(request: SurveyRequest): Promise<boolean> {
  // A tried link holds its place while the layout changes.
  document.dispatchEvent(new Event(LETS_GO))
  await untilSize(request)
  forgetScroller()
  const isOther = request.screen !== last
  last = request.screen
  return isOther
}

/** @throws Error when the page replaced functions that measuring needs, so that results would be wrong */
function assertMeans(): void {
  if ([0].map(() => 1)[0] !== 1 || typeof document.documentElement.getBoundingClientRect().top !== 'number')
    throw new Error('the page replaced functions that measuring needs')
}

/** Reads the whole page with its header states; leaves it at its top. */
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

/** Scrolls to the page's end; returns how far that is, and whether scrolling is undone. @param key equal while the header is at rest */
async function reachOf(key: () => string): Promise<Pick<Survey, 'maxScroll' | 'isHeld'>> {
  jumpTo(1e7)
  const reached = position()
  await untilThere(key)
  const end = () => Math.min(reached, furthest())
  if (position() >= end() - 1) return { maxScroll: position(), isHeld: false }
  if (!(await untilQuiet(300))) await untilStill(position, 300, 3000)
  if (position() > 1) return { maxScroll: position(), isHeld: false }
  // An endless page jumps back to its top at the end, but stays elsewhere.
  jumpTo(Math.round(end() / 2))
  if (!(await untilQuiet(300))) await untilStill(position, 300, 3000)
  return { maxScroll: end(), isHeld: position() <= 1 }
}

/** Reads the layout, with the header states last seen on this screen. @throws Error before the first `probe` */
export async function remeasure(request: SurveyRequest): Promise<Survey> {
  assertMeans()
  // Animations to the new layout must end first.
  if (await onScreen(request)) await untilThere(() => `${pageHeight()}`)
  // A page script or a tried link may have scrolled it.
  if (position() > 0) jumpTo(0)
  const states = seen.get(request.screen)
  // The header reacts a moment later.
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
    // Changes of the page's length by the header's states stay as seen.
    maxScroll: Math.max(0, states.maxScroll + pageHeight() - states.pageHeight),
    parts: partsNow(request, states.movedBy, states.margins, states.leads, states.paint),
    header: currentHeader(request, states),
    near: states.near,
    bottom: states.bottom,
    built: { ...states.built, targets: builtTargets(movedAt(request, states.movedBy)) },
    ...states.own,
    ...pageLook(),
  }
  // Decided by the work; the survey stays as before.
  return headerElement(survey.header?.at ?? null)?.hasAttribute(STEADY) ? steadied(survey) : survey
}

function scrollerNow(): Survey['scroller'] {
  const inner = innerScroller()
  return inner && { at: positionOf(inner) ?? null, height: viewHeight() }
}

/** What a position loses after scrolling: as much as the last part above it. */
function movedAt(request: SurveyRequest, movedBy: ReadonlyMap<number, number>): (top: number) => number {
  const tops = [...topsOf(request)].sort(([, a], [, b]) => a - b)
  return (top) => movedBy.get(tops.findLast(([, own]) => own <= top)?.[0] ?? -1) ?? 0
}
