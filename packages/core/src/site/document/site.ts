/** The site as a whole. */
import type { NamingRule } from '../../naming/index.ts'
import type { SitePage } from './page.ts'
import type { Screen } from './screen.ts'

export const SITE_VERSION = 4

export interface Site {
  format: 'way-bell-site'
  version: typeof SITE_VERSION
  name: string
  rule: NamingRule
  screens: Screen[]
  pages: SitePage[]
  /** The pages' own scripts don't run in the workspace. */
  scripts?: false
  /** Handed-over pages carry the script minified. */
  small?: true
  address?: SiteAddress
}

/** The site's address for visitors. */
export interface SiteAddress {
  /** URL of the site's folder, with a slash at its end. */
  url: string
  /** Links between pages use the full address instead of a relative path. */
  isWritten?: true
}

/** The folder of a typed address; null if a site can't be at it. @see URL Standard, "absolute-URL-with-fragment string" */
export function siteFolder(typed: string): string | null {
  const address = typed.trim().replace(/[?#].*$/, '')
  const [, origin, path] = /^(https?:\/\/[^\s/\\@]+)(\/[^\s\\]*)?$/i.exec(address) ?? []
  if (origin === undefined) return null
  // Drops a file name.
  const folder = (path ?? '/').replace(/\/[^/]*\.[a-z0-9]+$/i, '/')
  return origin + (folder.endsWith('/') ? folder : `${folder}/`)
}

/** A key with this prefix that isn't taken. */
export function freshKey(prefix: string, taken: Iterable<string>): string {
  const used = new Set(taken)
  for (let n = 1; ; n++) if (!used.has(`${prefix}${n}`)) return `${prefix}${n}`
}
