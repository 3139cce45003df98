/** Work, spine and live page under one bar. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { ToggleGroup } from 'radix-ui'
import { Redo2, Undo2 } from 'lucide-react'
import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react'
import { Link, Navigate, NavLink, useNavigate, useParams } from 'react-router'
import { toast } from 'sonner'
import { openFindings, pageOf, taskOf, type Command, type PageEdit, type Survey } from '@waybell/core'
import { api, type PageState, type SiteState } from '../api.ts'
import { FindingsDrawer } from '../findings/FindingsDrawer.tsx'
import { LivePage, type LiveHandle } from '../live/LivePage.tsx'
import { Spine } from '../spine/Spine.tsx'
import { HandoverTask } from '../tasks/Handover.tsx'
import { HighlightTask } from '../tasks/Highlight.tsx'
import { MenusTask } from '../tasks/Menus.tsx'
import { SectionsTask } from '../tasks/sections/Sections.tsx'
import { TravelTask } from '../tasks/Travel.tsx'
import { WalkTask } from '../tasks/Walk.tsx'
import { Button, Field } from '../ui/index.tsx'
import { redoName, Session, undoName } from './session.ts'
import { DropFiles } from './DropFiles.tsx'
import { History } from './History.tsx'
import { Palette } from './Palette.tsx'
import { Threads } from './Threads.tsx'
import { arrivalsOf, editsOf, partsToMeasure, WorkContext, type Work } from './work.ts'

const tasks = [
  { key: 'sections', name: 'Sections', View: SectionsTask },
  { key: 'menus', name: 'Menus', View: MenusTask },
  { key: 'travel', name: 'Travel', View: TravelTask },
  { key: 'highlight', name: 'Highlight', View: HighlightTask },
  { key: 'walk', name: 'Walk', View: WalkTask },
  { key: 'handover', name: 'Handover', View: HandoverTask },
] as const

export function Workspace() {
  const { site = '' } = useParams()
  const loaded = useQuery({ queryKey: ['site', site], queryFn: () => api.site(site), staleTime: 0, gcTime: 0 })
  if (loaded.error) return <Failed message={loaded.error.message} />
  if (!loaded.data) return <Opening />
  return <OpenSite key={site} loaded={loaded.data} />
}

/** One session for the site, whichever of its pages is looked at. */
function OpenSite({ loaded }: { loaded: SiteState }) {
  const { page: pageKey = '', task = 'sections' } = useParams()
  const [session] = useState(() => new Session(loaded.key, loaded, (message) => toast.error(message, { duration: 10000 })))
  const { document: site } = useSyncExternalStore(session.subscribe, session.snapshot)
  const runtime = useQuery({ queryKey: ['runtime'], queryFn: api.runtime, staleTime: Infinity })

  // What other tabs do is seen here at once.
  useEffect(() => {
    const stream = new EventSource(api.versions(loaded.key))
    stream.onmessage = ({ data }: MessageEvent<string>) => void session.follow((JSON.parse(data) as { version: number }).version)
    return () => stream.close()
  }, [loaded.key, session])

  const page = site.pages.find((p) => p.key === pageKey)
  const state = useQuery({
    queryKey: ['page', loaded.key, pageKey, page?.source],
    queryFn: () => api.page(loaded.key, pageKey),
    enabled: page !== undefined,
  })
  // It was dropped, here or in another tab.
  if (!page) return <Navigate to={`/site/${loaded.key}/${site.pages[0]!.key}/${task}`} replace />
  const error = state.error ?? runtime.error
  if (error) return <Failed message={error.message} />
  if (!state.data || runtime.data === undefined) return <Opening />
  return (
    <Opened
      key={pageKey + page.source}
      siteKey={loaded.key}
      session={session}
      pageKey={pageKey}
      state={state.data}
      runtime={runtime.data}
    />
  )
}

const Opening = () => (
  <p role="status" className="p-8 text-faint">
    Opening the site…
  </p>
)

const Failed = ({ message }: { message: string }) => (
  <main className="p-8">
    <p role="alert" className="mb-3 text-brick">
      {message}
    </p>
    <Link to="/" className="underline">
      All sites
    </Link>
  </main>
)

