/** Titles of parts. */
import { inlineTags, textOf, type El } from '../tree.ts'
import { isEmpty, skipped } from './kinds.ts'

const LONGEST_TITLE = 120

/** Cut to a title's length, at a word. */
const wholeWords = (text: string): string => (text.length > LONGEST_TITLE ? text.slice(0, LONGEST_TITLE).replace(/\s+\S*$/, '') : text)

/** A heading's text; elements that are styled apart, such as numbers and lines, count as separate words. */
function wordsOf(heading: El): string {
  const pieces = heading.children.map((c) => textOf(c, LONGEST_TITLE + 1))
  const isApart =
    pieces.length > 1 && heading.texts.every((t) => t.value.trim() === '') && heading.children.every((c) => inlineTags.has(c.tag))
  // Single letters are one word's.
  return isApart && pieces.every((p) => p.length > 1) ? pieces.join(' ').slice(0, LONGEST_TITLE + 1) : textOf(heading, LONGEST_TITLE + 1)
}

/** The heading inside, else `aria-label`, else the first words, else the ID's words, else the kind of element. */
export function titleOf(el: El, heading: El | null): string {
  const label = el.attrs.get('aria-label')?.trim()
  // A permalink icon at a heading's end isn't part of the title.
  const text =
    (heading && wholeWords(wordsOf(heading)).replace(/\s*[\u00b6\u00a7#\u{1f517}]$/u, '')) ||
    label ||
    firstWords(el) ||
    (isEmpty(el) ? wordsBehind(el) : '')
  return text || wordsOfId(el) || el.tag
}

const saysSomething = (text: string): boolean => /\p{L}/u.test(text)

/** Max depth of nested blocks searched. */
const DEEPEST = 30

/** Of its first block with text only. */
function firstWords(el: El): string {
  let block = el
  for (let n = 0; n < DEEPEST && !block.texts.some((t) => saysSomething(t.value)); n++) {
    const inner = block.children.find((c) => c.isHtml && !skipped.has(c.tag) && !inlineTags.has(c.tag) && saysSomething(textOf(c, 80)))
    if (!inner) break
    block = inner
  }
  const all = textOf(block, 80)
  return saysSomething(all) ? all.split(' ').slice(0, 5).join(' ') : ''
}

const wordsOfId = (el: El): string => {
  const words = (el.attrs.get('id') ?? '').replace(/[-_]+/g, ' ').trim()
  return words.charAt(0).toUpperCase() + words.slice(1)
}

/** For an empty element, the first words after it. */
function wordsBehind(el: El): string {
  for (let e = el; e.parent && !e.parent.attrs.has('id'); e = e.parent) {
    const place = e.parent.children.indexOf(e)
    for (let n = place + 1; n <= e.parent.children.length; n++) {
      const own = e.parent.texts.filter((t) => t.before === n).map((t) => t.value.trim())
      const next = e.parent.children[n]
      const words = own.find(Boolean) ?? (next && !skipped.has(next.tag) ? textOf(next, 80) : '')
      if (words) return words.split(/\s+/).slice(0, 5).join(' ')
    }
    if (e.parent.tag === 'body') break
  }
  return ''
}
