/**
 * What follows from the work. Edits and findings are worked out in a worker, the newest work next; what is shown meanwhile is of the work
 * before, and says of which.
 */
import { solveArrivals, type Arrival, type Finding, type PageEdit, type Site, type SitePage, type Survey } from '@waybell/core'
import { wrap, type Remote } from 'comlink'
import { startTransition, useEffect, useMemo, useRef, useState } from 'react'
import { toast } from 'sonner'
import type { PageState } from '../api.ts'
import type { Follower, Measured } from './follower.worker.ts'

interface Input extends Measured {
  site: Site
  page: SitePage
  state: PageState
  runtime: string
  /** Of the screen in view. */
  survey: Survey | null
}

interface Followed {
  /** The page that edits and findings are of. */
  settled: SitePage
  edits: PageEdit[]
  findings: Finding[]
}

export interface Following {
  /** Null until it was worked out for the first time. */
  followed: Followed | null
  arrivals: Map<string, Arrival>
}

export function useFollowing({ site, page, state, runtime, surveys, counting, survey }: Input): Following {
  const [followed, setFollowed] = useState<Followed | null>(null)
  const line = useRef<Line | null>(null)
  useEffect(() => {
    const own = new Line(state, runtime, (now) => startTransition(() => setFollowed(now)))
    line.current = own
    return () => own.close()
  }, [state, runtime])
  useEffect(() => line.current!.ask({ site, page, measured: { surveys, counting } }), [state, runtime, site, page, surveys, counting])
  const arrivals = useMemo(() => new Map(survey ? solveArrivals(page, survey).map((a) => [a.section, a]) : []), [page, survey])
  return { followed, arrivals }
}

interface Question {
  site: Site
  page: SitePage
  measured: Measured
}

/** The line to the worker: one question at a time, and of those that wait only the last. */
class Line {
  private readonly worker = new Worker(new URL('./follower.worker.ts', import.meta.url), { type: 'module' })
  private readonly follower: Remote<Follower> = wrap<Follower>(this.worker)
  private readonly opened: Promise<void>
  private next: Question | null = null
  private told: Measured | null = null
  private isAsking = false
  private isClosed = false

  constructor(
    state: PageState,
    runtime: string,
    private readonly answer: (followed: Followed) => void,
  ) {
    // One that cannot even be loaded answers no question.
    this.worker.onerror = (event) => this.fail(event.message || 'its script could not be loaded')
    this.opened = this.follower.open(state, runtime)
  }

  close(): void {
    this.isClosed = true
    this.worker.terminate()
  }

  ask(question: Question): void {
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
        const isSame = this.told?.surveys === measured.surveys && this.told.counting === measured.counting
        this.told = measured
        const found = await this.follower.follow(site, page.key, isSame ? null : measured)
        if (this.isClosed) return
        this.answer({ settled: page, ...found })
      }
    } catch (error) {
      this.fail(error instanceof Error ? error.message : String(error))
    } finally {
      this.isAsking = false
    }
  }

  private fail(reason: string): void {
    if (!this.isClosed)
      toast.error(`What follows from your work could not be worked out: ${reason}. Load the view again.`, { duration: Infinity })
  }
}
