/** Edits of the work at hand, from what is known of it. */
import { toast } from 'sonner'
import {
  addSection as addingSection,
  apply,
  pageOf,
  checkId,
  freshKey,
  idContext,
  itemFor,
  proposeId,
  proposeSetUp,
  sectionFrom,
  setUpOf,
  takenIds,
  withOtherPages,
  type Candidate,
  type IdProblem,
  type Section,
  type Site,
  type SitePage,
} from '@waybell/core'
import type { PickedElement } from '@waybell/agent/types'
import type { Work } from '../../work/context.ts'

const taken = ({ page, reading }: Work): Set<string> =>
  new Set([...takenIds(reading), ...page.sections.flatMap((s) => [s.id, ...s.former]).map((id) => id.toLowerCase())])

function add(work: Work, section: Section): void {
  work.run(
    addingSection(work.page, section, (menu) =>
      itemFor(
        freshKey(
          `${menu.key}-`,
          menu.items.map((i) => i.key),
        ),
        section,
      ),
    ),
  )
}

/** An added section keeps the ID that it has, or gets one. */
export const addSection = (work: Work, candidate: Candidate): void => add(work, sectionFrom(candidate, taken(work), work.site.rule))

/** What was picked on the page, as the reading would have it. */
export const candidateOf = ({ reading }: Work, el: PickedElement): Candidate =>
  reading.candidates.find((c) => c.at === el.at) ?? { ...el, offered: false, depth: 0, line: 0, column: 0, block: null, hints: [] }

/** A point before the element of a section, with an ID and a title of its own. */
export function addPoint(work: Work, before: Pick<Section, 'at' | 'title' | 'depth'>): void {
  const { page, site } = work
  const ids = taken(work)
  const title = `Before ${before.title}`
  add(work, {
    key: freshKey(
      'pt',
      page.sections.map((s) => s.key),
    ),
    at: before.at,
    point: { shift: 0 },
    title,
    id: proposeId(title, (lower) => ids.has(lower), site.rule),
    own: null,
    former: [],
    heading: null,
    depth: before.depth,
    toTop: false,
  })
}

/** The site's other pages by their paths from a page's folder. */
export function filesBeside(site: Site, page: SitePage): Set<string> {
  const folder = page.file.slice(0, page.file.lastIndexOf('/') + 1)
  return new Set(site.pages.flatMap(({ file }) => (file.startsWith(folder) ? file.slice(folder.length) : [])))
}

/** The one press. Pressed again it begins anew, but for what links out in the world may mean. */
export function setUpEverything({ page, reading, site, surveys, run }: Work): void {
  const setUp = proposeSetUp(reading, Object.values(surveys), site.rule, filesBeside(site, page))
  const before = new Map(page.sections.filter((s) => !s.point).map((s) => [s.at, s]))
  const ids = new Set(setUp.sections.map((s) => s.id))
  const sections = setUp.sections.map((section) => {
    const was = section.point ? undefined : before.get(section.at)
    return was ? { ...section, former: [...new Set([...section.former, ...was.former, was.id])].filter((id) => !ids.has(id)) } : section
  })
  const command = withOtherPages(site, { type: 'page/set-up', page: page.key, setUp: { ...setUp, sections } })
  const after = pageOf(apply(site, command).site, page.key)
  if (page.sections.length && JSON.stringify(setUpOf(after)) === JSON.stringify(setUpOf(page)))
    toast('Everything is as the press would set it; nothing was changed.')
  else run(command)
}

/** What is wrong with an ID as it is typed, or null. */
export const idProblem = (work: Work, section: Section, id: string): IdProblem | null => checkId(id, idContext(work, section))

/** IDs by the naming rule for these sections, none of them taken by another; those that would not change are left out. */
export function renaming({ page, reading, site }: Work, sections: readonly Section[]): { section: Section; id: string }[] {
  const chosen = new Set(sections)
  const elements = new Set(sections.map((s) => s.at))
  const used = new Set(
    [
      ...reading.ids.filter((i) => !elements.has(i.at)).map((i) => i.id),
      ...page.sections.filter((s) => !chosen.has(s)).flatMap((s) => [s.id, ...s.former]),
    ].map((id) => id.toLowerCase()),
  )
  return sections.flatMap((section) => {
    const id = proposeId(section.title, (lower) => used.has(lower), site.rule)
    used.add(id.toLowerCase())
    return id === section.id ? [] : [{ section, id }]
  })
}
