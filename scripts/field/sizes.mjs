/** How much a handover wrote into a page. */
import { minify } from '@swc/core'
import { gzipSync } from 'node:zlib'

/**
 * @returns {Promise<{ lines: number, packed: number, style: number }>} lines of the readable script and style, and the script's size,
 *   minified and gzipped, in bytes
 */
export async function writtenIn(html) {
  const piecesOf = (tag, role) =>
    [...html.matchAll(new RegExp(`<${tag} (?:[^>]* )?data-wb="?${role}\\b[^>]*>([^]*?)</${tag}>`, 'g'))]
      .map(([, text]) => text.trim())
      .join('\n')
  const script = piecesOf('script', 'script')
  const { code } = await minify(script, { compress: true, mangle: true })
  const linesOf = (text) => (text ? text.split('\n').length : 0)
  return { lines: linesOf(script), packed: script ? gzipSync(code).length : 0, style: linesOf(piecesOf('style', 'style')) }
}

/** @param {{ lines: number, packed: number, style: number }[]} all */
export function sizesSaid(all) {
  const of = (name) => {
    const sorted = all.map((one) => one[name]).sort((a, b) => a - b)
    return `${sorted[sorted.length >> 1]} in the middle, ${sorted.at(-1)} at most`
  }
  return `Script: lines ${of('lines')}; bytes packed ${of('packed')}. Style: lines ${of('style')}.`
}
