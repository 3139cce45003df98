/** How much of the viewport's top is covered when a link has arrived. */
import { formOf, isLate, isOn } from '../menus/index.ts'
import { madeBar, type Screen, type SitePage } from '../site/index.ts'
import { viewHeight, type Survey } from '../survey/index.ts'
import { partsByAt } from './part.ts'

/** Assumed height of a header that nobody measured, in px, until the script measures it. */
const ESTIMATE = 64

/** The parts of a screen that decide what is visible on it. */
export type OnScreen = Pick<Screen, 'key' | 'width'>

/** Height in px that the made bar covers on a screen; 0 without one. */
export function coverOfBar(page: SitePage, screen: OnScreen | null): number {
  const bar = madeBar(page)
  return bar && (!screen || isOn(bar, screen)) ? formOf(bar.form).covers!.height(bar.form) : 0
}

/** True while links arrive by the page's own offsets, because nothing of ours covers anything. */
export const isOwnTravel = (page: SitePage): boolean => !!page.travel.pageOffsets && !madeBar(page) && !page.header?.keep

/** False when the page scrolls in an element that we don't write to: its own offsets apply there. */
export const isReached = (page: SitePage, { scroller }: Survey): boolean => !scroller || scroller.at === page.scroller

/** Adds the made menu to a survey of the page as it came: the menu moves the content below it. */
export function withMade(survey: Survey, page: SitePage): Survey {
  const bar = madeBar(page)
  const takes = bar && !isLate(bar) && isOn(bar, { key: survey.screen, width: survey.width })
  const room = takes ? formOf(bar.form).covers!.contentShift(bar.form) : 0
  if (!room) return survey
  const ownHeight = survey.ownHeight + room
  return {
    ...survey,
    ownHeight,
    pageHeight: Math.max(ownHeight, viewHeight(survey)),
    maxScroll: Math.max(0, ownHeight - viewHeight(survey)),
    parts: survey.parts.map((p) => ({
      ...p,
      top: p.top + room,
      bottom: p.bottom + room,
      movedTop: p.movedTop + room,
      heading: p.heading && { top: p.heading.top + room, bottom: p.heading.bottom + room },
    })),
  }
}

export interface Cover {
  /** The page's own header at rest, and after scrolling. Equal unless it shrinks. */
  ownRest: number
  ownMoved: number
  /** The made menu's bar, 0 without one. */
  bar: number
  /** Covered height on arrival: the header in its state after scrolling, plus the bar. */
  arrival: number
  /** How much less is covered for a visitor from above: the header hides on the way down. */
  away: number
}

/** Max share of the screen's height for a header that is kept in view. */
export const MOST_OF_SCREEN = 1 / 6

/** True when a header that scrolls away can be kept in view and leaves enough space to read. */
export const canBeKept = ({ header, height }: Survey): boolean => !!header && header.canStay && header.height <= height * MOST_OF_SCREEN

/** Distance in px that the sections move down once the header has its state after scrolling; 0 if they move by different amounts. */
export function shiftOf(page: SitePage, survey: Survey): number {
  const { ownRest, ownMoved } = coverOf(page, survey)
  if (ownRest === ownMoved) return 0
  const parts = partsByAt(survey)
  const moves = page.sections.flatMap((s) => {
    const part = s.toTop ? undefined : parts.get(s.at)
    return part?.hasBox ? [part.movedTop - part.top] : []
  })
  const by = moves[0] ?? 0
  return moves.every((m) => Math.abs(m - by) < 1) ? by : 0
}

/** True when the header scrolls away on a screen where it would otherwise stay. */
export const isLetGo = ({ header }: Pick<SitePage, 'header'>, screen: string): boolean => !!header?.off?.includes(screen)

/** True when the page's header is kept in view on a screen; assumed for screens without survey. */
export function isKept({ header }: Pick<SitePage, 'header'>, survey: Survey | null): boolean {
  if (!header?.keep) return false
  if (survey && isLetGo({ header }, survey.screen)) return false
  if (!survey?.header || survey.header.at !== header.at) return !survey
  const { position } = survey.header
  return position === 'sticky' || position === 'fixed' || canBeKept(survey)
}

/** px that remain of each padding a header gives up. */
const LEAST_PADDING = 2

/** How much the page's header shrinks after scrolling, in px, on a survey's screen; 0 if it resizes by itself. */
export function smallerBy({ header }: Pick<SitePage, 'header'>, { screen, header: seen }: Survey): number {
  const { small, off } = header?.onScroll ?? {}
  if (!small || off?.includes(screen) || isLetGo({ header }, screen)) return 0
  if (!seen?.gives || seen.at !== header!.at || seen.rest !== seen.moved || seen.hides) return 0
  const most = [seen.gives.top, seen.gives.bottom].reduce((sum, px) => sum + Math.max(0, px - LEAST_PADDING), 0)
  return Math.min(small, Math.floor(most))
}

/**
 * Heights that header and bar cover. A header that hides on the way down counts as visible, because it returns on the way up. Without a
 * survey it's an estimate until the script measures.
 * @param screen the survey's, or one without survey
 */
export function coverOf(
  page: SitePage,
  survey: Survey | null,
  screen: OnScreen | null = survey && { key: survey.screen, width: survey.width },
): Cover {
  const header = screen && isLetGo(page, screen.key) ? null : (survey?.header ?? null)
  const bar = coverOfBar(page, screen)
  let ownRest = 0
  let ownMoved = 0
  if (!survey && page.header && !(screen && isLetGo(page, screen.key))) ownRest = ownMoved = ESTIMATE
  if (header && (header.position === 'sticky' || header.position === 'fixed')) {
    ownRest = header.rest
    ownMoved = header.hides ? header.rest : header.moved - smallerBy(page, survey!)
  } else if (header && isKept(page, survey)) {
    ownRest = header.height
    ownMoved = header.height - smallerBy(page, survey!)
  }
  const { onScroll } = page.header ?? {}
  const hides = header?.hides || (!!onScroll?.away && !onScroll.off?.includes(screen?.key ?? ''))
  return { ownRest, ownMoved, bar, arrival: ownMoved + bar, away: hides ? ownMoved : 0 }
}
