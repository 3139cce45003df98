/** Where a hash goes on a page. @see HTML, "find a potential indicated element"; docs/calculations.md, section 1 */

export type Indicated<T> = { kind: 'element'; element: T } | { kind: 'top' } | { kind: 'none' }

/**
 * What a fragment indicates, asked in the browser's order.
 * @param fragment without its `#`
 * @param find the first element with an ID; without one the first `a` with that name
 */
export function indicated<T>(fragment: string, find: (name: string) => T | null | undefined): Indicated<T> {
  if (fragment === '') return { kind: 'top' }
  const decoded = decodeFragment(fragment)
  const element = find(fragment) ?? (decoded === fragment ? null : find(decoded))
  if (element) return { kind: 'element', element }
  return { kind: decoded.toLowerCase() === 'top' ? 'top' : 'none' }
}

/** Percent-decoding as UTF-8; what does not decode stays. */
export function decodeFragment(fragment: string): string {
  try {
    return decodeURIComponent(fragment)
  } catch {
    return fragment
  }
}

/** What stands behind the first `#` of an address, or nothing. */
export const fragmentOf = (address: string): string => address.replace(/^[^#]*#?/, '')

/** The `href` that leads to `id` on the page itself. Letters of any script stay readable; what a URL would mistake is encoded. */
export const hashOf = (id: string): string =>
  '#' + id.replace(/[\s%"'<>`\\^{|}\u0000-\u001f]/g, (c) => encodeURIComponent(c).replace("'", '%27'))

/** True where a link with that `target` is followed in another tab or frame. @see HTML Standard, "choosing a navigable" */
export const isElsewhere = (target: string | null | undefined): boolean =>
  typeof target === 'string' && !/^(|_self|_parent|_top)$/i.test(target)
