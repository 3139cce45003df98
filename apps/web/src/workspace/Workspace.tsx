/** Loads a site and one of its pages; “Opened.tsx” is the workspace itself. */
import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { Navigate, useParams } from 'react-router'
import { toast } from 'sonner'
import { api, type PageState, type SiteState } from '../api.ts'
import { fetchTasks } from '../tasks/index.ts'
import { Session } from '../work/session.ts'
import { loadTables, loadTablesFor } from '../work/tables.ts'
import { useDocument } from '../work/useDocument.ts'
import { hearVersions } from '../work/versions.ts'
import { Opened } from './Opened.tsx'
import { Failed, Opening } from './Said.tsx'

export function Workspace() {
  const { site = '' } = useParams()
  const loaded = useQuery({ queryKey: ['site', site], queryFn: () => api.site(site), staleTime: 0, gcTime: 0 })
  if (loaded.error) return <Failed message={loaded.error.message} />
  if (!loaded.data) return <Opening />
  return <OpenSite key={site} loaded={loaded.data} />
}

/** Reads a page, and loads the tables that its names need. */
async function openPage(site: string, page: string): Promise<PageState> {
  const state = await api.page(site, page)
  await loadTablesFor(state.reading)
  return state
}

/** One session for all pages of the site. */
function OpenSite({ loaded }: { loaded: SiteState }) {
  const { page: pageKey = '', task = 'sections' } = useParams()
  const [session] = useState(() => new Session(loaded.key, loaded, (message) => toast.error(message, { duration: 10000 })))
  const site = useDocument(session)
  const runtime = useQuery({ queryKey: ['runtime'], queryFn: api.runtime, staleTime: Infinity })

  // Follows changes of other tabs.
  useEffect(() => hearVersions(loaded.key, (version) => session.follow(version)), [loaded.key, session])
  // Loads what later input and other tasks may need.
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
  // Removed here or in another tab.
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
