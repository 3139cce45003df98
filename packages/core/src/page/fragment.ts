/** Elements that hashes may mean. */
import { indicated, type Indicated } from '../contract/index.ts'
import type { El, Tree } from './tree.ts'

export class Targets {
  /** First element with each ID. */
  readonly byId = new Map<string, El>()
  readonly byName = new Map<string, El>()
  private readonly quirks: boolean

  constructor(tree: Tree) {
    this.quirks = tree.quirks
    for (const el of tree.all) {
      const id = el.attrs.get('id')
      // Of duplicates the first counts.
      if (id && !this.byId.has(id)) this.byId.set(id, el)
      const name = el.tag === 'a' && el.isHtml ? el.attrs.get('name') : undefined
      const key = name && this.nameKey(name)
      if (key && !this.byName.has(key)) this.byName.set(key, el)
    }
  }

  resolve(fragment: string): Indicated<El> {
    return indicated(fragment, (name) => this.byId.get(name) ?? this.byName.get(this.nameKey(name)))
  }

  private nameKey(name: string): string {
    return this.quirks ? name.toLowerCase() : name
  }
}
