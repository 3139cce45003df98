/** The live page: a site's page with its assets on a host of its own, with the measuring agent. */
import { Injectable } from '@nestjs/common'
import { agentText } from '@waybell/agent'
import { stampPage, type Site, type SitePage } from '@waybell/core'
import type { Request, Response } from 'express'
import mime from 'mime-types'
import { randomBytes } from 'node:crypto'
import type { EntityManager } from 'typeorm'
import { Store } from '../db/store.ts'
import { SiteRow } from '../db/entities.ts'
import { parseStored } from '../db/stored.ts'
import { getFile } from '../sites/content.ts'
import { SourcesService } from '../sites/sources.service.ts'

export const AGENT_PATH = '/__waybell/agent.js'

/**
 * A page may use its own host and nothing else. `frame-ancestors` allows only the application. Without page scripts, only the agent
 * runs, by nonce.
 */
function policy(scripts: boolean, nonce: string, application: string): string {
  const own = "'self' data: blob:"
  return [
    `default-src ${own}`,
    `script-src ${scripts ? `${own} 'unsafe-inline' 'unsafe-eval'` : `'nonce-${nonce}'`}`,
    `style-src ${own} 'unsafe-inline'`,
    "connect-src 'none'",
    "webrtc 'block'",
    "form-action 'none'",
    "frame-src 'self'",
    "object-src 'none'",
    "base-uri 'self'",
    `frame-ancestors ${application}`,
  ].join('; ')
}

/** A page's frames load the same files: browsers cache them and revalidate. */
const REVALIDATED = { 'Cache-Control': 'no-cache' }
/** Number of sites whose pages are kept parsed. */
const KEPT = 6

@Injectable()
export class LiveService {
  private readonly parsed = new Map<string, { version: number; pages: readonly SitePage[] }>()

  constructor(
    private readonly store: Store,
    private readonly sources: SourcesService,
  ) {}

  async answer(request: Request, response: Response, key: string, scripts: boolean): Promise<void> {
    if (request.method !== 'GET' && request.method !== 'HEAD')
      return void response.status(405).type('text/plain').send('Only reading is possible here.')
    const port = request.socket.localPort
    const nonce = randomBytes(12).toString('base64')
    response.set({
      'Content-Security-Policy': policy(scripts, nonce, `http://127.0.0.1:${port}`),
      'X-Content-Type-Options': 'nosniff',
      'Referrer-Policy': 'no-referrer',
      'X-DNS-Prefetch-Control': 'off',
      // In browsers that support it, the page can't reach any other host. @see https://wicg.github.io/connection-allowlists/
      'Connection-Allowlist': '(response-origin)',
      'Cache-Control': 'no-store',
      'Origin-Agent-Cluster': '?1',
    })
    const pages = await this.store.read((db) => this.pages(db, key))
    if (!pages) return void response.status(404).type('text/plain').send('There is no such site.')
    if (request.path === AGENT_PATH) return void response.set(REVALIDATED).type('text/javascript').send(agentText)
    const path = decodePath(request.path)
    const page = pages.find((p) => path === p.file || (path === '' && p === pages[0]))
    if (page) {
      const { bytes, parsed } = await this.sources.source(page)
      const html = stampPage(bytes, parsed, `<script src="${AGENT_PATH}" nonce="${nonce}"></script>`)
      return void response.set('Content-Type', `text/html; charset=${parsed.decoded.encoding}`).send(Buffer.from(html))
    }
    const file = path === null ? null : await this.store.read((db) => getFile(db, key, path))
    if (!file) return void response.status(404).type('text/plain').send('The site has no such file.')
    response.set({ ...REVALIDATED, 'Content-Type': mime.lookup(path!) || 'application/octet-stream' }).send(file)
  }

  /** The site's pages, parsed once per version; null for an unknown site. */
  private async pages(db: EntityManager, key: string): Promise<readonly SitePage[] | null> {
    const known = this.parsed.get(key)
    const row = await db.findOne(SiteRow, { where: { key }, select: { key: true, version: true } })
    if (known && known.version === row?.version) return known.pages
    this.parsed.delete(key)
    const whole = row && (await db.findOneBy(SiteRow, { key }))
    if (!whole) return null
    const { pages } = parseStored<Site>(whole.document)
    this.parsed.set(key, { version: whole.version, pages })
    if (this.parsed.size > KEPT) this.parsed.delete(this.parsed.keys().next().value!)
    return pages
  }
}

function decodePath(path: string): string | null {
  try {
    return decodeURIComponent(path).replace(/^\/+/, '')
  } catch {
    return null
  }
}
