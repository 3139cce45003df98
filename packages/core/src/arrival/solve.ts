/**
 * From a survey and offsets to arrivals.
 * @see docs/calculations.md: the browser's own rule, one rounding to device pixels after subtracting
 */
import { onScrollFrom } from '../menus/index.ts'
import type { ElementAt } from '../page/index.ts'
import { adjustOn, breathingOn, fillsOn, type Section, type SitePage } from '../site/index.ts'
import { coverOf, isLetGo, isOwnTravel, isReached, smallerBy, type Cover } from './cover.ts'
import { partsByAt, partOf } from './part.ts'
import { viewHeight, type Survey, type SurveyPart } from '../survey/index.ts'

export interface Arrival {
  section: string
  /** Scroll position where the page stops, in px, within [0, maxScroll]. */
  land: number
  /** The section's distance below the viewport's top then, in px. */
  top: number
  /** Space between the covered strip and the section's top, in px; negative if the top is covered. */
  gap: number
  /** The same for a visitor from above: larger if the header hides on the way down. */
  gapFromAbove: number
  /** Scroll position if the page had no end. */
  place: number
  /** px of page missing below for the section to arrive. */
  shortfall: number
  /** State of the section's heading: covered or cut by what covers the top, or below the viewport. */
  heading: 'clear' | 'cut' | 'covered' | 'below' | 'none'
  /** Covered px of the heading, or its distance below the viewport; else 0. */
  hidden: number
  /** False for a target without box, so the link doesn't move the page. */
  movesPage: boolean
}

/** The position where the browser stops: rounded once, half up, to device pixels. */
export function landing(wanted: number, maxScroll: number, deviceScale = 1): number {
  return Math.min(Math.max(Math.floor(wanted * deviceScale + 0.5) / deviceScale, 0), maxScroll)
}

/** Shared by all arrivals on a screen. */
interface OnScreen {
  survey: Survey
  cover: Cover
  near: ReadonlyMap<ElementAt, number>
  isGone: boolean
  isOwn: boolean
  breathing: number
  /** Visible height above a bar at the bottom, in px. */
  view: number
}

/** Arrivals of the sections that the survey has, in page order. */
export function solveArrivals(page: SitePage, survey: Survey): Arrival[] {
  const parts = partsByAt(survey)
  const on: OnScreen = {
    survey,
    cover: coverOf(page, survey),
    near: new Map(survey.near.map((n) => [n.at, n.cover])),
    isGone: isLetGo(page, survey.screen),
    isOwn: isOwnTravel(page) || !isReached(page, survey),
    breathing: breathingOn(page, survey.screen),
    view: viewHeight(survey) - survey.bottom,
  }
  // A header that we shrink is small from this position on.
  const until = smallerBy(page, survey) ? onScrollFrom(page, survey) : -1
  const out: Arrival[] = []
  for (const section of page.sections) {
    const part = partOf(section, parts)
    if (!part) continue
    const arrival = arrivalOf(on, section, part, on.near.get(section.at))
    out.push(arrival.land > until ? arrival : arrivalOf(on, section, part, on.cover.ownRest))
  }
  return out
}

/** @param near reach of the header in px where it doesn't have its scrolled state yet */
function arrivalOf(
  { survey, cover, isGone, isOwn, breathing, view }: OnScreen,
  section: Section,
  part: SurveyPart,
  near?: number,
): Arrival {
  const isNear = near !== undefined
  // Near the top the header may still be tall, and the page hasn't moved up yet.
  const covered = Math.max(cover.arrival, isNear && !isGone ? near + cover.bar : 0)
  const top = isNear ? part.top : part.movedTop
  // With the page's own offsets, browsers go to the target itself, moved up or not.
  const offset = isOwn
    ? survey.padding + part.margin + (section.point ? 0 : part.shift)
    : fillsOn(section, survey.screen)
      ? 0
      : covered + breathing + adjustOn(section, survey.screen)
  const wanted = section.toTop ? 0 : top - offset
  const land = part.hasBox ? landing(wanted, survey.maxScroll) : 0
  const edge = land + (land < 1 ? Math.max(cover.ownRest + cover.bar, covered) : covered)
  return {
    section: section.key,
    land,
    top: top - land,
    gap: top - edge,
    gapFromAbove: top - edge + (land < 1 ? 0 : cover.away),
    place: wanted,
    shortfall: Math.max(0, wanted - survey.maxScroll),
    ...headingState(part, land < 1 ? 0 : part.top - top, edge, land + view),
    movesPage: part.hasBox,
  }
}

/** @param edge top of the visible area in px from the page's top; `end` is its bottom */
function headingState(part: SurveyPart, moved: number, edge: number, end: number): Pick<Arrival, 'heading' | 'hidden'> {
  if (!part.heading) return { heading: 'none', hidden: 0 }
  const top = part.heading.top - moved
  const bottom = part.heading.bottom - moved
  if (top >= end) return { heading: 'below', hidden: top - end }
  if (bottom <= edge) return { heading: 'covered', hidden: bottom - top }
  return top < edge - 0.5 ? { heading: 'cut', hidden: edge - top } : { heading: 'clear', hidden: 0 }
}

/** px the page lacks at its end so that every linked section can arrive. */
export const roomAtEnd = (arrivals: readonly Arrival[]): number => arrivals.reduce((most, a) => Math.max(most, a.shortfall), 0)

/** The smallest breathing space in px that clears every heading on every screen; at least -400. */
export function leastBreathing(page: SitePage, surveys: readonly Survey[]): number {
  let least = -400
  for (const survey of surveys) {
    const parts = partsByAt(survey)
    for (const section of page.sections) {
      const part = section.toTop || fillsOn(section, survey.screen) ? null : partOf(section, parts)
      // Without a heading, the section's top counts.
      if (part?.hasBox) least = Math.max(least, leastRoom(part) - adjustOn(section, survey.screen))
    }
  }
  return least
}

/** The smallest adjustment in px that clears one section's heading on its screens. */
export function leastAdjust(page: SitePage, section: Section, surveys: readonly Survey[]): number {
  const least = surveys.flatMap((s) => {
    const part = section.adjust?.off?.includes(s.screen) ? undefined : partOf(section, partsByAt(s))
    return part?.hasBox ? [leastRoom(part) - breathingOn(page, s.screen)] : []
  })
  return Math.max(-400, ...least)
}

/** Smallest space between the cover and the section's top that leaves the heading visible. */
const leastRoom = ({ top, heading }: SurveyPart): number => Math.min(0, Math.ceil(top - (heading?.top ?? top)))
