/** Lookups that rules share, for a page and a site. */
import { decodeFragment } from '../contract/index.ts'
import { bellMap, type Stretch } from '../highlight/index.ts'
import { faultOf } from '../naming/index.ts'
import { hostedIds, type ElementAt, type NamedIds, type PageLink, type PageReading, type Place, type ReadId } from '../page/index.ts'
import type { Item, KnownOutside, Menu, Section, Site, SitePage } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'
import { judgeTried, type Tried, type TryVerdict } from '../walk/index.ts'

/** What is known of a page besides its text. */
export interface Around {
  /** Paths of files that the page asks for and that are missing. */
  missing: ReadonlySet<string>
  /** Names that its scripts read and nothing declares. */
  undeclared: ReadonlySet<string>
  /** A script registers a service worker. */
  registersWorker: boolean
}

export interface KnownId {
  entry: ReadId
  /** The earlier element with the same ID; null for the first. */
  first: ReadId | null
  fault: ReturnType<typeof faultOf>
}

export interface PageFacts {
  reading: PageReading
  missing: ReadonlySet<string>
  /** Every ID of the page, in page order. */
  ids: readonly KnownId[]
  /** IDs that links ask for: as written and percent-decoded. */
  asked: ReadonlySet<string>
  registersWorker: boolean
}

export function pageFacts(reading: PageReading, { missing, undeclared, registersWorker }: Around): PageFacts {
  const firstOf = new Map<string, ReadId>()
  const byLower = new Map<string, ReadId>()
  // IDs of ours are as intended.
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

/** The page doesn't answer; reloads itself repeatedly; differs at every measurement. */
export type MeasuringTrouble = 'silent' | 'reloads' | 'restless'

/** Input for the findings of a site. */
export interface SiteInput {
  site: Site
  page: SitePage
  reading: PageReading
  undeclared: ReadonlySet<string>
  /** IDs used by the page's styles and scripts. */
  named: NamedIds
  /** IDs handed over before. */
  known: KnownOutside
  /** By screen key. */
  surveys: Readonly<Record<string, Survey>>
  /** Tried menu links, by screen key; only screens that were tried. */
  tried: Readonly<Record<string, readonly Tried[]>>
  /** What keeps the page from being measured correctly; absent for nothing. */
  trouble?: MeasuringTrouble | null
}

export interface SiteFacts extends SiteInput {
  /** Sections that are elements. */
  sections: ReadonlyMap<ElementAt, Section>
  /** Items by their links in the source. */
  items: ReadonlyMap<ElementAt, { menu: Menu; item: Item }>
  links: ReadonlyMap<ElementAt, PageLink>
  /** Each element's ID in the source. */
  hadId: ReadonlyMap<ElementAt, string>
  placeOf: (at: ElementAt) => Place
  /** By screen key, computed when a rule first asks; null or empty if the page wasn't measured or tried. */
  bellsOn: (screen: string) => readonly Stretch[]
  verdictsOn: (screen: string) => readonly TryVerdict[]
}

/** Caches `of` by key. */
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
