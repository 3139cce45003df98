/** References by ID other than links: attributes, styles and scripts. */
import { selectorIds } from './css.ts'
import type { El, Tree } from './tree.ts'

/** Attributes with one or several IDs. @see HTML, ARIA */
const idAttributes = [
  'for',
  'headers',
  'list',
  'form',
  'itemref',
  'popovertarget',
  'commandfor',
  'anchor',
  'aria-labelledby',
  'aria-describedby',
  'aria-controls',
  'aria-owns',
  'aria-details',
  'aria-flowto',
  'aria-activedescendant',
  'aria-errormessage',
]

export interface Reference {
  /** Position of the element's start tag. */
  at: number
  name: string
  value: string
}

/** A value such as `#about`, which scripts use as a selector. */
const isHashValue = (name: string, value: string) =>
  (name.startsWith('data-') || name === 'usemap') && /^#\S+$/.test(value) && !name.startsWith('data-wb')

const namesOf = (el: El): string[] =>
  [...el.attrs].flatMap(([name, value]) => (idAttributes.includes(name) || isHashValue(name, value) ? name : []))

export const hasReference = (el: El): boolean => namesOf(el).length > 0

/** Attributes that refer to elements. */
export function findReferences(tree: Tree, ids: ReadonlySet<string>): Reference[] {
  return tree.all.flatMap((el) =>
    el.at < 0
      ? []
      : namesOf(el).flatMap((name): Reference[] => {
          const value = el.attrs.get(name)!
          return value.split(/\s+/).some((v) => ids.has(v.replace(/^#/, ''))) ? [{ at: el.at, name, value }] : []
        }),
  )
}

/** The value with replaced IDs; null if it has none. */
export function renamedReference({ value }: Reference, renames: ReadonlyMap<string, string>): string | null {
  const next = value.replace(/[^\s#]+/g, (id) => renames.get(id) ?? id)
  return next === value ? null : next
}

export interface NamedIds {
  styles: string[]
  scripts: string[]
}

/** Text of inline styles. */
export const inlineStyles = (tree: Tree): string[] =>
  tree.all.filter((el) => el.tag === 'style' && el.isHtml).map((el) => el.texts.map((t) => t.value).join(''))

/** The IDs that selectors or script strings mention. */
export function namedIds(ids: Iterable<string>, styles: readonly string[], scripts: readonly string[]): NamedIds {
  const inStyles = new Set<string>()
  for (const css of styles) for (const id of selectorIds(css)) inStyles.add(id)
  const inScripts = new Set<string>()
  for (const text of scripts) for (const [, , name] of text.matchAll(/(["'`])#?([\w\u0080-\uffff:.-]+)\1/g)) inScripts.add(name!)
  const known = [...ids]
  return { styles: known.filter((id) => inStyles.has(id)), scripts: known.filter((id) => inScripts.has(id)) }
}
