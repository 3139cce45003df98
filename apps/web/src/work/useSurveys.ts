/** Surveys of the page: the server's latest at once, then those of the measuring frames. */
import { byDecisions, layoutOf, surveyKey, viewportOf, type Screen, type Site, type SitePage, type Survey } from '@waybell/core'
import { startTransition, useCallback, useMemo, useRef, useState } from 'react'
import { toast } from 'sonner'
import { api, type KeptSurvey, type PageState } from '../api.ts'

/** A survey with its page and screen: stale for another page, useless for another screen. */
interface Measured {
  survey: Survey
  of: SitePage | null
  on: Screen
}
type ByScreen = Readonly<Record<string, Measured>>

/** Pause before surveys are stored, in ms. */
const REST = 400

interface Input {
  siteKey: string
  site: Site
  page: SitePage
  state: PageState
  kept: readonly KeptSurvey[]
  scripts: boolean
  /** The page's reading changed after measuring. */
  onReadAnew: () => void
}

export interface Surveys {
  /** By screen key; only measured ones. */
  surveys: Record<string, Survey>
  /** Those with page scripts, as visitors have them: the handover uses these. */
  counting: Record<string, Survey>
  /** Screens without an up-to-date survey. */
  stale: ReadonlySet<string>
  take: (survey: Survey, of: SitePage, on: Screen) => void
  /** Waits until the latest surveys are stored. */
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
    // Both: page scripts may have been switched meanwhile.
    const taken: Measured[] = []
    const puts = ([true, false] as const).map((on) => {
      const rows = Object.values(now.current[on ? 'on' : 'off']).flatMap((m) => {
        // A stale survey is still the latest; its key says of what.
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
        // They are sent with the next ones.
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

/** Surveys of the site's present screens. */
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
