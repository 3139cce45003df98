/** The live page: a site's page and its assets, on a host of their own, with the measuring agent in it. */
import { Injectable } from '@nestjs/common'
import { agentText } from '@waybell/agent'
import { stampPage, type Site } from '@waybell/core'
import type { Request, Response } from 'express'
import mime from 'mime-types'
import { randomBytes } from 'node:crypto'
import { Store } from '../db/store.ts'
import { SiteRow } from '../db/entities.ts'
import { getFile } from '../sites/content.ts'
import { SourcesService } from '../sites/sources.service.ts'

export const AGENT_PATH = '/__waybell/agent.js'

/**
 * What a page may do: use its own host, and talk to nobody. `frame-ancestors` names the application, the only place where it may
 * be shown. Without its own scripts only the agent runs, by nonce.
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

@Injectable()
export class LiveService {
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
      // Where it is known, nothing of the page reaches any other host, by whatever way. @see https://wicg.github.io/connection-allowlists/
      'Connection-Allowlist': '(response-origin)',
      'Cache-Control': 'no-store',
      'Origin-Agent-Cluster': '?1',
    })
    const row = await this.store.read((db) => db.findOneBy(SiteRow, { key }))
    if (!row) return void response.status(404).type('text/plain').send('There is no such site.')
    if (request.path === AGENT_PATH) return void response.type('text/javascript').send(agentText)
    const site = JSON.parse(row.document) as Site
    const path = decodePath(request.path)
    const page = site.pages.find((p) => path === p.file || (path === '' && p === site.pages[0]))
    if (page) {
      const { bytes, parsed } = await this.sources.source(page)
      const html = stampPage(bytes, parsed, `<script src="${AGENT_PATH}" nonce="${nonce}"></script>`)
      return void response.set('Content-Type', `text/html; charset=${parsed.decoded.encoding}`).send(Buffer.from(html))
    }
    const file = path === null ? null : await this.store.read((db) => getFile(db, key, path))
    if (!file) return void response.status(404).type('text/plain').send('The site has no such file.')
    response.set('Content-Type', mime.lookup(path!) || 'application/octet-stream').send(file)
  }
}

function decodePath(path: string): string | null {
  try {
    return decodeURIComponent(path).replace(/^\/+/, '')
  } catch {
    return null
  }
}
