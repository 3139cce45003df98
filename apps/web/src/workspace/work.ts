/** What every part of the workspace looks at: the page, what was read and measured of it, and what follows from both. */
import {
  pageEdits,
  solveArrivals,
  type Arrival,
  type Command,
  type Finding,
  type PageEdit,
  type PageReading,
  type Screen,
  type Site,
  type SitePage,
  type Survey,
  type Visit,
} from '@waybell/core'
import type { PickedElement, PickStep } from '@waybell/agent/types'
import { createContext, useContext } from 'react'
import type { Session, SessionState } from './session.ts'

export interface Work {
  siteKey: string
  site: Site
  page: SitePage
  reading: PageReading
  /** Names that the page's scripts read and nothing declares. */
  undeclared: ReadonlySet<string>
  missing: string[]
  findings: Finding[]
  /** By screen key; those that were measured. */
  surveys: Record<string, Survey>
  /** Screens whose survey is older than the last edit. */
  stale: ReadonlySet<string>
  screen: Screen
  survey: Survey | null
  arrivals: Map<string, Arrival>
  session: Session
  state: SessionState
  run: (command: Command) => boolean
  /** Section whose row had the focus last. */
  current: string | null
  setCurrent: (section: string) => void
  /** Section that is pointed at, on any of the three columns. */
  pointed: string | null
  point: (section: string | null) => void
  live: LiveControl
  /** What is being picked on the page; null when nothing is. */
  picking: { way: PickedElement[]; isTaken: boolean } | null
}

/** What the columns may ask of the live page. */
export interface LiveControl {
  scrollTo: (y: number) => void
  follow: (hash: string) => void
  visit: (screen: string, hash: string, from: number) => Promise<Visit>
  /** Marks an element of the page and brings it into view. */
  show: (at: number) => void
  /** Begins or ends picking an element of the page in view. */
  pick: (on: boolean) => void
  pickStep: (to: PickStep | number) => void
  /** Waits until the server has what was measured last. */
  flush: () => Promise<void>
}

export const WorkContext = createContext<Work | null>(null)

export function useWork(): Work {
  const work = useContext(WorkContext)
  if (!work) throw new Error('there is no site here')
  return work
}

export const editsOf = (site: Site, page: SitePage, reading: PageReading, surveys: Record<string, Survey>, runtime: string): PageEdit[] =>
  // Until it is set up, the page is shown as it came.
  page.sections.length ? pageEdits({ page, pages: site.pages, reading, screens: site.screens, surveys, runtime }) : []

const MANY_PARTS = 1500

/** Everything that is a section or may become one. */
export function partsToMeasure(page: SitePage, reading: PageReading): { at: number; heading: number | null }[] {
  // Of very many, those that were also found are measured when they become sections.
  const measured = reading.candidates.length > MANY_PARTS ? reading.candidates.filter((c) => c.offered) : reading.candidates
  const known = new Set(measured.map((c) => c.at))
  return [...measured, ...page.sections.filter((s) => !known.has(s.at))].map(({ at, heading }) => ({ at, heading }))
}

export const arrivalsOf = (page: SitePage, survey: Survey | null): Map<string, Arrival> =>
  new Map(survey ? solveArrivals(page, survey).map((a) => [a.section, a]) : [])
