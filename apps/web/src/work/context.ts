/** What every part of the workspace looks at: the page, what was read and measured of it, and what follows from both. */
import {
  surveyRequest,
  type Arrival,
  type Command,
  type Finding,
  type KnownOutside,
  type PageEdit,
  type PageReading,
  type Screen,
  type Section,
  type Site,
  type SitePage,
  type Survey,
  type Tried,
  type Visit,
} from '@waybell/core'
import type { MenuPlace, PickedElement, PickStep, SurveyRequest } from '@waybell/agent/types'
import { createContext, useContext, useSyncExternalStore } from 'react'
import type { Session, SessionState } from './session.ts'
import { useSignal, type Signal } from './signal.ts'

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
  /** What became of the links of the menus, by screen key; of those screens where they were tried since the last change. */
  tried: Readonly<Record<string, readonly Tried[]>>
  /** What the live page shows of the page. */
  edits: readonly PageEdit[]
  /** IDs that were handed over before: somebody may have a link to them. */
  known: KnownOutside
  /** The one in view. */
  screen: Screen
  /** Brings another into view. */
  showScreen: (screen: string) => void
  survey: Survey | null
  /** The live page was stopped, and is not measured. */
  isStopped: boolean
  arrivals: Map<string, Arrival>
  session: Session
  run: (command: Command) => boolean
  /** Section whose row had the focus last. */
  current: string | null
  setCurrent: (section: string) => void
  /** Section that is pointed at, on any of the three columns. */
  pointed: Signal<string | null>
  point: (section: string | null) => void
  /** Where the live page stands on each screen, in px, by screen key. */
  scrolls: Signal<Readonly<Record<string, number>>>
  live: LiveControl
  /** What is being picked on the page; null when nothing is. */
  picking: Picking | null
}

export interface Picking {
  way: PickedElement[]
  isTaken: boolean
}

/** What the live page's frames can be told, by screen key. */
export interface LiveHandle {
  scrollTo: (screen: string, y: number) => void
  follow: (screen: string, hash: string) => void
  visit: (screen: string, hash: string, from: number) => Promise<Visit>
  patch: (screen: string, edits: PageEdit[]) => void
  point: (screen: string, at: number | null, show?: boolean) => void
  showState: (screen: string, menu: MenuPlace | null, declarations: string[]) => void
  pick: (screen: string, on: boolean) => void
  pickStep: (screen: string, to: PickStep | number) => void
}

/** What the columns may ask of the live page. */
export interface LiveControl {
  scrollTo: (y: number) => void
  follow: (hash: string) => void
  visit: (screen: string, hash: string, from: number) => Promise<Visit>
  /** Marks an element of the page and brings it into view. */
  show: (at: number | null) => void
  /** Shows the items of a menu in a look, on the screen in view; without a menu as they are. */
  showState: (menu: MenuPlace | null, declarations: string[]) => void
  /** Begins or ends picking an element of the page in view. */
  pick: (on: boolean) => void
  pickStep: (to: PickStep | number) => void
  /** Waits until the server has what was measured last. */
  flush: () => Promise<void>
}

export const WorkContext = createContext<Work | null>(null)

/** True where this section is pointed at. */
export function usePointed(section: string | undefined): boolean {
  const { pointed } = useWork()
  return useSignal(pointed, (now) => now !== null && now === section)
}

export function useWork(): Work {
  const work = useContext(WorkContext)
  if (!work) throw new Error('there is no site here')
  return work
}

/** What is stored, and what can be taken back. Apart from the rest, which need not be drawn again for it. */
export function useSessionState(): SessionState {
  const { session } = useWork()
  return useSyncExternalStore(session.subscribe, session.snapshot)
}

const MANY_PARTS = 1500

/** Everything that is a section or may become one. */
export function requestOf(sections: readonly Section[], reading: PageReading): Omit<SurveyRequest, 'screen' | 'width' | 'height'> {
  const whole = surveyRequest(reading)
  // Of very many, those that were also found are measured when they become sections.
  const offered = new Set(reading.candidates.flatMap((c) => (c.offered ? c.at : [])))
  const parts = whole.parts.length > MANY_PARTS ? whole.parts.filter((p) => offered.has(p.at)) : whole.parts
  const known = new Set(parts.map((p) => p.at))
  const added = sections.filter((s) => !known.has(s.at)).map(({ at, heading }) => ({ at, heading, block: null }))
  return { ...whole, parts: [...parts, ...added] }
}
