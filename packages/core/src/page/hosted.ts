/** IDs in a handed-over page that are ours: for points and former IDs. */
import type { PageReading } from './read.ts'
import type { ElementAt } from './tree.ts'

/** Elements that an earlier handover gave an ID; an ID changed by hand belongs to the page. */
export function hostedIds({ written, candidates, ids }: PageReading): ReadonlyMap<string, ElementAt> {
  const { settings } = written
  if (!settings) return new Map()
  const headings = new Map(candidates.map((c) => [c.id, c.heading]))
  const now = new Map(settings.former.map((f) => [f.was, f.now]))
  const points = new Set(settings.points.flatMap((p) => (p.anchor === undefined ? p.id : [])))
  const isOurs = ({ id, at }: { id: string; at: ElementAt }) => points.has(id) || (now.has(id) && headings.get(now.get(id)!) === at)
  return new Map(ids.flatMap((i) => (isOurs(i) ? [[i.id, i.at] as const] : [])))
}
