/** Where a hash goes on a page. @see HTML, "find a potential indicated element"; docs/calculations.md, section 1 */

export type Indicated<T> = { kind: 'element'; element: T } | { kind: 'top' } | { kind: 'none' }

/**
 * Resolves a fragment in the browser's order.
 * @param fragment without `#`
 * @param find the first element with an ID, else the first `a` with that name
 */
export function indicated<T>(fragment: string, find: (name: string) => T | null | undefined): Indicated<T> {
  if (fragment === '') return { kind: 'top' }
  const decoded = decodeFragment(fragment)
  const element = find(fragment) ?? (decoded === fragment ? null : find(decoded))
  if (element) return { kind: 'element', element }
  return { kind: decoded.toLowerCase() === 'top' ? 'top' : 'none' }
}

/** Percent-decodes as UTF-8; leaves what doesn't decode. */
export function decodeFragment(fragment: string): string {
  try {
    return decodeURIComponent(fragment)
  } catch {
    return fragment
  }
}

/** The text after the first `#` of an address; empty without one. */
export const fragmentOf = (address: string): string => address.replace(/^[^#]*#?/, '')

/** The `href` to `id` on the same page. Letters of any script stay readable; only characters that URLs reserve are encoded. */
export const hashOf = (id: string): string =>
  '#' + id.replace(/[\s%"'<>`\\^{|}\u0000-\u001f]/g, (c) => encodeURIComponent(c).replace("'", '%27'))

/** True when a `target` opens another tab or frame. @see HTML Standard, "choosing a navigable" */
export const isElsewhere = (target: string | null | undefined): boolean =>
  typeof target === 'string' && !/^(|_self|_parent|_top)$/i.test(target)
