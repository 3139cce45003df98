/** Which IDs belong to whom. */
import type { IdContext, Owner } from '../naming/index.ts'
import type { ElementAt, PageReading, ReadId } from '../page/index.ts'
import type { Section, Site, SitePage } from '../site/index.ts'

interface Owned extends Owner {
  /** Key of the section. */
  section: string
}

interface Index {
  /** Elements that are sections. */
  elements: ReadonlySet<ElementAt>
  /** By ID in lower case. */
  sections: Map<string, Owned[]>
  /** By former ID in lower case. */
  former: Map<string, { id: string; section: Section }[]>
}

// Pages of the document and readings never change, so an index stays valid as long as they exist,
// and a change to one section doesn't go through ten thousand elements again.
const indexes = new WeakMap<SitePage, Index>()
const readIds = new WeakMap<PageReading, Map<string, ReadId[]>>()

function put<T>(map: Map<string, T[]>, id: string, entry: T): void {
  const lower = id.toLowerCase()
  const list = map.get(lower)
  if (list) list.push(entry)
  else map.set(lower, [entry])
}

function indexOf(page: SitePage): Index {
  const known = indexes.get(page)
  if (known) return known
  const index: Index = {
    elements: new Set(page.sections.filter((s) => !s.point).map((s) => s.at)),
    sections: new Map(),
    former: new Map(),
  }
  for (const s of page.sections) {
    put(index.sections, s.id, { id: s.id, what: `The section “${s.title}”`, section: s.key })
    for (const former of s.former) put(index.former, former, { id: former, section: s })
  }
  indexes.set(page, index)
  return index
}

function idsOf(reading: PageReading): Map<string, ReadId[]> {
  const known = readIds.get(reading)
  if (known) return known
  const ids = new Map<string, ReadId[]>()
  for (const entry of reading.ids) if (entry.id !== '') put(ids, entry.id, entry)
  readIds.set(reading, ids)
  return ids
}

/** What a section's ID may clash with. */
export function idContext(
  { site, page, reading, undeclared }: { site: Site; page: SitePage; reading: PageReading; undeclared: ReadonlySet<string> },
  section: Section,
): IdContext {
  const { elements, sections, former } = indexOf(page)
  const read = idsOf(reading)
  return {
    rule: site.rule,
    owners: (lower) => [
      ...(read.get(lower) ?? [])
        .filter((r) => !elements.has(r.at))
        .map(({ id, tag, line }) => ({ id, what: `The ${tag} on line ${line}` })),
      ...(sections.get(lower) ?? []).filter((o) => o.section !== section.key),
    ],
    formerOwner: (id) => former.get(id.toLowerCase())?.find((f) => f.section.key !== section.key)?.section.title ?? null,
    undeclared,
    title: section.title,
  }
}
