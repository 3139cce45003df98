/** Rows of the Sections sheet: sections in the chosen order, with the candidates in their stretch. */
import { depthsOf, hashOf, relativePath, type Candidate, type PageReading, type Section, type SitePage } from '@waybell/core'

export type Filter = 'all' | 'sections' | 'parts' | 'findings'
export type Sort = 'page' | 'title' | 'id'

export type Row =
  | { kind: 'section'; key: string; section: Section; index: number; depth: number; parts: number }
  | { kind: 'part'; key: string; candidate: Candidate; depth: number }
  /** Candidates before the first section, folded. */
  | { kind: 'fold'; key: string; parts: number; depth: number }

export interface RowsInput {
  page: SitePage
  reading: PageReading
  query: string
  filter: Filter
  sort: Sort
  /** Keys of unfolded rows. */
  open: ReadonlySet<string>
  /** Elements with open findings. */
  faulty: ReadonlySet<number>
}

export const BEFORE = 'before'

/** Candidates by the section in whose stretch they are; those before the first under `BEFORE`. */
export function partsBySection(page: SitePage, reading: PageReading): Map<string, Candidate[]> {
  const chosen = new Set(page.sections.filter((s) => !s.point).map((s) => s.at))
  const elements = page.sections.filter((s) => !s.point)
  const out = new Map<string, Candidate[]>()
  let n = 0
  for (const candidate of reading.candidates) {
    if (chosen.has(candidate.at)) continue
    while (n < elements.length && elements[n]!.at < candidate.at) n++
    const key = elements[n - 1]?.key ?? BEFORE
    const list = out.get(key)
    if (list) list.push(candidate)
    else out.set(key, [candidate])
  }
  return out
}

const holds = (query: string, ...texts: string[]) => {
  const wanted = query.trim().toLocaleLowerCase()
  return wanted === '' || texts.some((t) => t.toLocaleLowerCase().includes(wanted))
}

export function buildRows(input: RowsInput): Row[] {
  const { page, reading, query, filter, sort, open, faulty } = input
  const parts = partsBySection(page, reading)
  const depths = depthsOf(page.sections)
  const byName = new Intl.Collator(undefined, { numeric: true })
  const shown = page.sections.map((section, index) => ({ section, index, depth: sort === 'page' ? depths[index]! : 0 }))
  if (sort !== 'page')
    shown.sort(
      (a, b) =>
        byName.compare(sort === 'title' ? a.section.title : a.section.id, sort === 'title' ? b.section.title : b.section.id) ||
        a.index - b.index,
    )
  const rows: Row[] = []
  // A search includes folded rows.
  const looking = query.trim() !== '' || filter === 'parts'
  const addParts = (key: string, depth: number) => {
    const list = parts.get(key) ?? []
    if (filter === 'sections' || filter === 'findings' || !(looking || open.has(key))) return
    for (const c of list)
      if (holds(query, c.title, c.id ?? '')) rows.push({ kind: 'part', key: `c${c.at}`, candidate: c, depth: depth + c.depth })
  }
  const before = parts.get(BEFORE)?.length ?? 0
  if (before && filter === 'all' && !looking) rows.push({ kind: 'fold', key: BEFORE, parts: before, depth: 0 })
  addParts(BEFORE, 0)
  for (const { section, index, depth } of shown) {
    const isFaulty = faulty.has(section.at) && !section.point
    if (filter !== 'parts' && (filter !== 'findings' || isFaulty) && holds(query, section.title, section.id, ...section.former))
      rows.push({
        kind: 'section',
        key: section.key,
        section,
        index,
        depth,
        parts: filter === 'all' ? (parts.get(section.key)?.length ?? 0) : 0,
      })
    addParts(section.key, depth)
  }
  return rows
}

/** The sections as a table for pasting: tabs between columns, line ends between rows. */
/** @param site the site's public address; null if unknown */
export function asTable(
  page: SitePage,
  sections: readonly Section[],
  typed: (id: string) => string | null,
  site: string | null = null,
): string {
  // Tabs and line ends would split a cell.
  const cell = (text: string) => text.replace(/[\t\r\n]+/g, ' ')
  const numbers = new Map(page.sections.map((s, i) => [s, i + 1]))
  const rows = sections.map((s) =>
    [String(numbers.get(s)), s.title, s.id, typed(s.id) ?? '', ...addressesOf(page, s, site), s.former.join(' ')].map(cell).join('\t'),
  )
  const whole = site === null ? '' : '\twhole address'
  return [`number\ttitle\tID\ttype this there\tlink here\tlink from elsewhere${whole}\tformer IDs`, ...rows].join('\n')
}

/** A section's link on its own page, on other pages, and in full if the site's address is known. */
export const addressesOf = (page: SitePage, { id }: Section, site: string | null): string[] => [
  hashOf(id),
  relativePath(page.file, page.file) + hashOf(id),
  ...(site === null ? [] : [site + relativePath('', page.file) + hashOf(id)]),
]

/** A spreadsheet column, one value per line, without empty lines at the end. */
export function fromColumn(text: string): string[] {
  const lines = text.split(/\r\n|\r|\n/).map((l) => (l.split('\t')[0] ?? '').trim())
  while (lines.length && lines.at(-1) === '') lines.pop()
  return lines
}
