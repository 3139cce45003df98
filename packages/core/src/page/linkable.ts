/** Where a made link goes in the source. */
import { decodeHTML } from 'entities'
import { NO_WORDS, whyNoLink, wordsIn, type Walk } from '../contract/index.ts'
import type { ParsedPage } from './read.ts'
import type { El, ElementAt } from './tree.ts'

const walk: Walk<El> = {
  tag: (el) => el.tag,
  parent: (el) => el.parent,
  children: (el) => el.children,
  attribute: (el, name) => el.attrs.get(name) ?? null,
}

export interface Range {
  start: number
  end: number
}

const meets = (range: Range, taken: readonly Range[]) => taken.some((t) => range.start < t.end && t.start < range.end)

/**
 * Range between a made link's tags, in the decoded text; null if impossible or the words aren't found.
 * @param taken ranges of other made links
 */
export function linkRange(page: ParsedPage, at: ElementAt, words: string, taken: readonly Range[] = []): Range | null {
  const el = page.byAt.get(at)
  if (!el) return null
  if (words !== '') return insideOf(el) ? wordsRange(page.decoded.text, el, new RegExp(wordsIn(words), 'g'), taken) : null
  // Nothing can wrap an element without an end, or one that the parser moved.
  const stands = el.end > el.at && (!el.parent || el.parent.at < 0 || (el.parent.at < el.at && el.end <= el.parent.end))
  const range = { start: el.at, end: el.end }
  return stands && whyNoLink(el, walk) === null && !meets(range, taken) ? range : null
}

/** True when its words may be a link: no link around it. */
const insideOf = (el: El): boolean => {
  for (let e: El | null = el; e; e = e.parent) if (NO_WORDS.has(e.tag)) return false
  return true
}

function wordsRange(source: string, el: El, sought: RegExp, taken: readonly Range[]): Range | null {
  // Text before a child, the child, and the text after it, in document order.
  for (let n = 0; n <= el.children.length; n++) {
    for (const text of el.texts.filter((t) => t.before === n && t.at >= 0)) {
      for (const found of text.value.matchAll(sought)) {
        const raw = rawRange(source.slice(text.at, text.end), text.value, found.index, found.index + found[0].length)
        const range = raw && { start: text.at + raw.start, end: text.at + raw.end }
        if (range && !meets(range, taken)) return range
      }
    }
    const child = el.children[n]
    const inner = child && !NO_WORDS.has(child.tag) ? wordsRange(source, child, sought, taken) : null
    if (inner) return inner
  }
  return null
}

/** Source range of decoded text with character references; null if they don't match. */
function rawRange(raw: string, value: string, from: number, to: number): Range | null {
  let start = -1
  let end = -1
  let length = 0
  let at = 0
  for (const [token] of raw.matchAll(/&(?:#\d+|#x[\da-f]+|[a-z][a-z\d]*);?|\r\n?|[\s\S]/gi)) {
    if (length === from) start = at
    at += token.length
    length += token.startsWith('\r') ? 1 : token.startsWith('&') ? decodeHTML(token).length : 1
    if (length === to) end = at
  }
  return length === value.length && start >= 0 && end >= start ? { start, end } : null
}

/** True when an element, or words in it, can be made a link. */
export function canBeLink(page: ParsedPage, at: ElementAt, of: 'element' | 'words' | 'button', label: string): boolean {
  const el = page.byAt.get(at)
  if (!el || (of === 'button') !== (el.tag === 'button')) return false
  return linkRange(page, at, of === 'words' ? label : '') !== null && (of !== 'button' || el.closeAt >= 0)
}
