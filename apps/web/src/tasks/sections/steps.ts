/** Edits of several parts of the work. */
import { toast } from 'sonner'
import {
  addSection as addingSection,
  apply,
  pageOf,
  checkId,
  filesBeside,
  freshKey,
  idContext,
  itemFor,
  proposeId,
  proposeSetUp,
  sectionFrom,
  setUpOf,
  setUpPages,
  takenIds,
  withOtherPages,
  type Candidate,
  type IdProblem,
  type Section,
  type SitePage,
} from '@waybell/core'
import type { PickedElement } from '@waybell/agent/types'
import { api } from '../../api.ts'
import type { Measured, Work } from '../../work/context.ts'

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

/** An added section keeps its ID, or gets one. */
export const addSection = (work: Work, candidate: Candidate): void => add(work, sectionFrom(candidate, taken(work), work.site.rule))

/** The picked element as a candidate. */
export const candidateOf = ({ reading }: Work, el: PickedElement): Candidate =>
  reading.candidates.find((c) => c.at === el.at) ?? {
    ...el,
    offered: false,
    depth: 0,
    line: 0,
    column: 0,
    block: null,
    holder: null,
    hints: [],
  }

/** A point before a section's element, with its own ID and title. */
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
    sourceId: null,
    former: [],
    heading: null,
    depth: before.depth,
    toTop: false,
  })
}

/** The one press. Pressed again, it starts over but keeps earlier IDs, which links elsewhere may use. */
export function setUpEverything({ page, reading, site, run }: Work, { surveys }: Pick<Measured, 'surveys'>): void {
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
    toast('Everything is already set; nothing changed.')
  else run(command)
}

/** Other pages of the site without sections and menus. */
export const untouched = ({ site, page }: Work): SitePage[] => site.pages.filter((p) => p !== page && !p.sections.length && !p.menus.length)

/** Sets up this page and all others that have no sections or menus yet. Pages that were never opened have no surveys. */
export async function setUpAllPages(work: Work, { surveys }: Pick<Measured, 'surveys'>): Promise<void> {
  const { siteKey, page, reading, session, run } = work
  const here = page.sections.length ? [] : [{ page: page.key, reading, surveys: Object.values(surveys) }]
  const busy = setTimeout(() => toast.loading(`Reading ${untouched(work).length + here.length} pages…`, { id: BUSY }), 300)
  try {
    const others = await Promise.all(
      untouched(work).map(async ({ key }) => {
        const [state, kept] = await Promise.all([api.page(siteKey, key), api.surveys(siteKey, key)])
        const scripts = work.site.scripts !== false
        return { page: key, reading: state.reading, surveys: kept.filter((k) => k.scripts === scripts).map((k) => k.survey) }
      }),
    )
    const offering = [...here, ...others].filter(({ reading }) => reading.candidates.some((c) => c.offered))
    // Starts from the present document, which may have changed.
    if (offering.length) run(setUpPages(session.snapshot().document, offering))
    const left = here.length + others.length - offering.length
    if (left) toast(`${left === 1 ? '1 page has' : `${left} pages have`} no sections and stayed unchanged.`)
  } catch (error) {
    toast.error(error instanceof Error ? error.message : String(error))
  } finally {
    clearTimeout(busy)
    toast.dismiss(BUSY)
  }
}
const BUSY = 'reading-pages'

/** The fault of a typed ID; null for none. */
export const idProblem = (work: Work, section: Section, id: string): IdProblem | null => checkId(id, idContext(work, section))

/** Free IDs by the naming rule for these sections; without unchanged ones. */
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
