/** The server's answers, and its errors as what, where and what to do. */
import type { Command, Finding, PageReading, Site, Stacks, Survey } from '@waybell/core'

export interface SiteState {
  key: string
  document: Site
  version: number
  stacks: Stacks
}

export interface SiteSummary {
  key: string
  name: string
  changedAt: number
  title: string
  sections: number
  items: number
}

export interface PageState {
  reading: PageReading
  missing: string[]
  undeclared: string[]
  findings: Finding[]
}

export interface HandoverView {
  file: string
  bytes: number
  measured: string[]
  edits: { offset: number; removed: string; inserted: string }[]
}

export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
  ) {
    super(message)
  }
}

async function ask<T>(path: string, init?: RequestInit): Promise<T> {
  const response = await fetch(`/api/${path}`, init).catch(() => {
    throw new ApiError(0, 'unreachable', 'The server does not answer. Start it again with npm start; what was shown as stored is safe.')
  })
  if (!response.ok) {
    const told = (await response.json().catch(() => ({}))) as { code?: string; message?: string }
    throw new ApiError(response.status, told.code ?? 'request', told.message ?? `The server answered ${response.status}.`)
  }
  return (response.status === 204 ? undefined : await response.json()) as T
}

const json = (method: string, body: unknown): RequestInit => ({ method, headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) })

/** A file with the folders that it was handed in with. */
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

const pagePath = (site: string, page: string) => `sites/${site}/pages/${page}`

export const api = {
  sites: () => ask<SiteSummary[]>('sites'),
  site: (key: string) => ask<SiteState>(`sites/${key}`),
  create: (files: readonly GivenFile[], fields: { html?: string; name?: string } = {}) => ask<{ key: string }>('sites', form(files, { ...fields })),
  drop: (key: string) => ask<void>(`sites/${key}`, { method: 'DELETE' }),
  change: (key: string, body: { idempotencyKey: string; baseVersion: number; command: Command; undoes: number | null }) =>
    ask<{ version: number }>(`sites/${key}/changes`, json('POST', body)),
  page: (site: string, page: string) => ask<PageState>(pagePath(site, page)),
  addFiles: (site: string, page: string, files: readonly GivenFile[]) => ask<void>(`${pagePath(site, page)}/files`, form(files)),
  putSurveys: (site: string, page: string, source: string, surveys: Survey[]) => ask<void>(`${pagePath(site, page)}/surveys`, json('PUT', { source, surveys })),
  handover: (site: string, page: string) => ask<HandoverView>(`${pagePath(site, page)}/handover`),
  handoverPage: (site: string, page: string) => `/api/${pagePath(site, page)}/handover/page`,
  handoverZip: (site: string, page: string) => `/api/${pagePath(site, page)}/handover/zip`,
  runtime: async () => (await fetch('/api/runtime')).text(),
}
