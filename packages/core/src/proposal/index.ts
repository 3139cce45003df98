/** The one press: a first version of everything, from reading and surveys. The designer corrects it instead of filling it in. */
import { canBeKept, coverOf, isOwnTravel, solveArrivals, type Arrival } from '../arrival/index.ts'
import { backingFor } from '../colour/index.ts'
import { decodeFragment, fragmentOf, readMotion, type WrittenSettings } from '../contract/index.ts'
import { bestBellOffset } from '../highlight/index.ts'
import { adoptMenus, madeBefore, makeBar, markFor, pageMenus, type MatchedMenu } from '../menus/index.ts'
import { proposeId, type NamingRule } from '../naming/index.ts'
import type { Candidate, ElementAt, PageReading } from '../page/index.ts'
import {
  apply,
  inPageOrder,
  isFound,
  isMade,
  pageOf,
  sectionOf,
  withOtherPages,
  type Batch,
  type FoundForm,
  type HeaderChoice,
  type Menu,
  type Section,
  type SetUp,
  type Site,
  type SitePage,
} from '../site/index.ts'
import { builtOf, inScreenOrder, viewHeight, wrongEstimates, type Survey } from '../survey/index.ts'
import { flushSections } from './full-height.ts'

export const DEFAULT_BREATHING = 24

/** IDs in use on a page, in lower case. */
export const takenIds = (reading: PageReading): Set<string> => new Set(reading.ids.map((i) => i.id.toLowerCase()))

export { idContext } from './ids.ts'

/** IDs that page scripts set and their links use: visitors' browsers have them, so they stay. */
function idsByScripts({ menus }: Survey['built'], taken: ReadonlySet<string>): Map<ElementAt, string> {
  const out = new Map<ElementAt, string>()
  for (const { target, href } of menus.flatMap((m) => m.links)) {
    const id = decodeFragment(fragmentOf(href))
    if (target !== null && !out.has(target) && id && !taken.has(id.toLowerCase())) out.set(target, id)
  }
  return out
}

/** A page script builds a menu of the sections: a second one would repeat it. */
const isServed = ({ menus }: Survey['built'], sections: readonly Section[]): boolean => {
  const own = new Set(sections.map((s) => s.at))
  return menus.some((m) => m.links.filter((l) => l.target !== null && own.has(l.target)).length > 1)
}

/** The section for a candidate: with its own ID, or a free one by the naming rule. @param given an ID that a page script sets */
export function sectionFrom(candidate: Candidate, taken: Set<string>, rule: NamingRule, given?: string): Section {
  const id = candidate.id ?? given ?? proposeId(candidate.title, (lower) => taken.has(lower), rule)
  taken.add(id.toLowerCase())
  return {
    key: `s${candidate.at}`,
    at: candidate.at,
    point: null,
    title: candidate.title,
    id,
    sourceId: candidate.id,
    former: [],
    heading: candidate.heading,
    depth: candidate.depth,
    toTop: false,
  }
}

