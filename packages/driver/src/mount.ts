/** Serves a page and its files under an address. */
import mime from 'mime-types'
import { existsSync, readFileSync, statSync } from 'node:fs'
import { dirname, join, relative, resolve, sep } from 'node:path'

const ORIGIN = 'http://page.localhost'

export interface Answer {
  status: number
  type: string
  body: Buffer
}

export interface Mount {
  /** Address of the page. */
  url: string
  /** The answer for an address; null for outside ones. */
  answer: (url: string) => Answer | null
}

const NOT_FOUND: Answer = { status: 404, type: 'text/plain', body: Buffer.alloc(0) }

/**
 * Mounts a page's folder as a host's root, or a parent folder if the page's paths need it.
 * @param html the page to load, in `encoding`
 * @param files of the page, `path` relative to its folder
 */
export function mountFolder(pageFile: string, html: Buffer, encoding: string, files: readonly { path: string; file: string }[]): Mount {
  const folder = dirname(resolve(pageFile))
  const up = Math.max(0, ...files.map((f) => f.path.split('/').filter((s) => s === '..').length))
  const root = resolve(folder, '../'.repeat(up) || '.')
  const prefix = relative(root, folder).split(sep).filter(Boolean).map(encodeURIComponent).join('/')
  const path = `/${prefix ? `${prefix}/` : ''}${encodeURIComponent(pageFile.split(sep).pop()!)}`
  const byPath = new Map(files.map((f) => [f.path, f.file]))
  const known = new Set(byPath.values())
  const isServed = (file: string | undefined): file is string =>
    file !== undefined && (file.startsWith(folder + sep) || known.has(file)) && existsSync(file) && statSync(file).isFile()
  const read = new Map<string, Answer>()
  const answer = (url: string): Answer | null => {
    const { origin, pathname } = new URL(url)
    if (origin !== ORIGIN) return null
    if (pathname === path) return { status: 200, type: `text/html; charset=${encoding}`, body: html }
    const wanted = decoded(pathname)
    const inside = join(root, wanted)
    const file = [byPath.get(relative(folder, inside).split(sep).join('/')), inside, join(folder, wanted)].find(isServed)
    if (file === undefined) return NOT_FOUND
    const found = read.get(file) ?? { status: 200, type: mime.lookup(file) || 'application/octet-stream', body: readFileSync(file) }
    read.set(file, found)
    return found
  }
  return { url: ORIGIN + path, answer }
}

/** A path on disk. An invalid `%` stands for itself, as in `100%.png`. */
function decoded(pathname: string): string {
  try {
    return decodeURIComponent(pathname.replace(/%(?![0-9a-f]{2})/gi, '%25'))
  } catch {
    return pathname
  }
}
