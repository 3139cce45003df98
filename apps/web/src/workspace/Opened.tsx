/** The workspace: work, spine and live page in columns under one bar. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { knownOutside, pageOf, type LiveScripts, type PageEdit, type SitePage, type Survey, type Tried } from '@waybell/core'
import { startTransition, Suspense, useCallback, useEffect, useMemo, useState } from 'react'
import { flushSync } from 'react-dom'
import { useParams } from 'react-router'
import { api, type KeptSurvey, type PageState } from '../api.ts'
import { FindingsDrawer } from '../findings/FindingsDrawer.tsx'
import { BARELY } from '../live/frame.ts'
import { LivePage } from '../live/LivePage.tsx'
import { Measuring } from '../live/Measuring.tsx'
import type { MeasuringState } from '../live/surveyor.ts'
import { Spine } from '../spine/Spine.tsx'
import { tasks } from '../tasks/index.ts'
import { Button } from '../ui/index.tsx'
import { useKept } from '../ui/useKept.ts'
import { MeasuredContext, requestOf, ViewContext, WorkContext, type Measured, type View, type Work } from '../work/context.ts'
import type { Session } from '../work/session.ts'
import { useDocument } from '../work/useDocument.ts'
import { useFollowing } from '../work/useFollowing.ts'
import { useLive } from '../work/useLive.ts'
import { useSurveys } from '../work/useSurveys.ts'
import { useUndoKeys } from '../work/useUndoKeys.ts'
import { Bar } from './Bar.tsx'
import { Columns } from './Columns.tsx'
import { DropFiles } from './DropFiles.tsx'
import { Hints } from './Hints.tsx'
import { Opening, Stopped } from './Said.tsx'
import { ScreenBar } from './ScreenBar.tsx'
import { useArriving, useLeaving } from './useLeaving.ts'
import { useNarrow } from './useNarrow.ts'

/** Tried links by screen key, and the page they were tried on. */
interface Tries {
  tried: Readonly<Record<string, readonly Tried[]>>
  of: SitePage | null
}
const NO_SCREENS: readonly string[] = []
const NO_STALE: ReadonlySet<string> = new Set()
const NONE: Tries['tried'] = {}

interface OpenedProps {
  siteKey: string
  session: Session
  pageKey: string
  state: PageState
  kept: KeptSurvey[]
  runtime: LiveScripts
}

