/** What was measured of the page: the last results from the server at once, and what the measuring frame says since. */
import { byDecisions, layoutOf, surveyKey, viewportOf, type Screen, type Site, type SitePage, type Survey } from '@waybell/core'
import { startTransition, useCallback, useMemo, useRef, useState } from 'react'
import { toast } from 'sonner'
import { api, type KeptSurvey, type PageState } from '../api.ts'

/** A survey, and the page and the screen that it was measured of: it is stale as soon as that is another page, and says nothing of another screen. */
interface Measured {
  survey: Survey
  of: SitePage | null
  on: Screen
}
type ByScreen = Readonly<Record<string, Measured>>

/** How long measuring rests before its results are stored, in ms. */
const REST = 400

interface Input {
  siteKey: string
  site: Site
  page: SitePage
  state: PageState
  kept: readonly KeptSurvey[]
  scripts: boolean
  /** The page is read otherwise, now that it was measured. */
  onReadAnew: () => void
}

export interface Surveys {
  /** By screen key; those that were measured. */
  surveys: Record<string, Survey>
  /** The same with the page's own scripts, as visitors have it: what is handed over goes by these. */
  counting: Record<string, Survey>
  /** Screens that have none of the page as it is. */
  stale: ReadonlySet<string>
  take: (survey: Survey, of: SitePage, on: Screen) => void
  /** Waits until the server has what was measured last. */
  flush: () => Promise<void>
}

export function useSurveys(input: Input): Surveys {
  const { site, page, kept, scripts } = input
  const latest = useRef(input)
  latest.current = input
  const [measured, setMeasured] = useState<Record<'on' | 'off', ByScreen>>(() => {
    const known = (on: boolean): ByScreen =>
      Object.fromEntries(
        kept
          .filter((k) => k.scripts === on)
          .flatMap(({ key, survey }) => {
            const screen = site.screens.find((s) => s.key === survey.screen)
            const fits = survey.width === screen?.width && survey.height === screen.height
            return fits ? [[screen.key, { survey, of: key === keyOf(input, page, screen, on) ? page : null, on: screen }]] : []
          }),
      )
    return { on: known(true), off: known(false) }
  })
  const own = useMemo(() => heldBy(measured[scripts ? 'on' : 'off'], site.screens), [measured, scripts, site.screens])
  const surveys = useMemo(() => byDecisions(surveysIn(own), site.screens), [own, site.screens])
  const counting = useMemo(() => byDecisions(surveysIn(heldBy(measured.on, site.screens)), site.screens), [measured.on, site.screens])
  const stale = useMemo(() => new Set(site.screens.flatMap((s) => (own[s.key]?.of === page ? [] : s.key))), [site.screens, own, page])

  const now = useRef(measured)
  /** What the server has. */
  const stored = useRef(new WeakSet<Measured>(Object.values(measured.on).concat(Object.values(measured.off))))
  const unsent = useRef<{ timer?: ReturnType<typeof setTimeout>; sent: Promise<unknown> }>({ sent: Promise.resolve() })
  const flush = useCallback(async (): Promise<void> => {
    clearTimeout(unsent.current.timer)
    const { siteKey, page: of } = latest.current
    // Both, since the scripts may have been switched while measuring rested.
    const taken: Measured[] = []
    const puts = ([true, false] as const).map((on) => {
      const rows = Object.values(now.current[on ? 'on' : 'off']).flatMap((m) => {
        // One that is stale by now is still the last that there is; its key says of what.
        if (!m.of || m.of.source !== of.source || stored.current.has(m)) return []
        stored.current.add(m)
        taken.push(m)
        return [{ key: keyOf(latest.current, m.of, m.on, on), survey: m.survey }]
      })
      return rows.length ? api.putSurveys(siteKey, of.key, { source: of.source, scripts: on, surveys: rows }) : undefined
    })
    const answers = Promise.all([unsent.current.sent, ...puts]).then(() => Promise.all(puts))
    unsent.current.sent = answers
      .then((all) => {
        if (all.some((answer) => answer?.isReadAnew)) latest.current.onReadAnew()
      })
      .catch((error: unknown) => {
        // They are sent again with the next.
        for (const m of taken) stored.current.delete(m)
        toast.error(String(error))
      })
    await unsent.current.sent
  }, [])
  const take = useCallback(
    (survey: Survey, of: SitePage, on: Screen) => {
      const mode = latest.current.scripts ? 'on' : 'off'
      const known = now.current[mode][survey.screen]
      if (known?.survey === survey && known.of === of && viewportOf(known.on) === viewportOf(on)) return
      now.current = { ...now.current, [mode]: { ...now.current[mode], [survey.screen]: { survey, of, on } } }
      startTransition(() => setMeasured(now.current))
      clearTimeout(unsent.current.timer)
      unsent.current.timer = setTimeout(() => void flush(), REST)
    },
    [flush],
  )
  return { surveys, counting, stale, take, flush }
}

/** Of screens that the site still has, as they are. */
const heldBy = (measured: ByScreen, screens: readonly Screen[]): ByScreen =>
  Object.fromEntries(
    screens.flatMap((s) => {
      const m = measured[s.key]
      return m && viewportOf(m.on) === viewportOf(s) ? [[s.key, m]] : []
    }),
  )

const surveysIn = (measured: ByScreen): Record<string, Survey> =>
  Object.fromEntries(Object.entries(measured).map(([key, m]) => [key, m.survey]))

function keyOf({ site, state }: Input, page: SitePage, screen: Screen, scripts: boolean): string {
  const layout = layoutOf({ page, pages: site.pages, reading: state.reading, screens: site.screens })
  return surveyKey({ source: page.source, assets: state.assets, screen, scripts, layout })
}
