/** The server's API, and its errors as what, where and what to do. */
import type {
  Change,
  Command,
  Decisions,
  Finding,
  LinkFromPage,
  LiveScripts,
  MadeLink,
  NamedIds,
  PageReading,
  Revision,
  Screen,
  Site,
  StackName,
  Stacks,
  Survey,
} from '@waybell/core'

export interface SiteState {
  key: string
  document: Site
  version: number
  stacks: Stacks
}

export interface SiteSummary {
  key: string
  name: string
  /** Its first page, for the small picture. */
  file: string
  screen: Screen
  /** Milliseconds since 1970. */
  changedAt: number
  /** Unchanged since it was made. */
  isNew: boolean
  pages: number
  sections: number
  items: number
}

export interface Overview {
  /** Open findings of all pages, as last measured; without those that only tried links show. */
  findings: number
  /** Milliseconds since 1970; null if never handed over. */
  handedOverAt: number | null
}

/** A page taken home. */
export interface HandedOver {
  at: number
  /** Of the site. */
  version: number
  /** IDs that visitors may link to from then on. */
  ids: string[]
}

export interface PageState {
  reading: PageReading
  missing: string[]
  undeclared: string[]
  named: NamedIds
  findings: Finding[]
  /** Identifies the state of all files that pages may load. */
  assets: string
}

/** A survey, and the key of its layout. */
export interface KeptSurvey {
  key: string
  scripts: boolean
  survey: Survey
}

/** One change of a site. */
export interface LogEntry {
  version: number
  what: string
  /** Milliseconds since 1970. */
  at: number
  /** The designer's name for the state after the change. */
  name: string | null
}

/** Sections compared with a new version, which the server keeps under `source`. */
export interface Review extends Revision {
  source: string
}

export interface HandoverView {
  file: string
  bytes: number
  measured: string[]
  edits: { offset: number; removed: string; inserted: string }[]
  /** Script sizes in both forms, in bytes and gzipped; null if the page needs none. */
  script: Record<ScriptForm, { bytes: number; packed: number }> | null
}

/** Form of the script: readable or minified. */
export type ScriptForm = 'plain' | 'small'

export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
  ) {
    super(message)
  }
}

async function answer(path: string, init?: RequestInit): Promise<Response> {
  const response = await fetch(`/api/${path}`, init).catch(() => {
    throw new ApiError(0, 'unreachable', 'The server doesn’t respond. Start it with npm start; everything shown as stored is safe.')
  })
  if (!response.ok) {
    const told = (await response.json().catch(() => ({}))) as { code?: string; message?: string }
    throw new ApiError(response.status, told.code ?? 'request', told.message ?? `The server answered ${response.status}.`)
  }
  return response
}

async function ask<T>(path: string, init?: RequestInit): Promise<T> {
  const response = await answer(path, init)
  return (response.status === 204 ? undefined : await response.json()) as T
}

const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'Content-Type': 'application/json' },
  body: JSON.stringify(body),
})

/** A file with its folders. */
export interface GivenFile {
  path: string
  file: File
}

function form(files: readonly GivenFile[], fields: Record<string, string> = {}): RequestInit {
  const body = new FormData()
  for (const [name, value] of Object.entries(fields)) body.append(name, value)
  for (const { path, file } of files) body.append('files', file, path)
  return { method: 'POST', body }
}

/** Progress of an upload; `total` is 0 while unknown. */
export interface Progress {
  sent: number
  total: number
}

/** Uploads files with progress, which `fetch` can't report. @throws ApiError, with code `stopped` on abort */
function send<T>(
  path: string,
  files: readonly GivenFile[],
  fields: Record<string, string>,
  tell: (progress: Progress) => void,
  signal: AbortSignal,
): Promise<T> {
  return new Promise((done, failed) => {
    const request = new XMLHttpRequest()
    request.open('POST', `/api/${path}`)
    request.responseType = 'json'
    request.upload.onprogress = ({ loaded, total }) => tell({ sent: loaded, total })
    request.onerror = () => failed(new ApiError(0, 'unreachable', 'The server doesn’t respond; nothing was stored. Try again.'))
    request.onabort = () => failed(new ApiError(0, 'stopped', 'Stopped; nothing was stored.'))
    request.onload = () => {
      const told = (request.response ?? {}) as T & { code?: string; message?: string }
      if (request.status < 300) done(told)
      else failed(new ApiError(request.status, told.code ?? 'request', told.message ?? `The server answered ${request.status}.`))
    }
    signal.addEventListener('abort', () => request.abort())
    request.send(form(files, fields).body as FormData)
  })
}