/** The proposed set-up. Without surveys the header is read from the markup. @param files of the site, relative to the page's folder */
export function proposeSetUp(
  reading: PageReading,
  measured: Iterable<Survey>,
  rule: NamingRule,
  files: ReadonlySet<string> = new Set(),
): SetUp {
  const surveys = inScreenOrder(measured)
  const earlier = reading.written.settings
  const taken = takenIds(reading)
  const built = builtOf(surveys)
  const found = pageMenus(reading, files, new Set(built.targets.map((t) => t.id)))
  const given = idsByScripts(built, taken)
  const chosen = chooseCandidates(reading, found, earlier, surveys)
  const sections = inPageOrder([...chosen.map((c) => sectionFrom(c, taken, rule, given.get(c.at))), ...earlierPoints(reading)])
  const travel = {
    smooth: earlier?.smooth ?? true,
    breathing: earlier?.breathing ?? DEFAULT_BREATHING,
    ...(earlier?.breathes && { breathes: earlier.breathes }),
    ...(earlier?.ownTravel ? { pageOffsets: true as const } : {}),
    ...earlierTravel(reading.written),
    // Without it links miss by a lot, and it moves nothing.
    ...(!earlier && wrongEstimates(surveys).length > 0 && { estimates: true as const }),
  }
  if (earlier) {
    for (const s of sections) {
      s.toTop = earlier.toTop.includes(s.id)
      const adjusted = earlier.adjust?.find(({ id }) => id === s.id)
      if (adjusted) s.adjust = { by: adjusted.by, ...(adjusted.off && { off: adjusted.off }) }
      s.former = earlier.former.flatMap(({ was, now }) => (now === s.id ? [was] : []))
    }
  } else if (sections[0]) sections[0].toTop = startsAtTop(sections[0], surveys)
  const menus = adoptMenus(reading, found, sections).map((menu) => withMark(menu, surveys, sections))
  // One part needs no menu; a handed-over page has its decisions.
  menus.push(...madeBefore(reading, sections, surveys, menus))
  const lacksMenu = !earlier && sections.length > 1
  if (!menus.length && sections.length && !isServed(built, sections) && lacksMenu) menus.push(makeBar(sections, surveys))
  const bareHeader = chooseHeader(reading, surveys, menus, earlier)
  const header = bareHeader && {
    ...bareHeader,
    ...(earlier?.headerOff && { off: earlier.headerOff }),
    ...(earlier?.headerOnScroll && { onScroll: earlier.headerOnScroll }),
    ...(earlier?.headerSteady && { steady: true as const }),
    ...(earlier?.headerUnder && { under: earlier.headerUnder }),
  }
  const scroller =
    surveys.find((s) => s.scroller && s.scroller.at !== null)?.scroller?.at ?? (surveys.length ? null : reading.written.scroller)
  const inMenus = new Set(menus.flatMap((m) => [...(isFound(m) ? m.form.elements : []), ...m.items.flatMap((i) => i.links)]))
  const motions = Object.entries(reading.written.motions).flatMap(([at, motion]) => (inMenus.has(+at) ? [] : [{ at: +at, motion }]))
  const setUp: SetUp = {
    sections,
    menus,
    ...(motions.length && { motions }),
    ...earlierEndSpace(earlier, sections),
    ...(reading.written.pictures.length && { pictures: reading.written.pictures }),
    header,
    ...(scroller === null ? {} : { scroller }),
    travel,
    highlight: { bellOffset: earlier?.bellOffset ?? travel.breathing, ...(earlier?.ownMarks ? { pageMark: true as const } : {}) },
  }
  if (earlier || !surveys.length) return setUp
  const own = keepOwnTravel(setUp, surveys)
  const kept = isOwnTravel(asPage(own)) ? own : flushSections(own, asPage(own), surveys)
  const bellOffset = bestBellOffset(asPage(kept), surveys)
  return { ...kept, highlight: { bellOffset, ...(marksItself(kept, surveys) ? { pageMark: true as const } : {}) } }
}

function earlierEndSpace(earlier: PageReading['written']['settings'], sections: readonly Section[]): Pick<SitePage, 'endSpace'> {
  const { id, as, on } = earlier?.endSpace ?? {}
  const section = sections.find((s) => s.id === id)?.key
  return as && on && section !== undefined ? { endSpace: { section, as, on } } : {}
}

/** Motion and address rule of an earlier handover. */
function earlierTravel({
  settings: earlier,
  skip,
}: PageReading['written']): Pick<SitePage['travel'], 'timed' | 'address' | 'follows' | 'takesPresses' | 'estimates' | 'skip'> {
  const timed = readMotion(earlier?.timed)
  return {
    ...(timed && typeof timed === 'object' && { timed }),
    ...(earlier?.address && { address: earlier.address }),
    ...(earlier?.follows && { follows: true as const }),
    ...(earlier?.takesPresses && { takesPresses: true as const }),
    ...(earlier?.estimates && { estimates: true as const }),
    ...(skip !== null && { skip }),
  }
}

