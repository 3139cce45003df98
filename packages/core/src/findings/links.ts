/** What the rules about links without a target have in common. */
import { decodeFragment } from '../contract/index.ts'
import type { PageReading } from '../page/index.ts'
import type { PageFacts, SiteFacts } from './facts.ts'
import type { Draft } from './finding.ts'

const lowerCaseIds = (reading: PageReading): Map<string, string> => {
  const out = new Map<string, string>()
  for (const { id } of reading.ids) if (!out.has(id.toLowerCase())) out.set(id.toLowerCase(), id)
  return out
}

/** Links that find nothing, with the ID that differs from what they ask for in case only, if there is one. */
export function brokenLinks({ reading }: PageFacts): { wanted: string; near: string | null; place: Omit<Draft, 'message'> }[] {
  const ids = lowerCaseIds(reading)
  return reading.links.flatMap(({ status, fragment, line, column, at }) => {
    if (status !== 'broken' || fragment === null) return []
    const wanted = decodeFragment(fragment)
    const near = ids.get(wanted.toLowerCase())
    return { wanted, near: near && near !== wanted ? near : null, place: { line, column, where: { at }, fix: null } }
  })
}

/** Settled where an item gives it a target, or a section the ID that it asks for. */
export function untilLinked(draft: Draft, { page, items, links }: SiteFacts): Draft | null {
  const at = draft.where.at!
  const used = items.get(at)
  if (used && used.item.target.kind !== 'as-is') return null
  const wanted = decodeFragment(links.get(at)?.fragment ?? '')
  if (page.sections.some((s) => s.id === wanted || s.former.includes(wanted))) return null
  if (!used) return draft
  const where = { at, item: { menu: used.menu.key, item: used.item.key } }
  const meant = page.sections.find((s) => s.id.toLowerCase() === wanted.toLowerCase())
  if (!meant) return { ...draft, where }
  const command = { type: 'item/target', page: page.key, ...where.item, target: { kind: 'section', section: meant.key } } as const
  return { ...draft, where, fix: { label: `Link to “${meant.title}”`, command } }
}
