/** What makes an ID unsound, why, and what would be sound instead. */
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

/** True where a file gives the ID back as it was written: control characters and lone surrogates become others. */
export const isKeepable = (id: string): boolean => !/(?![\t\n\f])[\p{Cc}\p{Cs}]/u.test(id)
const hasSpace = (id: string) => /\s/.test(id)
/** True where `#id` is a CSS selector as it stands. @see CSS Syntax, identifier tokens */
export const isSelector = (id: string) => /^(?:--|-?[A-Za-z_\u0080-\uffff])[-\w\u0080-\uffff]*$/.test(id)

/** What is wrong with an ID as it is typed, worst first, or null. */
export function checkId(id: string, context: IdContext): IdProblem | null {
  const fault = faultOf(id, context)
  return fault && { ...fault, severity: refused.has(fault.code) ? 'error' : 'warning', suggestion: soundId(id, context) }
}

/** Those that cannot stand where they are typed. */
const refused: ReadonlySet<IdCode> = new Set(['id-empty', 'id-character', 'id-space', 'id-hash', 'id-taken', 'id-reserved'])

type Known = Pick<IdContext, 'owners' | 'formerOwner' | 'undeclared'>

/** The one place where it stands what makes an ID unsound, whether it is typed or was found in a page. The worst comes first. */
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

/** The nearest ID by the naming rule with nothing wrong about it. */
export function soundId(id: string, context: IdContext): string {
  const { owners, formerOwner, undeclared, title } = context
  const read = new Set([...undeclared].map((x) => x.toLowerCase()))
  const taken = (lower: string) => read.has(lower) || owners(lower).length > 0 || formerOwner(lower) !== null
  const typed = id.trim().replace(/^#+/, '').trim()
  // What the rule puts around a name may be there already.
  const name = typedName(typed, context.rule) ?? typed
  const bySelf = idFromTitle(name, context.rule)
  // A rule may let an ID begin with a digit; what is suggested does not.
  const rule = isSelector(bySelf || 'x') ? context.rule : { ...context.rule, beforeDigit: defaultRule.beforeDigit }
  return proposeId(bySelf ? name : title, taken, rule)
}
