/** The naming rule: from a title to an ID, and what makes an ID unsound. */
import anyAscii from 'any-ascii'

export interface NamingRule {
  separator: '-' | '_'
  /** Longest ID in characters; cut at a word. */
  longest: number
  /** What goes before an ID that would begin with a digit. */
  beforeDigit: string
}

export const defaultRule: NamingRule = { separator: '-', longest: 40, beforeDigit: 'section-' }

/** Title to ID: lower case, ASCII, words joined by the separator. Empty where the title has no letter or digit. */
export function idFromTitle(title: string, rule: NamingRule = defaultRule): string {
  const words = anyAscii(title.normalize('NFC'))
    .toLowerCase()
    .replace(/['\u2019]/g, '')
    .split(/[^a-z0-9]+/)
    .filter(Boolean)
  let id = ''
  for (const word of words) {
    const longer = id ? id + rule.separator + word : word
    if (longer.length > rule.longest) {
      if (!id) id = word.slice(0, rule.longest)
      break
    }
    id = longer
  }
  return /^[0-9]/.test(id) ? rule.beforeDigit + id : id
}

/** A free ID for a title; `taken` is asked in lower case, since IDs that differ only in case are mistaken for each other. */
export function proposeId(title: string, taken: (lowerCaseId: string) => boolean, rule: NamingRule = defaultRule): string {
  const base = idFromTitle(title, rule) || 'section'
  const free = (id: string) => id !== 'top' && !taken(id.toLowerCase())
  if (free(base)) return base
  for (let n = 2; ; n++) {
    const id = `${base}${rule.separator}${n}`
    if (free(id)) return id
  }
}

export type IdProblem = { code: 'id-empty' | 'id-space' | 'id-hash' | 'id-selector' | 'id-reserved' | 'id-taken' | 'id-case'; message: string }

export const hasSpace = (id: string) => /[\s]/.test(id)
/** True where `#id` is a CSS selector as it stands. @see CSS Syntax, identifier tokens */
export const isSelector = (id: string) => /^(?:--|-?[A-Za-z_\u0080-\uffff])[-\w\u0080-\uffff]*$/.test(id)

/** What is wrong with an ID as it is typed, or null. `others` are the IDs that other elements of the page carry. */
export function checkId(id: string, others: ReadonlySet<string>): IdProblem | null {
  if (id === '') return { code: 'id-empty', message: 'An ID needs at least one character.' }
  if (hasSpace(id)) return { code: 'id-space', message: 'An ID cannot hold a space; use a hyphen.' }
  if (id.startsWith('#')) return { code: 'id-hash', message: 'The # belongs to links, not to the ID; leave it out.' }
  if (!isSelector(id)) return { code: 'id-selector', message: 'CSS needs this ID escaped; begin with a letter and use letters, digits, hyphens.' }
  if (id.toLowerCase() === 'top') return { code: 'id-reserved', message: 'The ID “top” takes the link to the top of the page; choose another.' }
  if (others.has(id)) return { code: 'id-taken', message: `Another element of the page has the ID “${id}”; choose another.` }
  for (const other of others)
    if (other.toLowerCase() === id.toLowerCase()) return { code: 'id-case', message: `“${other}” differs from this only in case; choose another.` }
  return null
}
