/** How much of the viewport's top is covered when a link has arrived. */
import { formOf, isLate, isOn } from '../menus/index.ts'
import { madeBar, type Screen, type SitePage } from '../site/index.ts'
import { viewHeight, type Survey } from '../survey/index.ts'
import { partsByAt } from './part.ts'

/** Assumed height of a header that nobody measured, in px, until the script measures it. */
const ESTIMATE = 64

/** A screen, as far as it says what is on it. */
export type OnScreen = Pick<Screen, 'key' | 'width'>

/** What the bar that Way Bell makes covers on a screen, in px; 0 without one. */
export function coverOfBar(page: SitePage, screen: OnScreen | null): number {
  const bar = madeBar(page)
  return bar && (!screen || isOn(bar, screen)) ? formOf(bar.form).covers!.height(bar.form) : 0
}

/** True where links arrive by the page's own offsets: as long as nothing of ours covers anything. */
export const isOwnTravel = (page: SitePage): boolean => !!page.travel.pageOffsets && !madeBar(page) && !page.header?.keep

/** False where the page scrolls in an element to which nothing is written: its own offsets hold there. */
export const isReached = (page: SitePage, { scroller }: Survey): boolean => !scroller || scroller.at === page.scroller

/** A survey of a page as it came, as it is with the menu that Way Bell makes for it: that moves what stands below it. */
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
  /** The page's own header at rest, and after moving. Equal unless it shrinks. */
  ownRest: number
  ownMoved: number
  /** The made menu's bar, 0 without one. */
  bar: number
  /** On arrival: the header in the state that it has there, and the bar. */
  arrival: number
}

/** A header takes at most this much of a screen's height, or it is not made to stay there. */
export const MOST_OF_SCREEN = 1 / 6

/** True where a header that the page lets scroll away can be made to stay, and leaves room to read. */
export const canBeKept = ({ header, height }: Survey): boolean => !!header && header.canStay && header.height <= height * MOST_OF_SCREEN

/** How far the sections move down once the header has the state that it has on arrival, in px; 0 where each moves by something else. */
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

/** True where it scrolls away with the page, on a screen where else it would stay. */
export const isLetGo = ({ header }: Pick<SitePage, 'header'>, screen: string): boolean => !!header?.off?.includes(screen)

/** True where the page's header is made to stay on a screen; assumed on one that was not measured. */
export function isKept({ header }: Pick<SitePage, 'header'>, survey: Survey | null): boolean {
  if (!header?.keep) return false
  if (survey && isLetGo({ header }, survey.screen)) return false
  if (!survey?.header || survey.header.at !== header.at) return !survey
  const { position } = survey.header
  return position === 'sticky' || position === 'fixed' || canBeKept(survey)
}

/** So much stays of each padding that a header gives up, in px. */
const LEAST_PADDING = 2

/** By how much the page's header is made smaller once the page has moved, on the screen of a survey, in px; 0 where it changes its size by itself. */
export function smallerBy({ header }: Pick<SitePage, 'header'>, { screen, header: seen }: Survey): number {
  const { small, off } = header?.onScroll ?? {}
  if (!small || off?.includes(screen) || isLetGo({ header }, screen)) return 0
  if (!seen?.gives || seen.at !== header!.at || seen.rest !== seen.moved || seen.hides) return 0
  const most = [seen.gives.top, seen.gives.bottom].reduce((sum, px) => sum + Math.max(0, px - LEAST_PADDING), 0)
  return Math.min(small, Math.floor(most))
}

/**
 * A header that hides on the way down is counted as shown: it comes back over the section on the way up.
 * Without a survey it is an estimate, until the script measures on arrival.
 * @param screen that of the survey, or one that was not measured
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
  return { ownRest, ownMoved, bar, arrival: ownMoved + bar }
}
