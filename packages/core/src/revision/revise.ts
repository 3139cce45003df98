/** A new version of a page: what became of each section, and the command that takes it over. */
import type { NamingRule } from '../naming/index.ts'
import type { ElementAt, PageReading } from '../page/index.ts'
import { sectionFrom, takenIds } from '../proposal/index.ts'
import {
  apply,
  describe,
  dropSections,
  freshKey,
  inPageOrder,
  pageOf,
  withLinks,
  withOtherPages,
  type Batch,
  type Command,
  type HeaderChoice,
  type Otherwise,
  type Section,
  type SetUp,
  type Site,
  type SitePage,
} from '../site/index.ts'
import { revisedLinks, revisedMotions } from './links.ts'
import { revisedPictures } from './pictures.ts'
import { revisedMenus } from './menus.ts'
import { likeness, printsOf } from './print.ts'
import { matchPrints, outOfOrder } from './match.ts'
import type { Version } from './version.ts'

export type RevisionState = 'matched' | 'changed' | 'moved' | 'lost'

export interface Offer {
  at: ElementAt
  title: string
  id: string | null
  tag: string
  line: number
}

export interface RevisionRow {
  /** Key of the section. */
  section: string
  state: RevisionState
  doubtful: boolean
  /** Its element in the new version; null if lost. */
  to: Offer | null
}

export interface Revision {
  /** One per section, in page order. */
  rows: RevisionRow[]
  /** Offered parts that weren't sections before. */
  added: Offer[]
  /** All elements a section may be matched to by hand. */
  choices: Offer[]
}

const found = (reading: PageReading, at: ElementAt): Offer => {
  const c = reading.candidates.find((x) => x.at === at)!
  return { at, title: c.title, id: c.id, tag: c.tag, line: c.line }
}

/** Compares the sections of `page` with the new version. */
export function reviewRevision(page: SitePage, before: Version, after: Version): Revision {
  const { sections } = page
  const was = printsOf(before.parsed, before.reading, [...new Set(sections.map((s) => s.at))])
  const now = printsOf(
    after.parsed,
    after.reading,
    after.reading.candidates.map((c) => c.at),
  )
  const orderOf = new Map(was.map((p, i) => [p.at, i]))
  const ids = was.map(
    (p) =>
      new Set(
        sections
          .filter((s) => s.at === p.at && !s.point)
          .flatMap((s) => [s.id, ...s.former, ...(s.sourceId === null ? [] : [s.sourceId])])
          .concat(p.id ?? []),
      ),
  )
  const matches = matchPrints(was, now, (i) => ids[i]!)
  const places = matches.flatMap((m) => (m.after === null ? [] : [{ before: m.before, at: now[m.after]!.at }]))
  const moved = new Set([...outOfOrder(places.map((p) => p.at))].map((i) => places[i]!.before))
  const rows = sections.map((section): RevisionRow => {
    const i = orderOf.get(section.at)
    const match = i === undefined ? undefined : matches[i]
    if (!match || match.after === null) return { section: section.key, state: 'lost', doubtful: false, to: null }
    const [a, b] = [was[i!]!, now[match.after]!]
    const isSame = a.heading.join(' ') === b.heading.join(' ') && a.id === b.id && likeness(a.words, b.words) > 0.9
    return {
      section: section.key,
      state: moved.has(i!) ? 'moved' : isSame ? 'matched' : 'changed',
      doubtful: match.doubtful,
      to: found(after.reading, b.at),
    }
  })
  const taken = new Set(rows.map((r) => r.to?.at))
  return {
    rows,
    added: after.reading.candidates.filter((c) => c.offered && !taken.has(c.at)).map((c) => found(after.reading, c.at)),
    choices: after.reading.candidates.map((c) => found(after.reading, c.at)),
  }
}

export interface Decisions {
  /** By section key: its element in the new version; null to drop it. */
  sections: Record<string, ElementAt | null>
  /** Elements that become sections. */
  added: ElementAt[]
  /** By key of dropped sections: what happens to their links; by default links keep the page's address. */
  otherwise?: Record<string, Otherwise>
}

export interface NewSource {
  /** SHA-256 of the new bytes, in hex. */
  source: string
  title: string
}