/** Part of every change: a repeated key means the same change. */
export interface ChangeOf {
  idempotencyKey: string
  /** Version that the tab had read before the change. */
  baseVersion: number
  tab: string
}

const pagePath = (site: string, page: string) => `sites/${site}/pages/${page}`

export const api = {
  sites: () => ask<SiteSummary[]>('sites'),
  storage: () => ask<{ folder: string; bytes: number }>('storage'),
  site: (key: string) => ask<SiteState>(`sites/${key}`),
  overview: (key: string) => ask<Overview>(`sites/${key}/overview`),
  create: (
    files: readonly GivenFile[],
    fields: { html?: string; outline?: string; scripts: 'on' | 'off' },
    tell: (progress: Progress) => void,
    signal: AbortSignal,
  ) => send<{ key: string }>('sites', files, { ...fields }, tell, signal),
  remove: (key: string) => ask<void>(`sites/${key}`, { method: 'DELETE' }),
  change: (key: string, body: ChangeOf & { command: Command; undoes: number | null }) =>
    ask<{ version: number }>(`sites/${key}/changes`, json('POST', body)),
  log: (site: string) => ask<LogEntry[]>(`sites/${site}/log`),
  earlierChanges: (site: string, stack: StackName, before: number) => ask<Change[]>(`sites/${site}/stacks/${stack}?before=${before}`),
  goBack: (site: string, body: ChangeOf & { version: number }) => ask<{ version: number }>(`sites/${site}/back`, json('POST', body)),
  nameState: (site: string, version: number, name: string) => ask<void>(`sites/${site}/log/${version}`, json('PUT', { name })),
  page: (site: string, page: string) => ask<PageState>(pagePath(site, page)),
  /** Whether the source has what a link is to wrap, or a script builds it. */
  linkable: (site: string, page: string, at: number, { of, label }: Pick<MadeLink, 'of' | 'label'>) =>
    ask<{ isInFile: boolean }>(`${pagePath(site, page)}/linkable?${new URLSearchParams({ at: `${at}`, of, label })}`),
  /** Links to this page in other pages' files. */
  leaders: (site: string, page: string) => ask<LinkFromPage[]>(`${pagePath(site, page)}/leaders`),
  addFiles: (
    site: string,
    page: string,
    files: readonly GivenFile[],
    tab: string,
    tell: (progress: Progress) => void,
    signal: AbortSignal,
  ) => send<{ pages: string[] }>(`${pagePath(site, page)}/files`, files, { tab }, tell, signal),
  review: (site: string, page: string, files: readonly GivenFile[], tell: (progress: Progress) => void, signal: AbortSignal) =>
    send<Review>(`${pagePath(site, page)}/review`, files, {}, tell, signal),
  revise: (site: string, page: string, body: ChangeOf & { source: string; decisions: Decisions }) =>
    ask<{ version: number }>(`${pagePath(site, page)}/revise`, json('POST', body)),
  /** Address of the stream of site versions. */
  surveys: (site: string, page: string) => ask<KeptSurvey[]>(`${pagePath(site, page)}/surveys`),
  putSurveys: (site: string, page: string, body: { source: string; scripts: boolean; surveys: { key: string; survey: Survey }[] }) =>
    ask<{ isReadAnew: boolean }>(`${pagePath(site, page)}/surveys`, json('PUT', body)),
  handover: (site: string, page: string, script: ScriptForm) => ask<HandoverView>(`${pagePath(site, page)}/handover?script=${script}`),
  handedOver: (site: string, page: string) => ask<HandedOver[]>(`${pagePath(site, page)}/handovers`),
  /** Hands the page over, alone or in a ZIP with the site; the server records it. */
  handOver: (site: string, page: string, form: 'page' | 'zip', script: ScriptForm) =>
    answer(`${pagePath(site, page)}/handover/${form}?script=${script}`, { method: 'POST' }).then((response) => response.blob()),
  runtime: () => ask<LiveScripts>('runtime'),
}
