/** What is wrong with an ID, and what to use instead. */
import { defaultRule, idFromTitle, proposeId, typedName, type NamingRule } from './rule.ts'

export type IdCode =
  | 'id-empty'
  | 'id-character'
  | 'id-space'
  | 'id-hash'
  | 'id-selector'
  | 'id-reserved'
  | 'id-taken'
  | 'id-case'
  | 'id-shadow'
  | 'former-clash'

export interface IdProblem {
  code: IdCode
  /** An error is refused; a warning is the designer's choice. */
  severity: 'error' | 'warning'
  message: string
  /** A valid ID close to the typed one. */
  suggestion: string
}

/** The element that has or gets an ID. */
export interface Owner {
  id: string
  /** As a message starts with it: “The p on line 12”. */
  what: string
}

/** What an ID may clash with. */
export interface IdContext {
  rule: NamingRule
  /** Other elements with this ID, in any case. */
  owners: (lowerCaseId: string) => readonly Owner[]
  /** Title of another section with this former ID; null for none. */
  formerOwner: (id: string) => string | null
  /** Names that page scripts read and nothing declares. */
  undeclared: ReadonlySet<string>
  /** The section's title, for an ID that can't be repaired. */
  title: string
}

/** True when a file keeps the ID unchanged: no control characters or lone surrogates. */
export const isKeepable = (id: string): boolean => !/(?![\t\n\f])[\p{Cc}\p{Cs}]/u.test(id)
const hasSpace = (id: string) => /\s/.test(id)
/** True when `#id` is a valid CSS selector as it is. @see CSS Syntax, identifier tokens */
export const isSelector = (id: string) => /^(?:--|-?[A-Za-z_\u0080-\uffff])[-\w\u0080-\uffff]*$/.test(id)

/** The worst fault of a typed ID; null for none. */
export function checkId(id: string, context: IdContext): IdProblem | null {
  const fault = faultOf(id, context)
  return fault && { ...fault, severity: refused.has(fault.code) ? 'error' : 'warning', suggestion: soundId(id, context) }
}

/** Faults that are refused. */
const refused: ReadonlySet<IdCode> = new Set(['id-empty', 'id-character', 'id-space', 'id-hash', 'id-taken', 'id-reserved'])

type Known = Pick<IdContext, 'owners' | 'formerOwner' | 'undeclared'>

/** The worst fault of an ID, typed or found; the only place that decides it. */
export function faultOf(id: string, { owners, formerOwner, undeclared }: Known): Pick<IdProblem, 'code' | 'message'> | null {
  if (id === '') return { code: 'id-empty', message: 'An ID needs at least one character.' }
  if (!isKeepable(id))
    return {
      code: 'id-character',
      message: `The ID “${id.replace(/[\p{Cc}\p{Cs}]/gu, '\ufffd')}” contains a control character or half a character, which files don’t keep. Type it again.`,
    }
  if (hasSpace(id))
    return {
      code: 'id-space',
      message: `The ID “${id}” contains white space, so styles, labels and descriptions can’t refer to it. Use a hyphen.`,
    }
  if (id.startsWith('#')) return { code: 'id-hash', message: `The ID “${id}” begins with #. Only links need that; remove it.` }
  const others = owners(id.toLowerCase())
  const same = others.find((o) => o.id === id)
  if (same) return { code: 'id-taken', message: `${same.what} already has the ID “${id}”; links go to the first of the two.` }
  if (id.toLowerCase() === 'top')
    return { code: 'id-reserved', message: `Links to “#${id}” go to this element, not to the top of the page.` }
  const near = others[0]
  if (near)
    return {
      code: 'id-case',
      message: `${near.what} has the ID “${near.id}”, which differs from “${id}” only in capitals and is easily confused with it.`,
    }
  const was = formerOwner(id)
  if (was !== null) return { code: 'former-clash', message: `“${was}” had the ID “${id}” before; old links meant for it arrive here.` }
  if (!isSelector(id))
    return {
      code: 'id-selector',
      message: `The ID “${id}” must be escaped in CSS selectors. Begin with a letter; use letters, digits and hyphens.`,
    }
  if (undeclared.has(id))
    return {
      code: 'id-shadow',
      message: `A page script uses the undeclared name “${id}”; an element with this ID replaces it.`,
    }
  return null
}

/** The closest valid ID by the naming rule. */
export function soundId(id: string, context: IdContext): string {
  const { owners, formerOwner, undeclared, title } = context
  const read = new Set([...undeclared].map((x) => x.toLowerCase()))
  const taken = (lower: string) => read.has(lower) || owners(lower).length > 0 || formerOwner(lower) !== null
  const typed = id.trim().replace(/^#+/, '').trim()
  // The rule's prefix or suffix may be there already.
  const name = typedName(typed, context.rule) ?? typed
  const bySelf = idFromTitle(name, context.rule)
  // Suggestions never start with a digit, even if the rule allows it.
  const rule = isSelector(bySelf || 'x') ? context.rule : { ...context.rule, beforeDigit: defaultRule.beforeDigit }
  return proposeId(bySelf ? name : title, taken, rule)
}
