/**
 * Two kinds of host on one port: `127.0.0.1` is the application; `KEY.localhost` serves a site's pages, and `KEY--still.localhost` the
 * same without page scripts. These serve that site's files and nothing else.
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

/** True for a change request from another origin's page. */
export function isForeign(request: Pick<Request, 'headers'>): boolean {
  const { origin, host } = request.headers
  if (origin !== undefined) return origin !== `http://${host}`
  const site = request.headers['sec-fetch-site']
  return site !== undefined && site !== 'same-origin' && site !== 'none'
}
