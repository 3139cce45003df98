/** What the workspace's parts share, in three contexts: the page, what was measured of it, and what is in view. */
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
import { createContext, useContext, useSyncExternalStore, type Context } from 'react'
import type { Session, SessionState } from './session.ts'
import { useSignal, type Signal } from './signal.ts'

/** The page, as it was read and as the designer has it, and the way to change it. */
export interface Work {
  siteKey: string
  site: Site
  page: SitePage
  reading: PageReading
  /** Names that the page's scripts read and nothing declares. */
  undeclared: ReadonlySet<string>
  /** Files that the page asks for and the site doesn't have. */
  missing: string[]
  /** IDs that visitors may have links to, because they were handed over. */
  known: KnownOutside
  session: Session
  run: (command: Command) => boolean
}

/** What was measured on the screens, and what follows from it. */
export interface Measured {
  /** By screen key; only screens that were measured. */
  surveys: Record<string, Survey>
  /** Screens whose survey is older than the last edit. */
  stale: ReadonlySet<string>
  /** Tried menu links by screen key; empty after a change until they are tried again. */
  tried: Readonly<Record<string, readonly Tried[]>>
  findings: Finding[]
  /** The edits that the live page shows. */
  edits: readonly PageEdit[]
}

/** What is in view, and the live page. */
export interface View {
  screen: Screen
  showScreen: (screen: string) => void
  /** Of the screen in view. */
  survey: Survey | null
  arrivals: Map<string, Arrival>
  /** The live page was stopped, and isn't measured. */
  isStopped: boolean
  /** Section whose row had the focus last. */
  current: string | null
  setCurrent: (section: string) => void
  /** Section under the pointer in any column. */
  pointed: Signal<string | null>
  point: (section: string | null) => void
  /** Scroll positions of the live page in px, by screen key. */
  scrolls: Signal<Readonly<Record<string, number>>>
  live: LiveControl
  /** What is being picked on the page; null for nothing. */
  picking: Picking | null
}

export interface Picking {
  way: PickedElement[]
  isTaken: boolean
}

/** Actions of the live page's frames, by screen key. */
export interface LiveHandle {
  scrollTo: (screen: string, y: number) => void
  follow: (screen: string, hash: string) => void
  visit: (screen: string, hash: string, from: number) => Promise<Visit>
  patch: (screen: string, edits: readonly PageEdit[]) => void
  point: (screen: string, at: number | null, show?: boolean) => void
  showState: (screen: string, menu: MenuPlace | null, declarations: string[]) => void
  pick: (screen: string, on: boolean) => void
  pickStep: (screen: string, to: PickStep | number) => void
}

/** Actions of the live page for other columns. */
export interface LiveControl {
  scrollTo: (y: number) => void
  follow: (hash: string) => void
  visit: (screen: string, hash: string, from: number) => Promise<Visit>
  /** Marks an element and scrolls to it. */
  show: (at: number | null) => void
  /** Shows a menu's items in a state on the screen in view; without a menu, undoes it. */
  showState: (menu: MenuPlace | null, declarations: string[]) => void
  /** Starts or ends picking an element. */
  pick: (on: boolean) => void
  pickStep: (to: PickStep | number) => void
  /** Waits until the latest surveys are stored. */
  flush: () => Promise<void>
}

export const WorkContext = createContext<Work | null>(null)
export const MeasuredContext = createContext<Measured | null>(null)
export const ViewContext = createContext<View | null>(null)

function useRequired<T>(context: Context<T | null>): T {
  const value = useContext(context)
  if (!value) throw new Error('only for parts of the workspace')
  return value
}
export const useWork = (): Work => useRequired(WorkContext)
export const useMeasured = (): Measured => useRequired(MeasuredContext)
export const useView = (): View => useRequired(ViewContext)

/** True while a section is under the pointer. */
export function usePointed(section: string | undefined): boolean {
  const { pointed } = useView()
  return useSignal(pointed, (now) => now !== null && now === section)
}

/** What is stored, and what can be undone. Separate, so that storing redraws nothing else. */
export function useSessionState(): SessionState {
  const { session } = useWork()
  return useSyncExternalStore(session.subscribe, session.snapshot)
}

const MANY_PARTS = 1500

/** Every section and candidate. */
export function requestOf(sections: readonly Section[], reading: PageReading): Omit<SurveyRequest, 'screen' | 'width' | 'height'> {
  const whole = surveyRequest(reading)
  // On pages with very many, candidates that aren't offered are measured only as sections.
  const offered = new Set(reading.candidates.flatMap((c) => (c.offered ? c.at : [])))
  const parts = whole.parts.length > MANY_PARTS ? whole.parts.filter((p) => offered.has(p.at)) : whole.parts
  const known = new Set(parts.map((p) => p.at))
  const added = sections.filter((s) => !known.has(s.at)).map(({ at, heading }) => ({ at, heading, block: null }))
  return { ...whole, parts: [...parts, ...added] }
}
