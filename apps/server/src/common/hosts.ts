/**
 * Two kinds of host on one port. The application stands at `127.0.0.1`; each site's pages at `KEY.localhost`, and with their own
 * scripts off at `KEY--still.localhost`, where the server answers with that site's pages and assets and nothing else.
 */
import type { Request } from 'express'

export type Host = { kind: 'application' } | { kind: 'live'; site: string; scripts: boolean } | { kind: 'none' }

export const SITE_KEY = /^[a-z0-9]{4,40}$/

export function hostOf(request: Pick<Request, 'headers'>): Host {
  const name = (request.headers.host ?? '').replace(/:\d+$/, '').toLowerCase()
  if (name === '127.0.0.1') return { kind: 'application' }
  const live = /^([a-z0-9]+)(--still)?\.localhost$/.exec(name)
  if (live?.[1] && SITE_KEY.test(live[1])) return { kind: 'live', site: live[1], scripts: !live[2] }
  return { kind: 'none' }
}

/** A request that changes something must come from the application itself, or from no page at all. */
export function isForeign(request: Pick<Request, 'headers'>): boolean {
  const { origin, host } = request.headers
  if (origin !== undefined) return origin !== `http://${host}`
  const site = request.headers['sec-fetch-site']
  return site !== undefined && site !== 'same-origin' && site !== 'none'
}
