/** Elements that hashes may mean. */
import { indicated, type Indicated } from '../contract/index.ts'
import type { El, Tree } from './tree.ts'
import type { Written } from './written.ts'

export class Targets {
  /** First element with each ID. */
  readonly byId = new Map<string, El>()
  readonly byName = new Map<string, El>()
  private readonly quirks: boolean

  /** @param placed targets in the head, which an earlier handover placed at these elements */
  constructor(
    tree: Tree,
    private readonly placed: ReadonlyMap<string, El> = new Map(),
  ) {
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
    return indicated(fragment, (name) => this.byId.get(name) ?? this.byName.get(this.nameKey(name)) ?? this.placed.get(name))
  }

  private nameKey(name: string): string {
    return this.quirks ? name.toLowerCase() : name
  }
}

/** Targets in the head for points and former IDs, each with the element that it's placed at. */
export function placedTargets({ all, written: pieces }: Tree, { settings, anchors }: Written): Map<string, El> {
  const ids = pieces.flatMap(({ role, node }) => (role === 'anchor' ? (node.attrs.find((a) => a.name === 'id')?.value ?? []) : []))
  if (!ids.length || !settings) return new Map()
  const byAt = new Map(all.map((el) => [el.at, el]))
  const byId = new Map(all.toReversed().map((el) => [el.attrs.get('id'), el]))
  const now = new Map(settings.former.map((f) => [f.was, f.now]))
  const numbers = new Map(settings.points.map((p) => [p.id, p.anchor]))
  return new Map(
    ids.flatMap((id) => {
      const section = now.get(id) ?? id
      const el = byId.get(section) ?? byAt.get(anchors[numbers.get(section) ?? 0] ?? -1)
      return el ? [[id, el] as const] : []
    }),
  )
}
