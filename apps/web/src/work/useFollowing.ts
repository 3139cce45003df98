/** What follows from the work: edits, findings, arrivals. It is worked out behind the drawing of a change, so that neither keeps the other waiting. */
import {
  openFindings,
  pageEdits,
  solveArrivals,
  type Arrival,
  type Finding,
  type PageEdit,
  type Site,
  type SitePage,
  type Survey,
} from '@waybell/core'
import { useDeferredValue, useMemo } from 'react'
import type { PageState } from '../api.ts'

interface Input {
  site: Site
  page: SitePage
  state: PageState
  undeclared: ReadonlySet<string>
  runtime: string
  surveys: Record<string, Survey>
  /** With the page's own scripts, as visitors have it. */
  counting: Record<string, Survey>
  /** Of the screen in view. */
  survey: Survey | null
}

export interface Following {
  /** The page that edits and findings are of. */
  settled: SitePage
  edits: PageEdit[]
  findings: Finding[]
  arrivals: Map<string, Arrival>
}

export function useFollowing({ site: now, page, state, undeclared, runtime, surveys, counting, survey }: Input): Following {
  const { reading, named } = state
  const site = useDeferredValue(now)
  const settled = site.pages.find((p) => p.key === page.key) ?? page
  const edits = useMemo(
    // Until it is set up, the page is shown as it came.
    () =>
      settled.sections.length
        ? pageEdits({ page: settled, pages: site.pages, reading, screens: site.screens, surveys: counting, runtime })
        : [],
    [settled, site, reading, counting, runtime],
  )
  const findings = useMemo(
    () => openFindings({ site, page: settled, reading, undeclared, named, surveys }, state.findings),
    [site, settled, reading, undeclared, named, surveys, state.findings],
  )
  const arrivals = useMemo(() => new Map(survey ? solveArrivals(page, survey).map((a) => [a.section, a]) : []), [page, survey])
  return { settled, edits, findings, arrivals }
}