export function Opened({ siteKey, session, pageKey, state, kept, runtime }: OpenedProps) {
  const { task: taskKey = 'sections' } = useParams()
  const site = useDocument(session)
  const page = pageOf(site, pageKey)
  const { reading } = state
  const undeclared = useMemo(() => new Set(state.undeclared), [state.undeclared])
  const [chosen, setShown] = useState(site.screens[0]!.key)
  // The chosen screen may be removed, here or in another tab.
  const screen = site.screens.find((s) => s.key === chosen) ?? site.screens[0]!
  const shown = screen.key
  const scripts = site.scripts !== false
  /** The page sent so many messages that it was stopped. */
  const [isStopped, setStopped] = useState(false)
  const [current, setCurrent] = useState<string | null>(null)
  const [measuring, setMeasuring] = useState<MeasuringState>('measuring')
  /** True once the screen in view is measured. The other screens load then, because loading them slows measuring. */
  const [isKnown, setKnown] = useState(false)
  const isNarrow = useNarrow()
  const [isUnfolded, setUnfolded] = useState(false)
  const isFolded = isNarrow && !isUnfolded
  const [isStrip, setStrip] = useKept<boolean>('sync-screens', true)
  const beside = useMemo(() => site.screens.flatMap((s) => (s.key === shown ? [] : s.key)), [site.screens, shown])

  const [tries, setTries] = useState<Tries>({ tried: {}, of: null })
  const onTried = useCallback((found: Tries['tried'], of: SitePage) => startTransition(() => setTries({ tried: found, of })), [])
  // Tries are outdated by any change to the page.
  const tried = tries.of === page && scripts ? tries.tried : NONE

  const handedOver = useQuery({ queryKey: ['handed-over', siteKey, pageKey], queryFn: () => api.handedOver(siteKey, pageKey) }).data
  const known = useMemo(() => knownOutside(reading, handedOver ?? []), [reading, handedOver])

  const client = useQueryClient()
  const onReadAnew = () => void client.invalidateQueries({ queryKey: ['page', siteKey, pageKey] })
  const measured = useSurveys({ siteKey, site, page, state, kept, scripts, onReadAnew })
  const { surveys, stale } = measured
  if (!isKnown && (measuring !== 'measuring' || stale.size === 0)) setKnown(true)
  const survey: Survey | null = surveys[shown] ?? null
  const leave = useLeaving(site, page, reading)
  const { handle, hear, live, pointed, point, scrolls, picking } = useLive(
    { page, shown, surveys, others: isStrip ? beside : NO_SCREENS },
    measured.flush,
    leave,
  )
  const onEdits = (edits: PageEdit[]) => handle.current?.patch(shown, edits)
  const { followed, arrivals } = useFollowing({
    session,
    site,
    page,
    state,
    runtime,
    surveys,
    counting: measured.counting,
    tried,
    trouble: measuring === 'measuring' || measuring === 'done' ? null : measuring,
    known,
    survey,
    onEdits,
  })
  useUndoKeys(session)
  useArriving(live, survey !== null && !stale.has(shown) && measuring !== 'measuring')

  // The list of sites is read again after the work.
  useEffect(() => () => void client.invalidateQueries({ queryKey: ['sites'] }), [client])

  const sections = page.sections
  const request = useMemo(() => requestOf(sections, reading), [sections, reading])
  const watched = useMemo(() => sections.map((s) => s.at), [sections])

  const { findings, edits } = followed ?? {}
  const { missing } = state
  const work = useMemo(
    (): Work => ({ siteKey, site, page, reading, missing, undeclared, known, session, run: session.run }),
    [siteKey, site, page, reading, missing, undeclared, known, session],
  )
  const results = useMemo(
    (): Measured | null => (findings && edits ? { surveys, stale, tried, findings, edits } : null),
    [surveys, stale, tried, findings, edits],
  )
  const view = useMemo(
    (): View => ({
      screen,
      showScreen: setShown,
      survey,
      arrivals,
      isStopped,
      current,
      setCurrent,
      pointed,
      point,
      scrolls,
      live,
      picking,
    }),
    [screen, survey, arrivals, isStopped, current, pointed, point, scrolls, live, picking],
  )
  if (!followed || !results) return <Opening />
  const { settled } = followed
  // Synchronously: React's own update would wait behind the page's messages.
  const stop = () => flushSync(() => setStopped(true))
  const switchScripts = (on: boolean) => {
    setStopped(false)
    session.run({ type: 'site/scripts', scripts: on })
  }
  const task = tasks.find((t) => t.key === taskKey) ?? tasks[0]!
  const { View, Overlay } = task
  return (
    <WorkContext.Provider value={work}>
      <MeasuredContext.Provider value={results}>
        <ViewContext.Provider value={view}>
          <div className="flex h-full min-w-80 flex-col">
            <Bar task={task.key} />
            <Hints />
            <Columns isNarrow={isNarrow}>
              <main className="min-h-0 overflow-auto px-3 py-3" data-testid="sheet" data-scroller>
                {task.key !== 'sections' && <h1 className="sr-only">{task.name}</h1>}
                <Suspense>
                  <View />
                </Suspense>
              </main>
              <section aria-label="Spine" className="min-h-0 border-x border-hair py-2">
                <Spine task={task} />
              </section>
              {isNarrow && (
                <Button className="absolute right-2 bottom-2 z-20" aria-expanded={isUnfolded} onClick={() => setUnfolded(!isUnfolded)}>
                  {isUnfolded ? 'Back to the work' : 'Show the page'}
                </Button>
              )}
              <section
                aria-label="Live page"
                className={`flex min-h-0 flex-col p-2 ${isNarrow ? 'absolute inset-0 z-10 bg-paper pb-12' : ''}`}
                // Stays drawn while folded away: a browser pauses frames that it doesn't draw, and measuring goes on.
                inert={isFolded}
                style={isFolded ? { opacity: BARELY, pointerEvents: 'none' } : undefined}
                data-stale={stale.size}
              >
                <ScreenBar isStrip={isStrip} onStrip={setStrip} onScripts={switchScripts} />
                {isStopped ? (
                  <Stopped onQuiet={() => switchScripts(false)} />
                ) : (
                  <LivePage
                    ref={handle}
                    siteKey={siteKey}
                    file={page.file}
                    title={page.title || page.file}
                    screens={site.screens}
                    shown={shown}
                    isStrip={isStrip}
                    isEvery={isKnown}
                    onShow={setShown}
                    scripts={scripts}
                    parts={watched}
                    edits={results.edits}
                    isSilent={measuring === 'silent' || measuring === 'reloads'}
                    onMessage={hear}
                    onFlood={stop}
                  >
                    <Measuring
                      siteKey={siteKey}
                      file={page.file}
                      screens={site.screens}
                      shown={shown}
                      scripts={scripts}
                      request={request}
                      of={settled}
                      edits={results.edits}
                      // Waits for the edits of the current page.
                      stale={settled === page ? stale : NO_STALE}
                      onSurvey={measured.take}
                      onTried={onTried}
                      onState={setMeasuring}
                      onFlood={stop}
                    />
                  </LivePage>
                )}
              </section>
              {Overlay && <Overlay />}
            </Columns>
            <FindingsDrawer />
            <DropFiles />
          </div>
        </ViewContext.Provider>
      </MeasuredContext.Provider>
    </WorkContext.Provider>
  )
}