/** The site's other pages, relative to a page's folder. */
export function filesBeside(site: Site, page: SitePage): Set<string> {
  const folder = page.file.slice(0, page.file.lastIndexOf('/') + 1)
  return new Set(site.pages.flatMap(({ file }) => (file.startsWith(folder) ? file.slice(folder.length) : [])))
}

/** A page with its reading; without surveys it isn't measured yet. */
export interface PageToSetUp {
  page: string
  reading: PageReading
  surveys: readonly Survey[]
}

/** The one press for several pages, as one step. */
export function setUpPages(site: Site, pages: readonly PageToSetUp[]): Batch {
  let now = site
  const commands = pages.flatMap(({ page, reading, surveys }) => {
    const setUp = proposeSetUp(reading, surveys, site.rule, filesBeside(now, pageOf(now, page)))
    const command = withOtherPages(now, { type: 'page/set-up', page, setUp })
    now = apply(now, command).site
    return command.type === 'batch' ? command.commands : [command]
  })
  return { type: 'batch', label: pages.length === 1 ? 'Set up a page' : `Set up ${pages.length} pages`, commands }
}

/** What the press left unchanged, in words; null for nothing. */
export function leftAsItIs(page: SitePage): string | null {
  if (!isOwnTravel(page)) return null
  return page.highlight.pageMark
    ? 'This works already: its links arrive by the page’s own offsets, and its own script marks the current item. Nothing is written into the page until you change something.'
    : 'This works already: its links arrive by the page’s own offsets, which stay as they are. What it lacked is added: the mark of the current item, and smooth scrolling where it had none.'
}

const asPage = (setUp: SetUp): SitePage => ({ key: '', file: '', source: '', title: '', ...setUp })

/** Keeps the page's own offsets if every link arrives correctly on every screen. */
function keepOwnTravel(setUp: SetUp, surveys: readonly Survey[]): SetUp {
  const own: SetUp = {
    ...setUp,
    sections: setUp.sections.map((s) => ({ ...s, toTop: false })),
    travel: { ...setUp.travel, pageOffsets: true },
  }
  const page = asPage(own)
  if (!isOwnTravel(page) || !own.menus.some(isFound) || own.sections.some((s) => s.point)) return setUp
  const linked = new Set(own.menus.flatMap((m) => m.items.flatMap((i) => sectionOf(i.target) ?? [])))
  const isRight = (a: Arrival, at: ElementAt, survey: Survey): boolean => {
    const { margin = 0 } = survey.parts.find((p) => p.at === at) ?? {}
    // Correct: flush without a cover, or below the header by an offset of the page, with a reasonable gap.
    const isMeant = survey.padding > 0 || margin > 0 || coverOf(page, survey).arrival === 0
    return a.movesPage && isMeant && a.gap > -1 && a.gap < viewHeight(survey) / 4 && (a.heading === 'clear' || a.heading === 'none')
  }
  const isWhole = surveys.every((survey) => {
    const arrivals = new Map(solveArrivals(page, survey).map((a) => [a.section, a]))
    return own.sections
      .filter((s) => linked.has(s.key))
      .every((s) => {
        const arrival = arrivals.get(s.key)
        return !!arrival && s.sourceId === s.id && (arrival.shortfall > 0 ? arrival.movesPage : isRight(arrival, s.at, survey))
      })
  })
  const isLinked = linked.size > 0 && own.menus.every((m) => m.items.every((i) => !i.assumed))
  return isLinked && isWhole ? own : setUp
}

