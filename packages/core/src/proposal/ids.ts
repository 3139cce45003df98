/** Which IDs of a page belong to whom. */
import type { IdContext, Owner } from '../naming/index.ts'
import type { PageReading } from '../page/index.ts'
import type { Section, Site, SitePage } from '../site/index.ts'

interface Owned extends Owner {
  /** Key of the section, null for another element. */
  section: string | null
}

interface Index {
  reading: PageReading
  /** By ID in lower case. */
  owners: Map<string, Owned[]>
  /** By former ID in lower case. */
  former: Map<string, { id: string; section: Section }[]>
}

// A page of the document never changes; one with a change is another. So what was worked out for it holds as long as it is there.
const indexes = new WeakMap<SitePage, Index>()

function indexOf(page: SitePage, reading: PageReading): Index {
  const known = indexes.get(page)
  if (known?.reading === reading) return known
  const index: Index = { reading, owners: new Map(), former: new Map() }
  const put = <T>(map: Map<string, T[]>, id: string, entry: T) => {
    const list = map.get(id.toLowerCase())
    if (list) list.push(entry)
    else map.set(id.toLowerCase(), [entry])
  }
  const elements = new Set(page.sections.filter((s) => !s.point).map((s) => s.at))
  for (const { id, at, tag, line } of reading.ids)
    if (id !== '' && !elements.has(at)) put(index.owners, id, { id, what: `The ${tag} on line ${line}`, section: null })
  for (const s of page.sections) {
    put(index.owners, s.id, { id: s.id, what: `The section “${s.title}”`, section: s.key })
    for (const former of s.former) put(index.former, former, { id: former, section: s })
  }
  indexes.set(page, index)
  return index
}

/** What an ID for `section` must keep apart from. */
export function idContext(
  { site, page, reading, undeclared }: { site: Site; page: SitePage; reading: PageReading; undeclared: ReadonlySet<string> },
  section: Section,
): IdContext {
  const { owners, former } = indexOf(page, reading)
  return {
    rule: site.rule,
    owners: (lower) => (owners.get(lower) ?? []).filter((o) => o.section !== section.key),
    formerOwner: (id) => former.get(id.toLowerCase())?.find((f) => f.section.key !== section.key)?.section.title ?? null,
    undeclared,
    title: section.title,
  }
}
