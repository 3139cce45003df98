/** Turns given files into pages and assets. */
import { followAssets, PageError, readPage, resolvePath, starterPage, type PageReading } from '@waybell/core'
import { cleanPath } from './content.ts'
import type { HandedIn } from './handed-in.ts'
import { filesInZip, isZip } from './zip.ts'

export interface ImportedPage {
  /** Path from the site's root. */
  file: string
  bytes: Uint8Array
  reading: PageReading
}

export interface Import {
  /** In the site's order. */
  pages: ImportedPage[]
  /** Other files, by path from the site's root. */
  assets: Map<string, Uint8Array>
}

/** Max pages of a site. */
export const MAX_PAGES = 100

const isHtml = (path: string) => /\.x?html?$/i.test(path)
const isOutline = (path: string) => /\.(md|markdown)$/i.test(path)
const folderOf = (path: string) => path.split('/').slice(0, -1).join('/')
const depth = (path: string) => path.split('/').length

/** Unpacks ZIPs among the files. @throws PageError `zip` */
export async function unpack(files: readonly HandedIn[]): Promise<HandedIn[]> {
  const out: HandedIn[] = []
  for (const file of files) out.push(...(isZip(file.bytes) ? await filesInZip(file.name, file.bytes) : [file]))
  return out
}

/** The first page is `index.html`, or else the HTML file nearest the root. @throws PageError when it can't be read */
export function readImport(files: readonly HandedIn[]): Import {
  const clean = files.flatMap((f) => {
    const path = cleanPath(f.name)
    return path === null ? [] : [{ path, bytes: f.bytes }]
  })
  const html = clean
    .filter((f) => isHtml(f.path))
    .sort((a, b) => depth(a.path) - depth(b.path) || Number(/index\.x?html?$/i.test(b.path)) - Number(/index\.x?html?$/i.test(a.path)))
  // A single file is a page even without extension, or an outline for one.
  const first = html[0] ?? (clean.length === 1 ? clean[0] : undefined) ?? clean.find((f) => isOutline(f.path))
  if (!first)
    throw new PageError(
      'page-not-html',
      'there is no HTML file among the files; choose the page itself, with its styles and pictures beside it',
    )
  if (isOutline(first.path)) return outlineSite(new TextDecoder().decode(first.bytes))
  const folder = folderOf(first.path)
  const local = (path: string) => (folder && path.startsWith(folder + '/') ? path.slice(folder.length + 1) : path)
  const pages: ImportedPage[] = [{ file: local(first.path), bytes: first.bytes, reading: readPage(first.bytes, local(first.path)) }]
  const assets = new Map<string, Uint8Array>()
  for (const f of clean) {
    if (f === first) continue
    const path = local(f.path)
    const page = isHtml(path) && pages.length < MAX_PAGES ? pageFrom(path, f.bytes) : null
    if (page) pages.push(page)
    else assets.set(path, f.bytes)
  }
  // By name after the first, as in a folder.
  const [head, ...rest] = pages
  rest.sort((a, b) => (a.file < b.file ? -1 : 1))
  return { pages: [head!, ...rest], assets: pages.reduce((placed, page) => placeByName(page, placed), assets) }
}

export function outlineSite(outline: string): Import {
  const bytes = new TextEncoder().encode(starterPage(outline))
  return { pages: [{ file: 'index.html', bytes, reading: readPage(bytes, 'index.html') }], assets: new Map() }
}

/** A file named HTML that isn't, such as a template's part, is an asset. */
function pageFrom(file: string, bytes: Uint8Array): ImportedPage | null {
  try {
    return { file, bytes, reading: readPage(bytes, file) }
  } catch (error) {
    if (error instanceof PageError) return null
    throw error
  }
}

/** Later pages and files; HTML files become pages. @throws PageError */
export function readAdded(files: readonly HandedIn[]): Import {
  const pages: ImportedPage[] = []
  const assets = new Map<string, Uint8Array>()
  for (const { name, bytes } of files) {
    const path = cleanPath(name)
    if (path === null) continue
    if (isHtml(path)) pages.push({ file: path, bytes, reading: readPage(bytes, path) })
    else assets.set(path, bytes)
  }
  return { pages, assets }
}

const asText = (path: string, bytes: Uint8Array) => (/\.(css|m?js)$/i.test(path) ? new TextDecoder().decode(bytes) : null)

/** A file given without folder goes where the page looks for its name. */
export function placeByName(
  { file, reading }: Pick<ImportedPage, 'file' | 'reading'>,
  assets: ReadonlyMap<string, Uint8Array>,
): Map<string, Uint8Array> {
  const placed = new Map(assets)
  // Placed styles may load further files.
  for (let round = 0; round < 4; round++) {
    const { missing } = followAssets(reading.assets, (named) => {
      const path = resolvePath(file, named)
      const bytes = path === null ? undefined : placed.get(path)
      return bytes ? { key: path!, text: asText(path!, bytes) } : null
    })
    let moved = false
    for (const named of missing) {
      const path = resolvePath(file, named)
      const base = named.split('/').at(-1)!
      const same = [...placed.keys()].filter((p) => p.split('/').at(-1) === base)
      if (!path || same.length !== 1) continue
      placed.set(path, placed.get(same[0]!)!)
      if (!same[0]!.includes('/') && same[0] !== path) placed.delete(same[0]!)
      moved = true
    }
    if (!moved) break
  }
  return placed
}
