/** docs/bench.md, of which each part is written by what measured it and the others stay. */
import { existsSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { root } from './ensure.mjs'

const file = join(root, 'docs/bench.md')

/** @param {string} heading of the part, whole @param {string} text below it */
export function keepFigures(heading, text) {
  const parts = (existsSync(file) ? readFileSync(file, 'utf8') : '').split(/\n(?=## )/)
  const part = `${heading}\n\n${text.trim()}\n`
  const at = parts.findIndex((p) => p.startsWith(`${heading}\n`))
  if (at < 0) parts.push(part)
  else parts[at] = part
  writeFileSync(
    file,
    parts
      .map((p) => p.trim())
      .filter(Boolean)
      .join('\n\n') + '\n',
  )
}
