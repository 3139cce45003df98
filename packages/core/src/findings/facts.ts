/** What rules ask of a page and of a site, looked up once for all of them. */
import { decodeFragment } from '../contract/index.ts'
import { bellMap, type Stretch } from '../highlight/index.ts'
import { faultOf } from '../naming/index.ts'
import { hostedIds, type ElementAt, type NamedIds, type PageLink, type PageReading, type Place, type ReadId } from '../page/index.ts'
import type { Item, KnownOutside, Menu, Section, Site, SitePage } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'
import { judgeTried, type Tried, type TryVerdict } from '../walk/index.ts'

/** What is known of a page beside its own text. */
export interface Around {
  /** Paths of files that the page names and that did not come along. */
  missing: ReadonlySet<string>
  /** Names that its scripts read and nothing declares. */
  undeclared: ReadonlySet<string>
  /** A script would have a worker answer for the page. */
  registersWorker: boolean
}

export interface KnownId {
  entry: ReadId
  /** The element that has the same ID before this one; null for the first. */
  first: ReadId | null
  fault: ReturnType<typeof faultOf>
}

export interface PageFacts {
  reading: PageReading
  missing: ReadonlySet<string>
  /** Every ID of the page, in page order. */
  ids: readonly KnownId[]
  /** What links ask for: as written and percent-decoded. */
  asked: ReadonlySet<string>
  registersWorker: boolean
}

export function pageFacts(reading: PageReading, { missing, undeclared, registersWorker }: Around): PageFacts {
  const firstOf = new Map<string, ReadId>()
  const byLower = new Map<string, ReadId>()
  // Those that we gave are as they are to be.
  const ours = hostedIds(reading)
  const ids = reading.ids
    .filter(({ id, at }) => ours.get(id) !== at)
    .map((entry): KnownId => {
      const { id } = entry
      const lower = id.toLowerCase()
      const first = (id !== '' && firstOf.get(id)) || null
      const near = byLower.get(lower)
      if (!first) firstOf.set(id, entry)
      if (!near) byLower.set(lower, entry)
      const owners = () => (near && near.id !== id ? [{ id: near.id, what: `The ${near.tag} on line ${near.line}` }] : [])
      return { entry, first, fault: first ? null : faultOf(id, { owners, formerOwner: () => null, undeclared }) }
    })
  const asked = new Set(
    reading.links.flatMap((l) => (l.target === null || l.fragment === null ? [] : [l.fragment, decodeFragment(l.fragment)])),
  )
  return { reading, missing, ids, asked, registersWorker }
}

/** The page answers nothing; loads itself again and again; is another at every look. */
export type MeasuringTrouble = 'silent' | 'reloads' | 'restless'

/** What a site is judged by. */
export interface SiteInput {
  site: Site
  page: SitePage
  reading: PageReading
  undeclared: ReadonlySet<string>
  /** IDs that the page's styles and scripts name. */
  named: NamedIds
  /** IDs that were handed over before. */
  known: KnownOutside
  /** By screen key. */
  surveys: Readonly<Record<string, Survey>>
  /** What became of the links of the page's menus when they were tried, by screen key; of screens that were. */
  tried: Readonly<Record<string, readonly Tried[]>>
  /** What keeps the page from being measured rightly; absent for nothing. */
  trouble?: MeasuringTrouble | null
}

export interface SiteFacts extends SiteInput {
  /** Sections that are elements. */
  sections: ReadonlyMap<ElementAt, Section>
  /** Items of the page's own links. */
  items: ReadonlyMap<ElementAt, { menu: Menu; item: Item }>
  links: ReadonlyMap<ElementAt, PageLink>
  /** The ID that each element has in the source. */
  hadId: ReadonlyMap<ElementAt, string>
  placeOf: (at: ElementAt) => Place
  /** By screen key, each worked out once, when a rule first asks for it; null and nothing where the page wasn't measured or tried. */
  bellsOn: (screen: string) => readonly Stretch[]
  verdictsOn: (screen: string) => readonly TryVerdict[]
}

/** What `of` gives for each key, worked out once. */
function once<T>(of: (key: string) => T): (key: string) => T {
  const known = new Map<string, T>()
  return (key) => {
    if (!known.has(key)) known.set(key, of(key))
    return known.get(key)!
  }
}

export function siteFacts(input: SiteInput): SiteFacts {
  const { page, reading, surveys, tried } = input
  const places = new Map<ElementAt, Place>()
  for (const { at, line, column } of [...reading.ids, ...reading.candidates]) places.set(at, { line, column })
  return {
    ...input,
    sections: new Map(page.sections.filter((s) => !s.point).map((s) => [s.at, s])),
    items: new Map(page.menus.flatMap((menu) => menu.items.flatMap((item) => item.links.map((link) => [link, { menu, item }] as const)))),
    links: new Map(reading.links.map((l) => [l.at, l])),
    hadId: new Map(reading.ids.map((i) => [i.at, i.id])),
    placeOf: (at) => places.get(at) ?? { line: 1, column: 1 },
    bellsOn: once((screen) => (surveys[screen] ? bellMap(page, surveys[screen]) : [])),
    verdictsOn: once((screen) => judgeTried(page, surveys[screen] ?? null, tried[screen] ?? [])),
  }
}
