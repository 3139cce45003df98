/** Files that a page loads: styles, pictures, scripts, fonts. */
import { parseSrcset } from 'srcset'
import { cssUrls } from './css.ts'
import type { Lines } from './lines.ts'
import { readAddress } from './links.ts'
import type { El, Tree } from './tree.ts'

export interface Asset {
  /** As written. */
  url: string
  /** Relative path without query and hash, decoded; a leading `/` is the site's root. */
  path: string
  line: number
  column: number
}

const sources: Record<string, string[]> = {
  img: ['src', 'srcset'],
  source: ['src', 'srcset'],
  script: ['src'],
  video: ['src', 'poster'],
  audio: ['src'],
  track: ['src'],
  embed: ['src'],
  input: ['src'],
  iframe: ['src'],
  object: ['data'],
  image: ['href', 'xlink:href'],
  use: ['href', 'xlink:href'],
  body: ['background'],
  table: ['background'],
  td: ['background'],
}

const linkKinds = /(^|\s)(stylesheet|icon|preload|modulepreload|apple-touch-icon|manifest)(\s|$)/i

export function findAssets(tree: Tree, lines: Lines, file: string): Asset[] {
  const out: Asset[] = []
  const seen = new Set<string>()
  const add = (url: string, el: El) => {
    const path = assetPath(url, file)
    if (path === null || seen.has(path)) return
    seen.add(path)
    out.push({ url: url.trim(), path, ...lines.at(Math.max(0, el.at)) })
  }
  for (const el of tree.all) {
    if (el.tag === 'link' && linkKinds.test(el.attrs.get('rel') ?? '')) add(el.attrs.get('href') ?? '', el)
    for (const name of sources[el.tag] ?? []) {
      const value = el.attrs.get(name) ?? el.attrs.get(name.replace('xlink:', ''))
      if (!value) continue
      if (name === 'srcset') for (const url of srcsetUrls(value)) add(url, el)
      else add(value, el)
    }
    const style = el.attrs.get('style')
    if (style) for (const url of cssUrls(style, 'declarationList')) add(url, el)
    if (el.tag === 'style') for (const text of el.texts) for (const url of cssUrls(text.value)) add(url, el)
  }
  return out
}

/** The path of a local file; null for other addresses. */
export function assetPath(url: string, file: string): string | null {
  const address = readAddress(url, file, null)
  if (address.kind !== 'other-page') return null
  const path = url.trim().replace(/[?#].*$/s, '')
  if (path === '') return null
  try {
    return decodeURIComponent(path).replace(/\\/g, '/').replace(/^\.\//, '')
  } catch {
    return path
  }
}

const srcsetUrls = (value: string): string[] => parseSrcset(value, { strict: false }).map((candidate) => candidate.url)

/** A found file: its key, and its text if it may load more. */
export interface FoundFile {
  key: string
  text: string | null
}

/**
 * Follows the page's files, and those that its styles and modules load.
 * @param find looks up a path relative to the page's folder, or from the root with a leading `/`
 * @returns keys of found files, and paths of missing ones as written
 */
export function followAssets(
  assets: readonly Asset[],
  find: (path: string) => FoundFile | null,
): { found: Set<string>; missing: Set<string> } {
  const found = new Set<string>()
  const missing = new Set<string>()
  const queue = assets.map((a) => a.path)
  while (queue.length && found.size < 5000) {
    const path = queue.shift()!
    const file = find(path)
    if (!file) {
      missing.add(path)
      continue
    }
    if (found.has(file.key)) continue
    found.add(file.key)
    for (const url of file.text === null ? [] : namedIn(path, file.text)) {
      const next = assetPath(url, '')
      if (next !== null) queue.push(next.startsWith('/') ? next : joinPath(path, next))
    }
  }
  return { found, missing }
}

function namedIn(path: string, text: string): string[] {
  if (/\.css$/i.test(path)) return cssUrls(text)
  if (/\.m?js$/i.test(path)) return [...text.matchAll(/(?:\bfrom|\bimport)\s*\(?\s*["'](\.{1,2}\/[^"']+)["']/g)].map((m) => m[1]!)
  return []
}

/** Resolves `path` relative to the file `from`. */
function joinPath(from: string, path: string): string {
  const out = from.split('/').slice(0, -1)
  for (const step of path.split('/')) {
    if (step === '..' && out.length && out.at(-1) !== '..' && out.at(-1) !== '') out.pop()
    else if (step !== '.') out.push(step)
  }
  return out.join('/')
}
