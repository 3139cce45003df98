/** Computes edits and findings in a worker, off the main thread. Holds the reading; changes come with each question. */
import {
  type Finding,
  type KnownOutside,
  type LiveScripts,
  liveScriptWith,
  type MeasuringTrouble,
  openFindings,
  type PageEdit,
  pageEdits,
  type Site,
  type Survey,
  type Tried,
} from '@waybell/core'
import { expose } from 'comlink'
import type { PageState } from '../api.ts'
import { loadTablesFor } from './tables.ts'

/** Measurements by screen key, and other facts. */
export interface Measured {
  surveys: Record<string, Survey>
  /** With page scripts, as visitors have them. */
  counting: Record<string, Survey>
  /** Tried menu links, by screen. */
  tried: Readonly<Record<string, readonly Tried[]>>
  /** IDs handed over before. */
  known: KnownOutside
  trouble: MeasuringTrouble | null
}

interface Opened {
  state: PageState
  undeclared: ReadonlySet<string>
  runtime: LiveScripts
}

let opened: Opened | null = null
/** The edits reported last, as text. */
let told = ''
let measured: Measured = { surveys: {}, counting: {}, tried: {}, known: new Set(), trouble: null }

const follower = {
  async open(state: PageState, runtime: LiveScripts): Promise<void> {
    await loadTablesFor(state.reading)
    opened = { state, undeclared: new Set(state.undeclared), runtime }
    told = ''
  },
  /**
   * @param now null if unchanged since the last question
   * @returns `edits` null if equal to the last ones, so that nobody else compares them
   */
  follow(site: Site, pageKey: string, now: Measured | null): { edits: PageEdit[] | null; findings: Finding[] } {
    if (now) measured = now
    if (!opened) throw new Error('no page was opened')
    const { state, undeclared, runtime } = opened
    const { reading, named } = state
    const { surveys, counting, tried, known, trouble } = measured
    const page = site.pages.find((p) => p.key === pageKey)
    if (!page) throw new Error('the page is not in the site')
    // Without set-up, the page is shown as it came.
    const edits = page.sections.length
      ? pageEdits({
          page,
          pages: site.pages,
          reading,
          screens: site.screens,
          surveys: counting,
          named: named.styles,
          runtime: liveScriptWith(runtime),
        })
      : []
    const findings = openFindings({ site, page, reading, undeclared, named, known, surveys, tried, trouble }, state.findings)
    const text = JSON.stringify(edits)
    const isSame = text === told
    // Last, because a failure must leave the previous edits.
    told = text
    return { edits: isSame ? null : edits, findings }
  },
}

export type Follower = typeof follower
expose(follower)