function Opened({
  siteKey,
  session,
  pageKey,
  state,
  runtime,
}: {
  siteKey: string
  session: Session
  pageKey: string
  state: PageState
  runtime: string
}) {
  const { task = 'sections' } = useParams()
  const navigate = useNavigate()
  const current = useSyncExternalStore(session.subscribe, session.snapshot)
  const client = useQueryClient()
  const { document: site, stacks, storing } = current
  const page = pageOf(site, pageKey)
  const { reading } = state
  const undeclared = useMemo(() => new Set(state.undeclared), [state.undeclared])
  const [surveys, setSurveys] = useState<Record<string, Survey>>({})
  const [stale, setStale] = useState<ReadonlySet<string>>(new Set())
  const [screenKey, setScreenKey] = useState(site.screens[0]!.key)
  const [scripts, setScripts] = useState(true)
  const [scrolls, setScrolls] = useState<Record<string, number>>({})
  const [pointed, setPointed] = useState<string | null>(null)
  const [focused, setFocused] = useState<string | null>(null)
  const [picking, setPicking] = useState<Work['picking']>(null)
  const handle = useRef<LiveHandle>(null)
  const screen = site.screens.find((s) => s.key === screenKey)!
  const survey = surveys[screenKey] ?? null
  const request = useMemo(() => ({ parts: partsToMeasure(page, reading), header: reading.header }), [page, reading])

  // What follows from a change is worked out behind the drawing of the change itself, so that neither keeps the other waiting.
  const settled = useDeferredValue(site)
  const settledPage = settled.pages.find((p) => p.key === pageKey) ?? page
  const edits = useMemo(
    (): PageEdit[] => editsOf(settled, settledPage, reading, surveys, runtime),
    [settled, settledPage, reading, surveys, runtime],
  )

  const unsent = useRef<{ timer: ReturnType<typeof setTimeout> | undefined; sent: Promise<void> }>({
    timer: undefined,
    sent: Promise.resolve(),
  })
  const surveysNow = useRef(surveys)
  const sendSurveys = useCallback(() => {
    clearTimeout(unsent.current.timer)
    unsent.current.timer = undefined
    const measured = Object.values(surveysNow.current)
    if (measured.length)
      unsent.current.sent = api.putSurveys(siteKey, pageKey, page.source, measured).catch((e: unknown) => void toast.error(String(e)))
    return unsent.current.sent
  }, [siteKey, pageKey, page.source])
  const onSurvey = useCallback(
    (key: string, next: Survey) => {
      surveysNow.current = { ...surveysNow.current, [key]: next }
      setSurveys(surveysNow.current)
      setStale((s) => new Set([...s].filter((k) => k !== key)))
      clearTimeout(unsent.current.timer)
      unsent.current.timer = setTimeout(() => void sendSurveys(), 400)
    },
    [sendSurveys],
  )

  const run = useCallback(
    (command: Command) => {
      const done = session.run(command)
      if (done) setStale(new Set(site.screens.map((s) => s.key)))
      return done
    },
    [session, site.screens],
  )

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement
      if (typing || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return
      event.preventDefault()
      if (event.shiftKey) session.redo()
      else session.undo()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [session])

  // The list of sites is told anew when the work here ends.
  useEffect(() => () => void client.invalidateQueries({ queryKey: ['sites'] }), [client])

  const byAt = useMemo(() => new Map(page.sections.map((s) => [s.at, s.key])), [page.sections])
  const point = useCallback(
    (key: string | null) => {
      setPointed(key)
      handle.current?.point(screenKey, page.sections.find((s) => s.key === key)?.at ?? null)
    },
    [page.sections, screenKey],
  )

  const work: Work = {
    siteKey,
    site,
    page,
    reading,
    missing: state.missing,
    undeclared,
    findings: useMemo(
      () => openFindings({ site: settled, page: settledPage, reading, undeclared, named: state.named, surveys }, state.findings),
      [settled, settledPage, reading, undeclared, surveys, state],
    ),
    surveys,
    stale,
    screen,
    survey,
    arrivals: useMemo(() => arrivalsOf(page, survey), [page, survey]),
    session,
    state: current,
    run,
    pointed,
    point,
    live: {
      scrollTo: (y) => handle.current?.scrollTo(screenKey, y),
      follow: (hash) => handle.current?.follow(screenKey, hash),
      visit: (key, hash, from) => handle.current!.visit(key, hash, from),
      flush: sendSurveys,
      show: (at) => handle.current?.point(screenKey, at, true),
      pick: (on) => {
        handle.current?.pick(screenKey, on)
        setPicking(on ? { way: [], isTaken: false } : null)
      },
      pickStep: (to) => handle.current?.pickStep(screenKey, to),
    },
    picking,
    current: focused,
    setCurrent: setFocused,
  }
  const View = (tasks.find((t) => t.key === task) ?? tasks[0]).View
  const base = `/site/${siteKey}/${pageKey}`
  return (
    <WorkContext.Provider value={work}>
      <div className="flex h-full min-w-[960px] flex-col">
        <header className="flex min-h-11 items-center gap-3 border-b border-hair px-3">
          <Link to="/" className="flex flex-none items-center gap-1.5 font-bold" aria-label="All sites">
            <img src="/bell.svg" alt="" width="20" height="20" />
          </Link>
          <Field
            label="Name of the site"
            value={site.name}
            onCommit={(name) => run({ type: 'site/rename', name })}
            className="w-44 flex-none font-semibold"
          />
          {site.pages.length > 1 && (
            <select
              aria-label="Page"
              value={pageKey}
              onChange={(e) => void navigate(`/site/${siteKey}/${e.target.value}/${task}`)}
              className="min-h-7 w-32 flex-none rounded-sm border border-hair bg-sheet px-1"
            >
              {site.pages.map((p) => (
                <option key={p.key} value={p.key}>
                  {p.file}
                </option>
              ))}
            </select>
          )}
          <nav aria-label="Tasks" className="flex self-stretch">
            {tasks.map(({ key, name }) => {
              const open = work.findings.filter((f) => taskOf(f.code) === key).length
              return (
                <NavLink
                  key={key}
                  to={`${base}/${key}`}
                  className={({ isActive }) =>
                    `flex items-center gap-1 border-b-3 px-2.5 pt-[3px] ${isActive ? 'border-teal font-semibold' : 'border-transparent hover:bg-wash'}`
                  }
                >
                  {name}
                  {open > 0 && (
                    <span className="text-xs text-brick" aria-label={`${open} findings`}>
                      {open}
                    </span>
                  )}
                </NavLink>
              )
            })}
          </nav>
          <span className="ml-auto" />
          <Palette />
          <History />
          <Button
            kind="quiet"
            disabled={!stacks.undo.length}
            onClick={() => session.undo()}
            title={undoName(stacks) ? `Undo: ${undoName(stacks)}` : 'Nothing to undo'}
            aria-label={undoName(stacks) ? `Undo: ${undoName(stacks)}` : 'Undo'}
          >
            <Undo2 size={16} aria-hidden />
          </Button>
          <Button
            kind="quiet"
            disabled={!stacks.redo.length}
            onClick={() => session.redo()}
            title={redoName(stacks) ? `Redo: ${redoName(stacks)}` : 'Nothing to redo'}
            aria-label={redoName(stacks) ? `Redo: ${redoName(stacks)}` : 'Redo'}
          >
            <Redo2 size={16} aria-hidden />
          </Button>
          <span role="status" data-testid="storing" className="w-16 flex-none text-right text-xs text-faint">
            {storing === 'stored' ? 'stored' : storing === 'storing' ? 'storing…' : 'waiting for the server'}
          </span>
        </header>
        <div className="relative grid min-h-0 flex-1 grid-cols-[minmax(360px,420px)_200px_minmax(0,1fr)]">
          <main className="min-h-0 overflow-auto px-3 py-3" data-testid="sheet">
            {task !== 'sections' && <h1 className="sr-only">{tasks.find((t) => t.key === task)?.name}</h1>}
            <View />
          </main>
          <section aria-label="Spine" className="min-h-0 border-x border-hair py-2">
            <Spine
              task={task}
              scroll={scrolls[screenKey] ?? 0}
              onScroll={(y) => {
                setScrolls((s) => ({ ...s, [screenKey]: y }))
                // The end is where the page ends now, not where it was measured to end.
                work.live.scrollTo(survey && y >= survey.maxScroll ? 1e7 : y)
              }}
            />
          </section>
          <section aria-label="Live page" className="flex min-h-0 flex-col p-2">
            <div className="flex items-center gap-3 pb-2">
              <ToggleGroup.Root
                type="single"
                value={screenKey}
                onValueChange={(v) => v && setScreenKey(v)}
                aria-label="Screen"
                className="flex gap-1"
              >
                {site.screens.map((s) => (
                  <ToggleGroup.Item
                    key={s.key}
                    value={s.key}
                    className="min-h-7 rounded-sm border border-hair px-2.5 text-sm data-[state=on]:border-teal data-[state=on]:bg-wash data-[state=on]:font-semibold"
                  >
                    {s.name} {s.width}×{s.height}
                  </ToggleGroup.Item>
                ))}
              </ToggleGroup.Root>
              <label className="ml-auto flex items-center gap-1.5 text-sm">
                <input type="checkbox" checked={scripts} onChange={(e) => setScripts(e.target.checked)} /> Page’s own scripts
              </label>
            </div>
            <LivePage
              ref={handle}
              siteKey={siteKey}
              file={page.file}
              title={page.title || page.file}
              screens={site.screens}
              shown={screenKey}
              scripts={scripts}
              request={request}
              edits={edits}
              onSurvey={onSurvey}
              onMessage={(key, message) => {
                if (message.type === 'scrolled') setScrolls((s) => ({ ...s, [key]: message.y }))
                if (message.type === 'hover' && key === screenKey) setPointed(message.at === null ? null : (byAt.get(message.at) ?? null))
                if (message.type === 'picking' && key === screenKey)
                  setPicking(message.state === 'left' ? null : { way: message.way, isTaken: message.state === 'done' })
                if (message.type === 'outside') toast(`This link leaves the page, for ${message.href}. The live page stays here.`)
              }}
            />
          </section>
          {task === 'menus' && <Threads />}
        </div>
        <FindingsDrawer />
        <DropFiles />
      </div>
    </WorkContext.Provider>
  )
}
