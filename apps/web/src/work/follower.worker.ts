/** Works out what follows from a change, out of the way of those who type and scroll. It holds what is read of the page; what changes comes with each question. */
import {
  openFindings,
  pageEdits,
  type Finding,
  type KnownOutside,
  type MeasuringTrouble,
  type PageEdit,
  type Site,
  type Survey,
  type Tried,
} from '@waybell/core'
import { expose } from 'comlink'
import type { PageState } from '../api.ts'
import { loadTablesFor } from './tables.ts'

/** What was measured, by screen key, and what is known besides. */
export interface Measured {
  surveys: Record<string, Survey>
  /** With the page's own scripts, as visitors have it. */
  counting: Record<string, Survey>
  /** What became of the links of the menus, of screens where they were tried. */
  tried: Readonly<Record<string, readonly Tried[]>>
  /** IDs that were handed over before. */
  known: KnownOutside
  trouble: MeasuringTrouble | null
}

interface Opened {
  state: PageState
  undeclared: ReadonlySet<string>
  runtime: string
}

let opened: Opened | null = null
/** The edits that were told last, as text. */
let told = ''
let measured: Measured = { surveys: {}, counting: {}, tried: {}, known: new Set(), trouble: null }

const follower = {
  async open(state: PageState, runtime: string): Promise<void> {
    await loadTablesFor(state.reading)
    opened = { state, undeclared: new Set(state.undeclared), runtime }
    told = ''
  },
  /**
   * @param now null where it is the same as at the question before
   * @returns `edits` null where they are those that were told last, so that nobody else has to compare them
   */
  follow(site: Site, pageKey: string, now: Measured | null): { edits: PageEdit[] | null; findings: Finding[] } {
    if (now) measured = now
    if (!opened) throw new Error('no page was opened')
    const { state, undeclared, runtime } = opened
    const { reading, named } = state
    const { surveys, counting, tried, known, trouble } = measured
    const page = site.pages.find((p) => p.key === pageKey)
    if (!page) throw new Error('the page is not in the site')
    // Until it is set up, the page is shown as it came.
    const edits = page.sections.length
      ? pageEdits({
          page,
          pages: site.pages,
          reading,
          screens: site.screens,
          surveys: counting,
          named: named.styles,
          runtime: () => runtime,
        })
      : []
    const findings = openFindings({ site, page, reading, undeclared, named, known, surveys, tried, trouble }, state.findings)
    const text = JSON.stringify(edits)
    const isSame = text === told
    // Last, since who gets an error gets no edits.
    told = text
    return { edits: isSame ? null : edits, findings }
  },
}

export type Follower = typeof follower
expose(follower)