/** The page's own script marks every visible menu correctly. */
function marksItself({ menus }: SetUp, surveys: readonly Survey[]): boolean {
  const found = menus.filter(isFound).flatMap((m) => (m.form as FoundForm).elements)
  if (!found.length || menus.some(isMade)) return false
  const seen = surveys.flatMap((s) => s.menus.filter((m) => m.isDrawn && found.includes(m.at)))
  return seen.length > 0 && seen.every(({ pageMark }) => pageMark?.followsScroll && pageMark.isRight && pageMark.isSeen)
}

function withMark(menu: Menu, surveys: readonly Survey[], sections: readonly Section[]): Menu {
  if (!isFound(menu)) return menu
  const mark = markFor(menu.form.elements, surveys, standsOnOurs(menu, sections))
  return mark === undefined || mark === 'line' ? menu : { ...menu, form: { ...menu.form, mark } }
}

/** Items that lead away are pages; a mark on one shows the current page. */
const standsOnOurs = (menu: Menu, sections: readonly Section[]): boolean =>
  sections.length > 0 && menu.items.filter((i) => i.target.kind !== 'as-is').length > menu.items.length / 2

/** Points of an earlier handover. */
function earlierPoints({ written, candidates, ids }: PageReading): Section[] {
  return (written.settings?.points ?? []).flatMap(({ id, below: shift, anchor }): Section[] => {
    const at = anchor === undefined ? ids.find((i) => i.id === id)?.at : written.anchors[anchor]
    if (at === undefined) return []
    const title = candidates.find((c) => c.at === at)?.title ?? id
    return [{ key: `p${at}-${id}`, at, point: { shift }, title, id, sourceId: null, former: [], heading: null, depth: 0, toTop: false }]
  })
}

function chooseCandidates(
  reading: PageReading,
  menus: MatchedMenu[],
  earlier: WrittenSettings | null,
  surveys: readonly Survey[],
): Candidate[] {
  if (earlier) {
    const points = new Set(earlier.points.map((p) => p.id))
    const ids = new Set(earlier.sections.filter((id) => !points.has(id)))
    const kept = reading.candidates.filter((c) => c.id !== null && ids.has(c.id))
    if (kept.length) return kept
  }
  const linked = new Set(menus.flatMap((m) => [...m.matches.values()].map(({ candidate }) => candidate)))
  // Dialogs, closed panels and print copies are never visible.
  const drawn = new Set(surveys.flatMap((s) => s.parts.flatMap((p) => (p.hasBox ? p.at : []))))
  const measured = new Set(surveys.flatMap((s) => s.parts.map((p) => p.at)))
  return reading.candidates.filter((c) => linked.has(c) || (c.offered && (drawn.has(c.at) || !measured.has(c.at))))
}

/** The first section goes to the very top if it starts in the upper third of the viewport on every screen. */
function startsAtTop(first: Section, surveys: readonly Survey[]): boolean {
  return surveys.every((survey) => {
    const part = survey.parts.find((p) => p.at === first.at)
    return !part || part.top < viewHeight(survey) / 3
  })
}

function chooseHeader(
  reading: PageReading,
  surveys: readonly Survey[],
  menus: readonly Menu[],
  earlier: WrittenSettings | null,
): HeaderChoice | null {
  const measured = surveys.flatMap((s) => s.header ?? [])
  const staying = measured.find((h) => h.position === 'sticky' || h.position === 'fixed')
  if (staying) return staying.at === null ? null : { at: staying.at, keep: null, backing: null }
  const at: ElementAt | null = measured[0]?.at ?? reading.header
  if (at === null) return null
  const hasMenu = menus.some(isFound)
  const canStay =
    (earlier?.keep ?? hasMenu) && measured.every((h) => h.at === at && h.position === measured[0]!.position) && surveys.some(canBeKept)
  const keep = !canStay ? null : measured[0]!.position === 'absolute' ? 'fixed' : 'sticky'
  const see = surveys.find((s) => s.header?.at === at)
  return { at, keep, backing: keep && see?.header?.transparent ? backingFor(see.header.color, see.background) : null }
}
