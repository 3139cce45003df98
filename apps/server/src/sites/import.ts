/** From files that were handed in to a page and what belongs to it. */
import { followAssets, PageError, readPage, type PageReading } from '@waybell/core'
import { cleanPath } from './content.ts'

export interface HandedIn {
  /** As the browser names it; may hold folders. */
  name: string
  bytes: Uint8Array
}

export interface Import {
  file: string
  page: Uint8Array
  reading: PageReading
  /** Assets by path from the site's root. */
  assets: Map<string, Uint8Array>
}

const isHtml = (name: string) => /\.x?html?$/i.test(name)

/** The page is `index.html` where there is one, else the HTML file nearest the top. @throws PageError */
export function readImport(files: readonly HandedIn[]): Import {
  const clean = files.flatMap((f) => {
    const path = cleanPath(f.name)
    return path === null ? [] : [{ path, bytes: f.bytes }]
  })
  const depth = (path: string) => path.split('/').length
  const pages = clean.filter((f) => isHtml(f.path)).sort((a, b) => depth(a.path) - depth(b.path) || Number(/index\.x?html?$/i.test(b.path)) - Number(/index\.x?html?$/i.test(a.path)))
  // A page without its ending is still a page, if it is all there is.
  const page = pages[0] ?? (clean.length === 1 ? clean[0] : undefined)
  if (!page) throw new PageError('page-not-html', 'there is no HTML file among the files; choose the page itself, with its styles and pictures beside it')
  const folder = page.path.split('/').slice(0, -1).join('/')
  const file = page.path.split('/').at(-1)!
  const reading = readPage(page.bytes, file)
  const assets = new Map<string, Uint8Array>()
  for (const f of clean) {
    if (f === page) continue
    assets.set(folder && f.path.startsWith(folder + '/') ? f.path.slice(folder.length + 1) : f.path, f.bytes)
  }
  return { file, page: page.bytes, reading, assets: placeByName(reading, assets) }
}

const asText = (path: string, bytes: Uint8Array) => (/\.(css|m?js)$/i.test(path) ? new TextDecoder().decode(bytes) : null)

/** A file that came without its folder goes where the page looks for a file of that name. */
export function placeByName(reading: PageReading, assets: ReadonlyMap<string, Uint8Array>): Map<string, Uint8Array> {
  const placed = new Map(assets)
  // Styles that were placed may name further files.
  for (let round = 0; round < 4; round++) {
    const { missing } = followAssets(reading.assets, (named) => {
      const path = named.replace(/^\/+/, '')
      const bytes = placed.get(path)
      return bytes ? { key: path, text: asText(path, bytes) } : null
    })
    let moved = false
    for (const named of missing) {
      const path = cleanPath(named)
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
