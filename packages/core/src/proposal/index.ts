/**
 * The one press: a first version of everything, from what was read and what was measured. The designer corrects it,
 * and does not fill it in.
 */
import type { Survey } from '../arrival/index.ts'
import { bestBellOffset } from '../highlight/index.ts'
import { matchLinks } from '../links/index.ts'
import { proposeId, type NamingRule } from '../naming/index.ts'
import type { Candidate, ElementAt, PageLink, PageReading, ReadMenu, WrittenSettings } from '../page/index.ts'
import type { BarPlace, HeaderChoice, Item, ItemTarget, Menu, Section, SetUp, SitePage } from '../site/index.ts'

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

const itemKey = (menu: string, n: number) => `${menu}-${n}`

/** What everything would be set to. Without surveys the header is taken as the page says it, unmeasured. */
export function proposeSetUp(reading: PageReading, surveys: readonly Survey[], rule: NamingRule): SetUp {
  const earlier = reading.written.settings
  const taken = takenIds(reading)
  const found = headerMenus(reading)
  const chosen = chooseCandidates(reading, found, earlier)
  const sections = [...chosen.map((c) => sectionFrom(c, taken, rule)), ...earlierPoints(reading)].sort(
    (a, b) => a.at - b.at || Number(!a.point) - Number(!b.point),
  )
  const travel = { smooth: earlier?.smooth ?? true, breathing: earlier?.breathing ?? DEFAULT_BREATHING }
  if (earlier) {
    for (const s of sections) {
      s.toTop = earlier.toTop.includes(s.id)
      s.former = Object.entries(earlier.former).flatMap(([was, now]) => (now === s.id ? [was] : []))
    }
  } else if (sections[0]) sections[0].toTop = startsAtTop(sections[0], surveys)
  const menus: Menu[] = found.map(({ menu, matches }, n) => adoptMenu(reading, menu, matches, sections, `m${n + 1}`))
  if (!menus.length && sections.length) menus.push(makeMenu(sections, reading))
  const header = chooseHeader(reading, surveys, menus, earlier)
  const bar = menus.some((m) => m.at === null) ? placeBar(sections, surveys) : 'top'
  const setUp: SetUp = { sections, menus, header, bar, travel, highlight: { bellOffset: earlier?.bellOffset ?? travel.breathing } }
  if (!earlier && surveys.length) {
    const page: SitePage = { key: '', file: '', source: '', title: '', ...setUp }
    setUp.highlight = { bellOffset: bestBellOffset(page, surveys) }
  }
  return setUp
}

/** Points that an earlier handover put into the page. */
function earlierPoints({ written, candidates }: PageReading): Section[] {
  return Object.entries(written.settings?.points ?? {}).flatMap(([id, [anchor, shift]]): Section[] => {
    const at = written.anchors[anchor]
    if (at === undefined) return []
    const title = candidates.find((c) => c.at === at)?.title ?? id
    return [{ key: `p${at}-${id}`, at, point: { shift }, title, id, own: null, former: [], heading: null, depth: 0, toTop: false }]
  })
}

interface MatchedMenu {
  menu: ReadMenu
  matches: Map<PageLink, Candidate>
}

/** The section menus that the page has in its header, with what their items mean. */
function headerMenus(reading: PageReading): MatchedMenu[] {
  const links = new Map(reading.links.map((l) => [l.at, l]))
  return reading.menus
    .filter((m) => m.inHeader)
    .map((menu) => {
      const own = menu.items.flatMap((i) => links.get(i.link) ?? [])
      return { menu, matches: matchLinks(own, reading.candidates) }
    })
    .filter(({ matches }) => new Set(matches.values()).size >= 1 && matches.size >= Math.min(2, reading.candidates.length))
}

function chooseCandidates(reading: PageReading, menus: MatchedMenu[], earlier: WrittenSettings | null): Candidate[] {
  if (earlier) {
    const ids = new Set(earlier.sections)
    const kept = reading.candidates.filter((c) => c.id !== null && ids.has(c.id))
    if (kept.length) return kept
  }
  const linked = new Set(menus.flatMap((m) => [...m.matches.values()]))
  return reading.candidates.filter((c) => c.offered || linked.has(c))
}

