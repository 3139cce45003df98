/** The naming rule: from a title to an ID. */
import anyAscii from 'any-ascii'
import { leadingWords } from './words.ts'

export interface NamingRule {
  letters: 'lower' | 'as-typed'
  /** Between words; empty for camelCase. */
  separator: '-' | '_' | ''
  /** Prefix and suffix of every ID, joined by the separator. */
  prefix: string
  suffix: string
  /** Another system adds prefix and suffix to what is typed there; both forms are shown. */
  wraps: boolean
  /** Max characters, all in all; cut at a word. */
  longest: number
  /** Latin letters with accents: folded to plain ones, or kept. */
  accents: 'folded' | 'kept'
  /** Letters of other scripts: transliterated to Latin, or kept. */
  scripts: 'transliterated' | 'kept'
  /** Put before an ID that would start with a digit. */
  beforeDigit: string
  /** Words to leave out, in lower case. */
  dropped: string[]
}

export const defaultRule: NamingRule = {
  letters: 'lower',
  separator: '-',
  prefix: '',
  suffix: '',
  wraps: false,
  longest: 40,
  accents: 'folded',
  scripts: 'transliterated',
  beforeDigit: 'section-',
  dropped: [],
}

const isWord = (char: string) => /[\p{L}\p{N}\p{M}]/u.test(char)

function spell(char: string, rule: NamingRule): string {
  if (/[\x00-\x7f]/.test(char)) return char
  if (!isWord(char)) return ' '
  const keep = /[\p{Script=Latin}\p{Script=Inherited}]/u.test(char) ? rule.accents === 'kept' : rule.scripts === 'kept'
  return keep ? char : anyAscii(char)
}

/** A title's words spelled by the rule, without dropped ones unless nothing else remains. */
function wordsOf(title: string, rule: NamingRule): string[] {
  // Normalised, so that decomposed letters give the same ID.
  const spelled = [...title.normalize('NFC').replace(/['\u2019\u02bc]/gu, '')].map((c) => spell(c, rule)).join('')
  const all = spelled.split(/[^\p{L}\p{N}\p{M}]+/u).filter(Boolean)
  const kept = all.filter((w) => !rule.dropped.includes(w.toLowerCase()))
  return (kept.length ? kept : all).map((w) => (rule.letters === 'lower' ? w.toLowerCase() : w))
}

const capital = (word: string) => word.charAt(0).toUpperCase() + word.slice(1)

/** Joins a name with prefix or suffix. */
function join(a: string, b: string, separator: string): string {
  if (!a || !b) return a + b
  return /[-_.:]$/.test(a) || /^[-_.:]/.test(b) ? a + b : a + separator + b
}

/** The page's ID for a name typed into the other system. */
export const wrapName = (name: string, rule: NamingRule): string =>
  join(join(rule.prefix, name, rule.separator), rule.suffix, rule.separator)

/** The name to type into the other system for a page's ID; null without the rule's prefix or suffix. */
export function typedName(id: string, rule: NamingRule): string | null {
  const mark = '\u0000'
  const [before = '', after = ''] = wrapName(mark, rule).split(mark)
  const fits = id.length > before.length + after.length && id.startsWith(before) && id.endsWith(after)
  return fits ? id.slice(before.length, id.length - after.length) : null
}

const graphemes = new Intl.Segmenter(undefined, { granularity: 'grapheme' })

/** Length in code points, as the rule counts it. */
const sizeOf = (text: string): number => [...text].length

/** The start of `text`, at most `room` characters but at least one letter; keeps letters with their marks. */
function cut(text: string, room: number): string {
  let out = ''
  for (const { segment } of graphemes.segment(text)) {
    if (out && sizeOf(out + segment) > room) break
    out += segment
  }
  return out
}

/** The page's ID for a name, with the prefix for digits. */
function whole(name: string, rule: NamingRule): string {
  const id = wrapName(name, rule)
  return /^[0-9]/.test(id) ? rule.beforeDigit + id : id
}

/** Max words of a proposed ID. */
const MOST_WORDS = 4

/** An ID from a title: the words that carry it, within the rule's length. Empty if it has no letter or digit. */
export function idFromTitle(title: string, rule: NamingRule = defaultRule): string {
  // A leading number that just counts headings is dropped.
  const named = title.replace(/^\s*(?:0\d|\d{1,2}[.):])\s*(?=\p{L})/u, '')
  const words = leadingWords(wordsOf(named, rule), (some) => some.length <= MOST_WORDS)
  if (!words[0]) return ''
  const fits = (name: string) => sizeOf(whole(name, rule)) <= rule.longest
  let name = fits(words[0]) ? words[0] : cut(words[0], rule.longest - (sizeOf(whole(words[0], rule)) - sizeOf(words[0])))
  for (const word of words.slice(1)) {
    const longer = rule.separator ? name + rule.separator + word : name + capital(word)
    if (!fits(longer)) break
    name = longer
  }
  return whole(name, rule)
}

/** A free ID for a title; `taken` gets lower case, because IDs that differ only in case are easily confused. */
export function proposeId(title: string, taken: (lowerCaseId: string) => boolean, rule: NamingRule = defaultRule): string {
  return freeId(idFromTitle(title, rule) || wrapName('section', rule), taken, rule)
}

/** `base`, or with the first number that makes it free; shortened if too long. */
export function freeId(base: string, taken: (lowerCaseId: string) => boolean, rule: NamingRule): string {
  const free = (id: string) => id.toLowerCase() !== 'top' && !taken(id.toLowerCase())
  if (free(base)) return base
  const name = typedName(base, rule)
  const put = (numbered: string) => (name === null ? numbered : wrapName(numbered, rule))
  for (let n = 2; ; n++) {
    const end = `${rule.separator}${n}`
    const over = Math.max(0, sizeOf(put((name ?? base) + end)) - rule.longest)
    const short = over ? cut(name ?? base, sizeOf(name ?? base) - over).replace(/[-_]+$/, '') : (name ?? base)
    const id = put(short + end)
    if (free(id)) return id
  }
}
