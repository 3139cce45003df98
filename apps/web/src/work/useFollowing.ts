/**
 * Computes edits and findings in a worker, newest document first; the previous result is shown meanwhile, and says which document it
 * belongs to.
 */
import {
  solveArrivals,
  type Arrival,
  type Finding,
  type LiveScripts,
  type PageEdit,
  type Site,
  type SitePage,
  type Survey,
} from '@waybell/core'
import { wrap, type Remote } from 'comlink'
import { startTransition, useEffect, useMemo, useRef, useState } from 'react'
import { toast } from 'sonner'
import type { PageState } from '../api.ts'
import type { Follower, Measured } from './follower.worker.ts'
import type { Session } from './session.ts'

interface Input extends Measured {
  session: Session
  site: Site
  page: SitePage
  state: PageState
  runtime: LiveScripts
  /** Of the screen in view. */
  survey: Survey | null
  /** Called with new edits before anything renders. */
  onEdits: (edits: PageEdit[]) => void
}

interface Followed {
  /** The page that edits and findings belong to. */
  settled: SitePage
  /** The same array until they change. */
  edits: PageEdit[]
  findings: Finding[]
}

export interface Following {
  /** Null until first computed. */
  followed: Followed | null
  arrivals: Map<string, Arrival>
}

export function useFollowing(input: Input): Following {
  const { session, site, page, state, runtime, surveys, counting, tried, trouble, known: names, survey } = input
  const [followed, setFollowed] = useState<Followed | null>(null)
  const latest = useRef(input)
  latest.current = input
  const line = useRef<Line | null>(null)
  useEffect(() => {
    const own = new Line(state, runtime, (now) => {
      latest.current.onEdits(now.edits)
      startTransition(() => setFollowed(now))
    })
    line.current = own
    return () => own.close()
  }, [state, runtime])
  const measured = useMemo(() => ({ surveys, counting, tried, trouble, known: names }), [surveys, counting, tried, trouble, names])
  useEffect(() => line.current!.ask({ site, page, measured }), [state, runtime, site, page, measured])
  // Sent before it renders, so that both run in parallel.
  const known = useRef(measured)
  known.current = measured
  useEffect(
    () =>
      session.subscribe(() => {
        const { document } = session.snapshot()
        const now = document.pages.find((p) => p.key === latest.current.page.key)
        if (now && document !== latest.current.site) line.current!.ask({ site: document, page: now, measured: known.current })
      }),
    [session],
  )
  const arrivals = useMemo(() => new Map(survey ? solveArrivals(page, survey).map((a) => [a.section, a]) : []), [page, survey])
  return { followed, arrivals }
}

interface Question {
  site: Site
  page: SitePage
  measured: Measured
}

/** Questions to the worker: one at a time, and only the latest waiting one. */
class Line {
  private readonly worker = new Worker(new URL('./follower.worker.ts', import.meta.url), { type: 'module' })
  private readonly follower: Remote<Follower> = wrap<Follower>(this.worker)
  private readonly opened: Promise<void>
  private next: Question | null = null
  private told: Measured | null = null
  private last: Question | null = null
  private edits: PageEdit[] = []
  private isAsking = false
  private isClosed = false

  constructor(
    state: PageState,
    runtime: LiveScripts,
    private readonly answer: (followed: Followed) => void,
  ) {
    // A worker that fails to load answers nothing.
    this.worker.onerror = (event) => this.fail(event.message || 'its script could not be loaded')
    this.opened = this.follower.open(state, runtime)
  }

  close(): void {
    this.isClosed = true
    this.worker.terminate()
  }

  /** Equal questions are answered once. */
  ask(question: Question): void {
    const { last } = this
    if (last?.site === question.site && last.page === question.page && last.measured === question.measured) return
    this.last = question
    this.next = question
    if (!this.isAsking) void this.run()
  }

  private async run(): Promise<void> {
    this.isAsking = true
    try {
      await this.opened
      while (this.next) {
        const { site, page, measured } = this.next
        this.next = null
        const isSame = this.told === measured
        this.told = measured
        const { edits, findings } = await this.follower.follow(site, page.key, isSame ? null : measured)
        if (this.isClosed) return
        this.edits = edits ?? this.edits
        this.answer({ settled: page, edits: this.edits, findings })
      }
    } catch (error) {
      this.fail(error instanceof Error ? error.message : String(error))
    } finally {
      this.isAsking = false
    }
  }

  private fail(reason: string): void {
    if (!this.isClosed) toast.error(`Findings couldn’t be computed: ${reason}. Reload the view.`, { duration: Infinity })
  }
}