/** The command that takes the new version over, with the whole set-up. */
export function revisePage(
  page: SitePage,
  before: Version,
  after: Version,
  decisions: Decisions,
  next: NewSource,
  rule: NamingRule,
): Extract<Command, { type: 'page/revise' }> {
  const sections = revisedSections(page, before.reading, after.reading, decisions, rule)
  const placeOf = (at: ElementAt) => sameElement(at, before, after)
  const menus = revisedMenus(page, before.reading, after.reading, sections, placeOf)
  const links = revisedLinks(page, before, after, sections, placeOf)
  const header = revisedHeader(page, before, after)
  const scroller = page.scroller === undefined ? null : sameElement(page.scroller, before, after)
  const { travel, highlight } = page
  const pictures = revisedPictures(page, before, after, placeOf)
  const motions = revisedMotions(page, before.reading, after.reading)
  const setUp = {
    sections,
    menus,
    header,
    ...(motions.length && { motions }),
    ...(page.endSpace && { endSpace: page.endSpace }),
    ...(pictures.length && { pictures }),
    ...(scroller === null ? {} : { scroller }),
    travel,
    highlight,
  }
  return { type: 'page/revise', page: page.key, revision: { ...next, ...withLinks<SetUp>(setUp, links) } }
}

/** The same with its effects on other pages, as one step. */
export function takeOver(site: Site, key: string, before: Version, after: Version, decisions: Decisions, next: NewSource): Command {
  let now = site
  const led: Batch['commands'] = []
  for (const [section, otherwise] of Object.entries(decisions.otherwise ?? {})) {
    const page = pageOf(now, key)
    const lost = page.sections.find((s) => s.key === section)
    if (!lost || decisions.sections[section] !== null) continue
    const { commands } = dropSections(now, page, [lost], otherwise)
    now = apply(now, { type: 'batch', label: '', commands }).site
    led.push(...commands)
  }
  const revision = revisePage(pageOf(now, key), before, after, decisions, next, site.rule)
  const command = withOtherPages(now, revision)
  if (!led.length) return command
  return { type: 'batch', label: describe(revision), commands: [...led, ...(command.type === 'batch' ? command.commands : [command])] }
}

function revisedHeader({ header }: SitePage, before: Version, after: Version): HeaderChoice | null {
  if (!header) return null
  const at = sameElement(header.at, before, after) ?? (header.at === before.reading.header ? after.reading.header : null)
  return at === null ? null : { ...header, at }
}

/** The same element in the new version, by ID, else by fingerprint; null if uncertain. */
function sameElement(at: ElementAt, before: Version, after: Version): ElementAt | null {
  const was = before.parsed.byAt.get(at)
  const id = was?.attrs.get('id')
  const alike = ({ parsed }: Version) =>
    parsed.tree.all.filter((el) => el.tag === was?.tag && el.attrs.get('class') === was.attrs.get('class') && el.at >= 0)
  const [then, now] = [alike(before), alike(after)]
  const same =
    (id && after.parsed.tree.all.find((el) => el.attrs.get('id') === id)) ||
    (then.length === now.length && was ? now[then.indexOf(was)] : undefined)
  return same?.at ?? null
}

function revisedSections(
  page: SitePage,
  before: PageReading,
  after: PageReading,
  { sections, added }: Decisions,
  rule: NamingRule,
): Section[] {
  const now = new Map(after.candidates.map((c) => [c.at, c]))
  const titles = new Map(before.candidates.map((c) => [c.at, c.title]))
  const used = new Set<ElementAt>()
  const out: Section[] = []
  for (const section of page.sections) {
    const c = now.get(sections[section.key] ?? -1)
    if (!c || (!section.point && used.has(c.at))) continue
    const title = section.title === titles.get(section.at) ? c.title : section.title
    if (section.point) {
      out.push({ ...section, at: c.at, title })
      continue
    }
    used.add(c.at)
    // An ID that the page changed itself stays; links to the earlier one still arrive.
    const isPages = section.sourceId !== null && section.id === section.sourceId
    const id = isPages && c.id !== null ? c.id : section.id
    const former = id === section.id ? section.former : [...section.former.filter((f) => f !== id), section.id]
    const { block: was, ...same } = section
    const block = was === undefined || c.block === null ? {} : { block: c.block }
    out.push({ ...same, ...block, at: c.at, heading: c.heading, sourceId: c.id, title, id, former })
  }
  const taken = takenIds(after)
  for (const s of out) taken.add(s.id.toLowerCase())
  const keys = new Set(page.sections.map((s) => s.key))
  for (const at of added) {
    const c = now.get(at)
    if (!c || used.has(at)) continue
    const section = sectionFrom(c, taken, rule)
    if (keys.has(section.key)) section.key = freshKey(`s${at}-`, keys)
    keys.add(section.key)
    out.push(section)
  }
  return inPageOrder(unique(inPageOrder(out)))
}

/** Of two sections with one ID, the later one gets another. */
function unique(sections: Section[]): Section[] {
  const seen = new Set<string>()
  return sections.map((s) => {
    let id = s.id
    for (let n = 2; seen.has(id); n++) id = `${s.id}-${n}`
    seen.add(id)
    return id === s.id ? s : { ...s, id }
  })
}
