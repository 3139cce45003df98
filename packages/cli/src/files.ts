/** A page's local files: which exist, and what they load. */
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
  /** Paths as the page writes them. */
  missing: Set<string>
}

const isFile = (file: string) => existsSync(file) && statSync(file).isFile()

/** A root-relative path is looked up in the page's folder, then in its parents. */
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
