/** Work, spine and live page under one bar. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { knownOutside, pageOf, sizeText, type PageEdit, type SitePage, type Survey, type Tried } from '@waybell/core'
import { RadioGroup } from 'radix-ui'
import { startTransition, Suspense, useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react'
import { flushSync } from 'react-dom'
import { Navigate, useParams } from 'react-router'
import { toast } from 'sonner'
import { api, type KeptSurvey, type PageState, type SiteState } from '../api.ts'
import { FindingsDrawer } from '../findings/FindingsDrawer.tsx'
import { BARELY } from '../live/frame.ts'
import { LivePage } from '../live/LivePage.tsx'
import { Measuring } from '../live/Measuring.tsx'
import type { MeasuringState } from '../live/surveyor.ts'
import { Spine } from '../spine/Spine.tsx'
import { fetchTasks, tasks } from '../tasks/index.ts'
import { Button } from '../ui/index.tsx'
import { requestOf, WorkContext, type Work } from '../work/context.ts'
import { Session } from '../work/session.ts'
import { loadTables, loadTablesFor } from '../work/tables.ts'
import { useFollowing } from '../work/useFollowing.ts'
import { useLive } from '../work/useLive.ts'
import { useSurveys } from '../work/useSurveys.ts'
import { useKept } from '../ui/useKept.ts'
import { useUndoKeys } from '../work/useUndoKeys.ts'
import { hearVersions } from '../work/versions.ts'
import { Bar } from './Bar.tsx'
import { Columns } from './Columns.tsx'
import { Hints } from './Hints.tsx'
import { DropFiles } from './DropFiles.tsx'
import { Failed, Opening, Stopped } from './Said.tsx'
import { ScreensDialog } from './Screens.tsx'
import { useArriving, useLeaving } from './useLeaving.ts'

export function Workspace() {
  const { site = '' } = useParams()
  const loaded = useQuery({ queryKey: ['site', site], queryFn: () => api.site(site), staleTime: 0, gcTime: 0 })
  if (loaded.error) return <Failed message={loaded.error.message} />
  if (!loaded.data) return <Opening />
  return <OpenSite key={site} loaded={loaded.data} />
}

/** What is read of the page, with what it takes to spell its names. */
async function openPage(site: string, page: string): Promise<PageState> {
  const state = await api.page(site, page)
  await loadTablesFor(state.reading)
  return state
}

/** The site as it is worked on; what is stored of it is none of this one's business. */
const useDocument = (session: Session) => useSyncExternalStore(session.subscribe, () => session.snapshot().document)

/** One session for the site, whichever of its pages is looked at. */
function OpenSite({ loaded }: { loaded: SiteState }) {
  const { page: pageKey = '', task = 'sections' } = useParams()
  const [session] = useState(() => new Session(loaded.key, loaded, (message) => toast.error(message, { duration: 10000 })))
  const site = useDocument(session)
  const runtime = useQuery({ queryKey: ['runtime'], queryFn: api.runtime, staleTime: Infinity })

  // What other tabs do is seen here at once.
  useEffect(() => hearVersions(loaded.key, (version) => session.follow(version)), [loaded.key, session])
  // Whatever is typed later may need them, and whichever task is turned to.
  useEffect(() => {
    const later = [setTimeout(fetchTasks, 500), setTimeout(() => void loadTables(), 3000)]
    return () => later.forEach(clearTimeout)
  }, [])

  const page = site.pages.find((p) => p.key === pageKey)
  const state = useQuery({
    queryKey: ['page', loaded.key, pageKey, page?.source],
    queryFn: () => openPage(loaded.key, pageKey),
    enabled: page !== undefined,
  })
  const kept = useQuery({
    queryKey: ['surveys', loaded.key, pageKey, page?.source],
    queryFn: () => api.surveys(loaded.key, pageKey),
    enabled: page !== undefined,
    staleTime: Infinity,
    gcTime: 0,
  })
  // It was removed, here or in another tab.
  if (!page) return <Navigate to={`/site/${loaded.key}/${site.pages[0]!.key}/${task}`} replace />
  const error = state.error ?? runtime.error ?? kept.error
  if (error) return <Failed message={error.message} />
  if (!state.data || runtime.data === undefined || !kept.data) return <Opening />
  return (
    <Opened
      key={pageKey + page.source}
      siteKey={loaded.key}
      session={session}
      pageKey={pageKey}
      state={state.data}
      kept={kept.data}
      runtime={runtime.data}
    />
  )
}

const narrow = matchMedia('(max-width: 900px)')

/** The window, or the text in it, leaves room for the work and the spine alone. */
const useNarrow = (): boolean =>
  useSyncExternalStore(
    (tell) => {
      narrow.addEventListener('change', tell)
      return () => narrow.removeEventListener('change', tell)
    },
    () => narrow.matches,
  )

/** What became of the links, by screen key, and the page that they were tried on. */
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
  runtime: string
}

