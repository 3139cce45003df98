/** Links outside menus: with a chosen target, or to a section's former ID on this or another page. */
import { decodeFragment, hashOf, MOTION, motionText, WAS } from '../../contract/index.ts'
import { pageAt, pointNamed } from '../../links/index.ts'
import { wayOf, type SitePage } from '../../site/index.ts'
import type { PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../writing.ts'
import { planTarget, tabOf } from './target.ts'

export function planLinks({ page, pages, reading, ways, ownId }: WritingInput): PlannedEdit[] {
  const chosen = new Map(page.links?.flatMap((l) => (l.made ? [] : [[l.at, l.target] as const])))
  // Menu links that are left as they are follow too.
  const inMenus = new Set(page.menus.flatMap((m) => m.items.flatMap((i) => (i.target.kind === 'as-is' ? [] : i.links))))
  const sections = new Map(page.sections.filter((s) => !s.point).map((s) => [s.at, s]))
  const former = formerIds(page)
  const own = reading.links.flatMap((link): PlannedEdit[] => {
    if (inMenus.has(link.at)) return []
    const target = chosen.get(link.at)
    if (target) return planTarget(link, wayOf(target, ways), `the link “${link.label}”`)
    if (link.fragment === null) return []
    const fragment = decodeFragment(link.fragment)
    let id: string | undefined
    if (link.status === 'ok' && link.target !== null) {
      const point = pointNamed(link, page.sections)
      const section = point ?? sections.get(link.target)
      const isFormer = !!section && section.former.includes(fragment)
      if (section && (isFormer || (!point && ownId.get(section.at) !== section.id))) id = section.id
    } else if (link.status === 'broken') id = former.get(fragment)
    else if (link.status === 'other-page' && link.path !== null) {
      const other = pageAt(pages, page.file, link.path)
      id = other && newId(other, fragment)
    }
    if (id === undefined) return []
    const value = link.href.replace(/#.*$/s, '') + hashOf(id)
    return [
      {
        edit: { kind: 'attribute', at: link.at, name: 'href', value },
        why: `The link “${link.label}” follows a changed ID.`,
        for: {},
        layout: null,
      },
    ]
  })
  const labels = new Map(reading.links.map((l) => [l.at, l.label]))
  const motions = (page.motions ?? []).map(({ at, motion }): PlannedEdit => ({
    edit: { kind: 'attribute', at, name: MOTION, value: motionText(motion) },
    why: `Motion of the link “${labels.get(at) ?? ''}”.`,
    for: {},
    layout: null,
  }))
  return [...own, ...motions, ...planMadeLinks(page, reading, ways)]
}

function planMadeLinks({ links = [] }: SitePage, reading: WritingInput['reading'], ways: WritingInput['ways']): PlannedEdit[] {
  return links.flatMap(({ at, target, made }): PlannedEdit[] => {
    const way = wayOf(target, ways)
    if (!made || way.href === null) return []
    const attributes = {
      href: way.href,
      ...tabOf(way, reading.baseLeaves),
      ...(made.isSaid ? { 'aria-label': made.label } : {}),
      ...(made.of === 'button' ? { [WAS]: 'button' } : {}),
    }
    const words = made.of === 'words' ? made.label : ''
    return [
      {
        edit: { kind: 'link', at, of: made.of, words, attributes },
        why: `“${made.label}” is a link.`,
        for: {},
        layout: `link ${at} ${words}`,
      },
    ]
  })
}

const formerIds = (page: SitePage): Map<string, string> =>
  new Map(page.sections.flatMap((s) => s.former.map((f): [string, string] => [f, s.id])))

/** The present ID of another page's section for a former one. */
function newId(page: SitePage, id: string): string | undefined {
  if (page.sections.some((s) => s.id === id)) return undefined
  return page.sections.find((s) => s.sourceId === id)?.id ?? formerIds(page).get(id)
}
