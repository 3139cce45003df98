/** Shared by the rules about links without a target. */
import { decodeFragment } from '../contract/index.ts'
import { isPlaceholder, likelySection } from '../links/index.ts'
import { isKeepable } from '../naming/index.ts'
import type { PageReading } from '../page/index.ts'
import type { Command, SitePage } from '../site/index.ts'
import { builtOf } from '../survey/index.ts'
import type { PageFacts, SiteFacts } from './facts.ts'
import type { Draft } from './finding.ts'

const lowerCaseIds = (reading: PageReading): Map<string, string> => {
  const out = new Map<string, string>()
  for (const { id } of reading.ids) if (!out.has(id.toLowerCase())) out.set(id.toLowerCase(), id)
  return out
}

/** Links whose target is missing, with the ID that differs only in case, if there is one. */
export function brokenLinks({
  reading,
}: PageFacts): { wanted: string; named: string; near: string | null; place: Omit<Draft, 'message'> }[] {
  const ids = lowerCaseIds(reading)
  return reading.links.flatMap(({ status, label, fragment, line, column, at }) => {
    if (status !== 'broken' || fragment === null || isPlaceholder({ status, fragment })) return []
    const wanted = decodeFragment(fragment)
    const near = ids.get(wanted.toLowerCase())
    const named = label ? `“${label}” (#${wanted})` : `the link to “#${wanted}”`
    return { wanted, named, near: near && near !== wanted ? near : null, place: { line, column, where: { at }, fix: null } }
  })
}

/** Other pages of the site with a section of this ID. */
export const pagesWith = (wanted: string, { site, page }: Pick<SiteFacts, 'site' | 'page'>): SitePage[] =>
  site.pages.filter((p) => p !== page && p.sections.some((s) => s.id === wanted))

/** Resolved when an item gives it a target or a section gets the ID; reported elsewhere if another page has the ID. */
export function untilLinked(draft: Draft, facts: SiteFacts): Draft | null {
  const { page, items, links } = facts
  const at = draft.where.at!
  const used = items.get(at)
  if ((used && used.item.target.kind !== 'as-is') || page.links?.some((l) => l.at === at)) return null
  const link = links.get(at)
  const wanted = decodeFragment(link?.fragment ?? '')
  if (page.sections.some((s) => s.id === wanted || s.former.includes(wanted)) || pagesWith(wanted, facts).length) return null
  if (builtOf(Object.values(facts.surveys)).targets.some((t) => t.id === wanted)) return null
  const likely = likelySection(wanted, link?.label ?? '', page, facts.reading, facts.site.rule)
  const meant = likely?.section
  if (likely && wanted !== '')
    draft = { ...draft, message: `${draft.message} Likely “${likely.section.title}” (#${likely.section.id}): ${likely.why}.` }
  if (used) {
    const where = { at, item: { menu: used.menu.key, item: used.item.key } }
    if (!meant) return { ...draft, where }
    const command = { type: 'item/target', page: page.key, ...where.item, target: { kind: 'section', section: meant.key } } as const
    return { ...draft, where, fix: { label: `Link to “${meant.title}”`, command } }
  }
  if (!meant || !isKeepable(wanted) || wanted === '') return draft
  // As a former ID: the link is rewritten, and links elsewhere arrive too.
  const command: Command = { type: 'section/id', page: page.key, section: meant.key, id: meant.id, former: [...meant.former, wanted] }
  return { ...draft, fix: { label: `Link it to “${meant.title}”`, command } }
}
