/** A page's own files on disk: which of those that it names are there, and what they name in turn. */
import { followAssets, type PageReading } from '@waybell/core'
import { existsSync, readFileSync, statSync } from 'node:fs'
import { dirname, join, relative, resolve, sep } from 'node:path'

export interface LocalFile {
  /** Relative to the page's folder, with `/`. */
  path: string
  /** On disk. */
  file: string
}

export interface LocalFiles {
  found: LocalFile[]
  /** Paths as the page names them. */
  missing: Set<string>
}

const isFile = (file: string) => existsSync(file) && statSync(file).isFile()

/** A path from the site's root is looked for in the page's folder, and then in those above it. */
function find(folder: string, path: string): string | null {
  if (!path.startsWith('/')) {
    const file = resolve(folder, path)
    return isFile(file) ? file : null
  }
  for (let dir = folder, n = 0; n < 6; dir = dirname(dir), n++) {
    const file = join(dir, path)
    if (isFile(file)) return file
  }
  return null
}

export function localFiles(pageFile: string, reading: PageReading): LocalFiles {
  const folder = dirname(resolve(pageFile))
  const { found, missing } = followAssets(reading.assets, (path) => {
    const file = find(folder, path)
    return file === null ? null : { key: file, text: /\.(css|m?js)$/i.test(file) ? readFileSync(file, 'utf8') : null }
  })
  return { found: [...found].map((file) => ({ path: relative(folder, file).split(sep).join('/'), file })), missing }
}