/** The first section goes to the very top where it begins in the upper third of the first screenful, on every screen. */
function startsAtTop(first: Section, surveys: readonly Survey[]): boolean {
  return surveys.every((survey) => {
    const part = survey.parts.find((p) => p.at === first.at)
    return !part || part.top < survey.height / 3
  })
}

function adoptMenu(reading: PageReading, menu: ReadMenu, matches: Map<PageLink, Candidate>, sections: Section[], key: string): Menu {
  const byAt = new Map(sections.map((s) => [s.at, s]))
  const links = new Map(reading.links.map((l) => [l.at, l]))
  const items = menu.items.map(({ link: at }, n): Item => {
    const link = links.get(at)!
    const section = byAt.get(matches.get(link)?.at ?? -1)
    const target: ItemTarget = section
      ? { kind: 'section', section: section.key }
      : link.status === 'top'
        ? { kind: 'top' }
        : { kind: 'as-is' }
    return { key: itemKey(key, n), label: link.label, target, link: at }
  })
  return { key, name: menu.label || 'Header menu', at: menu.at, items }
}

/** A menu with an item for each section, in page order. */
export function makeMenu(sections: readonly Section[], reading: PageReading | null, key = 'm1'): Menu {
  const earlier = reading?.written.menu
  const byId = new Map(sections.map((s) => [s.id, s]))
  const items = earlier
    ? earlier.items.flatMap(({ id, label }, n): Item[] => {
        const section = byId.get(id)
        const target: ItemTarget | null = section ? { kind: 'section', section: section.key } : id === '' ? { kind: 'top' } : null
        return target ? [{ key: itemKey(key, n), label, target, link: null }] : []
      })
    : sections.map((s, n): Item => ({ key: itemKey(key, n), label: s.title, target: { kind: 'section', section: s.key }, link: null }))
  return { key, name: 'Header menu', at: null, items }
}

function chooseHeader(
  reading: PageReading,
  surveys: readonly Survey[],
  menus: Menu[],
  earlier: WrittenSettings | null,
): HeaderChoice | null {
  const measured = surveys.flatMap((s) => s.header ?? [])
  const staying = measured.find((h) => h.position === 'sticky' || h.position === 'fixed')
  if (staying) return staying.at === null ? null : { at: staying.at, keep: null, backing: null }
  const at: ElementAt | null = measured[0]?.at ?? reading.header
  if (at === null) return null
  const hasMenu = menus.some((m) => m.at !== null)
  const canStay =
    (earlier?.keep ?? hasMenu) &&
    measured.length > 0 &&
    measured.every((h) => h.at === at && h.canStay && h.position === measured[0]!.position)
  const keep = !canStay ? null : measured[0]!.position === 'absolute' ? 'fixed' : 'sticky'
  const see = surveys.find((s) => s.header?.at === at)
  return { at, keep, backing: keep && see?.header?.transparent ? backingFor(see.header.color, see.background) : null }
}

/** The page's background, or black or white where the text could not be read on it. */
export function backingFor(text: string, background: string): string {
  const [t, b] = [lightness(text), lightness(background)]
  if (t === null) return background
  if (b !== null && Math.abs(t - b) > 0.4) return background
  return t > 0.5 ? 'rgb(24, 24, 24)' : 'rgb(255, 255, 255)'
}

function lightness(color: string): number | null {
  const m = /rgba?\(\s*([\d.]+)[,\s]+([\d.]+)[,\s]+([\d.]+)(?:[,/\s]+([\d.]+))?/.exec(color)
  if (!m || m[4] === '0') return null
  return (0.2126 * Number(m[1]) + 0.7152 * Number(m[2]) + 0.0722 * Number(m[3])) / 255
}

function placeBar(sections: Section[], surveys: readonly Survey[]): BarPlace {
  const headers = surveys.flatMap((s) => (s.header ? [{ survey: s, header: s.header }] : []))
  if (headers.some(({ header }) => header.position === 'sticky')) return 'after-header'
  const fixed = headers.filter(({ header }) => header.position === 'fixed')
  const lies = fixed.some(({ survey, header }) => {
    const top = survey.parts.find((p) => p.at === sections[0]?.at)?.top ?? 0
    return top < header.rest - 1
  })
  return lies ? 'under-fixed' : 'top'
}
