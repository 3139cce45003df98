/** Where a hash goes on a page. @see HTML, "find a potential indicated element"; docs/calculations in section 1 */
import type { El, Tree } from './tree.ts'

export type FragmentTarget = { kind: 'element'; el: El } | { kind: 'top' } | { kind: 'none' }

export class Targets {
  /** First element with each ID. */
  readonly byId = new Map<string, El>()
  readonly byName = new Map<string, El>()

  constructor(tree: Tree) {
    for (const el of tree.all) {
      const id = el.attrs.get('id')
      if (id) {
        // Of duplicates the first counts.
        if (!this.byId.has(id)) this.byId.set(id, el)
      }
      const name = el.tag === 'a' && el.isHtml ? el.attrs.get('name') : undefined
      if (name) {
        const key = tree.quirks ? name.toLowerCase() : name
        if (!this.byName.has(key)) this.byName.set(key, el)
      }
    }
    this.quirks = tree.quirks
  }
  private readonly quirks: boolean

  resolve(fragment: string): FragmentTarget {
    if (fragment === '') return { kind: 'top' }
    const raw = this.find(fragment)
    if (raw) return { kind: 'element', el: raw }
    const decoded = decodeFragment(fragment)
    const el = decoded === fragment ? undefined : this.find(decoded)
    if (el) return { kind: 'element', el }
    return decoded.toLowerCase() === 'top' ? { kind: 'top' } : { kind: 'none' }
  }

  private find(key: string): El | undefined {
    return this.byId.get(key) ?? this.byName.get(this.quirks ? key.toLowerCase() : key)
  }
}

/** Percent-decoding as UTF-8; what does not decode stays. */
export function decodeFragment(fragment: string): string {
  if (!fragment.includes('%')) return fragment
  try {
    return decodeURIComponent(fragment)
  } catch {
    return fragment
  }
}

/** The `href` that leads to `id` on the page itself. Letters of any script stay readable; what a URL would mistake is encoded. */
export const hashOf = (id: string): string =>
  '#' + id.replace(/[\s%"'<>`\\^{|}\u0000-\u001f]/g, (c) => encodeURIComponent(c).replace("'", '%27'))
