/**
 * The one press: a first version of everything, from what was read and what was measured. The designer corrects it,
 * and does not fill it in.
 */
import { canBeKept } from '../arrival/index.ts'
import { backingFor } from '../colour/index.ts'
import type { WrittenSettings } from '../contract/index.ts'
import { bestBellOffset } from '../highlight/index.ts'
import { adoptMenus, makeMenu, pageMenus, type MatchedMenu } from '../menus/index.ts'
import { proposeId, type NamingRule } from '../naming/index.ts'
import type { Candidate, ElementAt, PageReading } from '../page/index.ts'
import { inPageOrder, isFound, type HeaderChoice, type Menu, type Section, type SetUp, type SitePage } from '../site/index.ts'
import { inScreenOrder, type Survey } from '../survey/index.ts'

export const DEFAULT_BREATHING = 24

/** IDs in use on a page, in lower case. */
export const takenIds = (reading: PageReading): Set<string> => new Set(reading.ids.map((i) => i.id.toLowerCase()))

export { idContext } from './ids.ts'

/** The section that a candidate makes: with the ID it has, or one by the naming rule that nothing else has. */
export function sectionFrom(candidate: Candidate, taken: Set<string>, rule: NamingRule): Section {
  const id = candidate.id ?? proposeId(candidate.title, (lower) => taken.has(lower), rule)
  taken.add(id.toLowerCase())
  return {
    key: `s${candidate.at}`,
    at: candidate.at,
    point: null,
    title: candidate.title,
    id,
    own: candidate.id,
    former: [],
    heading: candidate.heading,
    depth: candidate.depth,
    toTop: false,
  }
}

/**
 * What everything would be set to. Without surveys the header is taken as the page says it, unmeasured.
 * @param files the site's files, from the page's folder
 */
export function proposeSetUp(
  reading: PageReading,
  measured: Iterable<Survey>,
  rule: NamingRule,
  files: ReadonlySet<string> = new Set(),
): SetUp {
  const surveys = inScreenOrder(measured)
  const earlier = reading.written.settings
  const taken = takenIds(reading)
  const found = pageMenus(reading, files)
  const chosen = chooseCandidates(reading, found, earlier)
  const sections = inPageOrder([...chosen.map((c) => sectionFrom(c, taken, rule)), ...earlierPoints(reading)])
  const travel = { smooth: earlier?.smooth ?? true, breathing: earlier?.breathing ?? DEFAULT_BREATHING }
  if (earlier) {
    for (const s of sections) {
      s.toTop = earlier.toTop.includes(s.id)
      s.former = earlier.former.flatMap(([was, now]) => (now === s.id ? [was] : []))
    }
  } else if (sections[0]) sections[0].toTop = startsAtTop(sections[0], surveys)
  const menus = adoptMenus(reading, found, sections)
  // Of a page with a single part there is nothing to choose from.
  if (!menus.length && (sections.length > 1 || (sections.length && reading.written.menu))) menus.push(makeMenu(sections, surveys, reading))
  const header = chooseHeader(reading, surveys, menus, earlier)
  const setUp: SetUp = { sections, menus, header, travel, highlight: { bellOffset: earlier?.bellOffset ?? travel.breathing } }
  if (!earlier && surveys.length) {
    const page: SitePage = { key: '', file: '', source: '', title: '', ...setUp }
    setUp.highlight = { bellOffset: bestBellOffset(page, surveys) }
  }
  return setUp
}

/** Points that an earlier handover put into the page. */
function earlierPoints({ written, candidates }: PageReading): Section[] {
  return (written.settings?.points ?? []).flatMap(([id, anchor, shift]): Section[] => {
    const at = written.anchors[anchor]
    if (at === undefined) return []
    const title = candidates.find((c) => c.at === at)?.title ?? id
    return [{ key: `p${at}-${id}`, at, point: { shift }, title, id, own: null, former: [], heading: null, depth: 0, toTop: false }]
  })
}

function chooseCandidates(reading: PageReading, menus: MatchedMenu[], earlier: WrittenSettings | null): Candidate[] {
  if (earlier) {
    const ids = new Set(earlier.sections)
    const kept = reading.candidates.filter((c) => c.id !== null && ids.has(c.id))
    if (kept.length) return kept
  }
  const linked = new Set(menus.flatMap((m) => [...m.matches.values()].map(({ candidate }) => candidate)))
  return reading.candidates.filter((c) => c.offered || linked.has(c))
}

/** The first section goes to the very top where it begins in the upper third of the first screenful, on every screen. */
function startsAtTop(first: Section, surveys: readonly Survey[]): boolean {
  return surveys.every((survey) => {
    const part = survey.parts.find((p) => p.at === first.at)
    return !part || part.top < survey.height / 3
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
