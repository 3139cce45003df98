/** What makes an ID unsound, why, and what would be sound instead. */
import { freeId, proposeId, wrapName, type NamingRule } from './rule.ts'

export type IdCode =
  'id-empty' | 'id-space' | 'id-hash' | 'id-selector' | 'id-reserved' | 'id-taken' | 'id-case' | 'id-shadow' | 'former-clash'

export interface IdProblem {
  code: IdCode
  /** An error cannot stand; a warning can, if the designer wants it so. */
  severity: 'error' | 'warning'
  message: string
  /** A sound ID near the one that was typed. */
  suggestion: string
}

/** Who carries an ID, or is to carry it. */
export interface Owner {
  id: string
  /** As a message begins with it: “The p on line 12”. */
  what: string
}

/** What an ID must keep apart from. */
export interface IdContext {
  rule: NamingRule
  /** Others of the page with this ID, in whatever case. */
  owners: (lowerCaseId: string) => readonly Owner[]
  /** Title of another section that had this ID before; null without one. */
  formerOwner: (id: string) => string | null
  /** Names that scripts of the page read and nothing declares. */
  undeclared: ReadonlySet<string>
  /** Title of the section, for an ID that leaves nothing to mend. */
  title: string
}

export const hasSpace = (id: string) => /\s/.test(id)
/** True where `#id` is a CSS selector as it stands. @see CSS Syntax, identifier tokens */
export const isSelector = (id: string) => /^(?:--|-?[A-Za-z_\u0080-\uffff])[-\w\u0080-\uffff]*$/.test(id)

/** What is wrong with an ID as it is typed, worst first, or null. */
export function checkId(id: string, context: IdContext): IdProblem | null {
  const problem = problemOf(id, context)
  return problem && { ...problem, suggestion: soundId(id, context) }
}

function problemOf(id: string, { owners, formerOwner, undeclared }: IdContext): Omit<IdProblem, 'suggestion'> | null {
  if (id === '') return { code: 'id-empty', severity: 'error', message: 'An ID needs at least one character.' }
  if (hasSpace(id))
    return {
      code: 'id-space',
      severity: 'error',
      message: 'An ID cannot hold white space; no style, and no label or description, could name it.',
    }
  if (id.startsWith('#')) return { code: 'id-hash', severity: 'error', message: 'The # belongs to links, not to the ID.' }
  const others = owners(id.toLowerCase())
  const same = others.find((o) => o.id === id)
  if (same)
    return { code: 'id-taken', severity: 'error', message: `${same.what} has the ID “${id}” already; links go to the first of the two.` }
  if (id.toLowerCase() === 'top')
    return { code: 'id-reserved', severity: 'error', message: 'A link to “#top” goes to the top of the page; this ID would take it away.' }
  const near = others[0]
  if (near)
    return { code: 'id-case', severity: 'warning', message: `${near.what} has the ID “${near.id}”, which differs from this only in case.` }
  const was = formerOwner(id)
  if (was !== null)
    return {
      code: 'former-clash',
      severity: 'warning',
      message: `“${was}” had this ID before; links out in the world that mean it would come here.`,
    }
  if (!isSelector(id))
    return {
      code: 'id-selector',
      severity: 'warning',
      message: 'Styles and scripts have to escape this ID; begin with a letter and use letters, digits, hyphens.',
    }
  if (undeclared.has(id))
    return {
      code: 'id-shadow',
      severity: 'warning',
      message: `A script of the page reads the name “${id}” without declaring it; an element with this ID would take its place.`,
    }
  return null
}

/** The nearest ID with nothing wrong about it. */
export function soundId(id: string, context: IdContext): string {
  const { rule, owners, formerOwner, undeclared, title } = context
  const glue = rule.separator || '-'
  const read = new Set([...undeclared].map((x) => x.toLowerCase()))
  const taken = (lower: string) => read.has(lower) || owners(lower).length > 0 || formerOwner(lower) !== null
  const mended = id
    .trim()
    .replace(/^#+/, '')
    .trim()
    .replace(/[^\w\u0080-\uffff-]+/g, glue)
    .replace(/\s/g, glue)
    .replace(/^[-_]+(?=\d)|[-_]+$/g, '')
  if (!/[\p{L}\p{N}]/u.test(mended)) return proposeId(title, taken, rule)
  let base = /^\d/.test(mended) ? rule.beforeDigit + mended : mended
  if (!isSelector(base)) base = 'section' + glue + base
  if (base.toLowerCase() === 'top') base = wrapName(`${base}${glue}section`, { ...rule, prefix: '', suffix: '' })
  return freeId(base, taken, rule)
}