function Opened({ siteKey, session, pageKey, state, kept, runtime }: OpenedProps) {
  const { task: taskKey = 'sections' } = useParams()
  const site = useDocument(session)
  const page = pageOf(site, pageKey)
  const { reading } = state
  const undeclared = useMemo(() => new Set(state.undeclared), [state.undeclared])
  const [chosen, setShown] = useState(site.screens[0]!.key)
  // It may have been removed, here or in another tab.
  const screen = site.screens.find((s) => s.key === chosen) ?? site.screens[0]!
  const shown = screen.key
  const scripts = site.scripts !== false
  /** The page said so much that it was stopped. */
  const [isStopped, setStopped] = useState(false)
  const [focused, setFocused] = useState<string | null>(null)
  const [measuring, setMeasuring] = useState<MeasuringState>('measuring')
  /** True once something is measured, or about to be. The screens out of view wait for it, since loading them slows measuring. */
  const [isKnown, setKnown] = useState(false)
  const isNarrow = useNarrow()
  const [isUnfolded, setUnfolded] = useState(false)
  const isFolded = isNarrow && !isUnfolded
  const [isStrip, setStrip] = useKept<boolean>('sync-screens', true)
  const beside = useMemo(() => site.screens.flatMap((s) => (s.key === shown ? [] : s.key)), [site.screens, shown])

  const [tries, setTries] = useState<Tries>({ tried: {}, of: null })
  const onTried = useCallback((found: Tries['tried'], of: SitePage) => startTransition(() => setTries({ tried: found, of })), [])
  // They hold until a change touches what they are of.
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

  // The list of sites is told anew when the work here ends.
  useEffect(() => () => void client.invalidateQueries({ queryKey: ['sites'] }), [client])

  const sections = page.sections
  const request = useMemo(() => requestOf(sections, reading), [sections, reading])
  const watched = useMemo(() => sections.map((s) => s.at), [sections])

  const { findings, edits } = followed ?? {}
  const { missing } = state
  const work = useMemo(
    (): Work | null =>
      findings === undefined || edits === undefined
        ? null
        : {
            siteKey,
            site,
            page,
            reading,
            missing,
            undeclared,
            findings,
            surveys,
            stale,
            tried,
            edits,
            known,
            screen,
            showScreen: setShown,
            survey,
            isStopped,
            arrivals,
            session,
            run: session.run,
            pointed,
            point,
            scrolls,
            picking,
            live,
            current: focused,
            setCurrent: setFocused,
          },
    [
      siteKey,
      site,
      page,
      reading,
      missing,
      undeclared,
      findings,
      surveys,
      stale,
      tried,
      edits,
      known,
      screen,
      survey,
      isStopped,
      arrivals,
      session,
      pointed,
      point,
      scrolls,
      picking,
      live,
      focused,
    ],
  )
  if (!followed || !edits || !work) return <Opening />
  const { settled } = followed
  // At once: React's own turn comes by a message too, and would wait behind all that the page sends until then.
  const stop = () => flushSync(() => setStopped(true))
  const switchScripts = (on: boolean) => {
    setStopped(false)
    session.run({ type: 'site/scripts', scripts: on })
  }
  const task = tasks.find((t) => t.key === taskKey) ?? tasks[0]!
  const { View, Overlay } = task
  return (
    <WorkContext.Provider value={work}>
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
            // Folded away it goes on measuring: a browser stops the clock of a frame that it does not draw.
            inert={isFolded}
            style={isFolded ? { opacity: BARELY, pointerEvents: 'none' } : undefined}
            data-stale={stale.size}
          >
            <div className="flex flex-wrap items-center gap-x-3 gap-y-1 pb-2">
              <RadioGroup.Root
                value={shown}
                onValueChange={setShown}
                aria-label="Screen"
                orientation="horizontal"
                className="flex flex-wrap gap-1"
              >
                {site.screens.map((s) => (
                  <RadioGroup.Item
                    key={s.key}
                    value={s.key}
                    aria-label={`${s.name} ${sizeText(s)}`}
                    title={sizeText(s)}
                    // Where the arrow keys go, they choose.
                    onFocus={() => setShown(s.key)}
                    className="min-h-7 rounded-sm border border-hair px-2.5 text-sm data-[state=checked]:border-teal data-[state=checked]:bg-wash data-[state=checked]:font-semibold"
                  >
                    {s.name}
                    {/* Many names leave no room for every size. */}
                    {(s === screen || site.screens.length < 4) && ` ${sizeText(s)}`}
                  </RadioGroup.Item>
                ))}
              </RadioGroup.Root>
              <ScreensDialog />
              <div className="ml-auto flex gap-3 text-sm whitespace-nowrap">
                {beside.length > 0 && (
                  <label className="flex items-center gap-1.5" title="Show the other screens at the same place">
                    <input type="checkbox" checked={isStrip} onChange={(e) => setStrip(e.target.checked)} /> Sync screens
                  </label>
                )}
                <label className="flex items-center gap-1.5">
                  <input type="checkbox" checked={scripts} onChange={(e) => switchScripts(e.target.checked)} /> Page’s own scripts
                </label>
              </div>
            </div>
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
                edits={edits}
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
                  edits={edits}
                  // Until the edits are those of the page as it is, there is nothing to measure.
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
    </WorkContext.Provider>
  )
}
