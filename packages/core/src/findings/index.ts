/** Findings: what is wrong or risky on a page, each with its place and reason. */
import { hasSpace, isSelector } from '../naming/index.ts'
import { decodeFragment, type ElementAt, type Place, type PageReading } from '../page/index.ts'
import type { SitePage } from '../site/index.ts'

export type FindingCode = 'link-broken' | 'link-case' | 'id-duplicate' | 'id-space' | 'id-selector' | 'heading-missing' | 'asset-missing'
export type Severity = 'error' | 'warning' | 'note'

export interface Finding extends Place {
  code: FindingCode
  severity: Severity
  message: string
  /** The element that it is about. */
  at: ElementAt | null
}

/**
 * Findings of a page as it was brought in, in page order.
 * @param missing paths of files that the page names and that did not come along
 */
export function pageFindings(reading: PageReading, missing: ReadonlySet<string>): Finding[] {
  const out: Finding[] = []
  const firstOf = new Map<string, PageReading['ids'][number]>()
  const lower = new Map<string, string>()
  const linked = new Set(reading.links.flatMap((l) => (l.fragment ? [l.fragment, decodeFragment(l.fragment)] : [])))
  for (const entry of reading.ids) {
    const { id, line, column } = entry
    const place = { line, column, at: entry.at }
    const first = firstOf.get(id)
    if (first) {
      out.push({
        code: 'id-duplicate',
        severity: linked.has(id) ? 'error' : 'warning',
        message: `The ID “${id}” stands on line ${first.line} already; links go to that one. Give this element another ID.`,
        ...place,
      })
      continue
    }
    firstOf.set(id, entry)
    if (!lower.has(id.toLowerCase())) lower.set(id.toLowerCase(), id)
    if (hasSpace(id)) out.push({ code: 'id-space', severity: 'error', message: `The ID “${id}” holds white space, which an ID must not; use a hyphen.`, ...place })
    else if (!isSelector(id))
      out.push({ code: 'id-selector', severity: 'warning', message: `The ID “${id}” is no CSS selector as it stands; styles and scripts must escape it.`, ...place })
  }
  for (const link of reading.links) {
    if (link.status !== 'broken' || link.fragment === null) continue
    const place = { line: link.line, column: link.column, at: link.at }
    const wanted = decodeFragment(link.fragment)
    const other = lower.get(wanted.toLowerCase())
    out.push(
      other && other !== wanted
        ? { code: 'link-case', severity: 'error', message: `The link to “#${wanted}” finds nothing: the ID is “${other}”. Write it the same way.`, ...place }
        : { code: 'link-broken', severity: 'error', message: `The link to “#${wanted}” has no target on this page. Give a section this ID, or link to another.`, ...place },
    )
  }
  for (const c of reading.candidates) {
    if (c.offered && c.heading === null)
      out.push({ code: 'heading-missing', severity: 'warning', message: `The section “${c.title}” (${c.tag}) has no heading; a visitor who arrives cannot tell where.`, line: c.line, column: c.column, at: c.at })
  }
  for (const asset of reading.assets) {
    if (missing.has(asset.path))
      out.push({ code: 'asset-missing', severity: 'warning', message: `The file “${asset.path}” is not there; the page will look different without it.`, line: asset.line, column: asset.column, at: null })
  }
  return out.sort((a, b) => a.line - b.line || a.column - b.column)
}

/** Those that the designer's work has not settled yet. */
export function openFindings(page: SitePage, reading: PageReading, findings: readonly Finding[]): Finding[] {
  if (!page.sections.length) return [...findings]
  const sections = new Map(page.sections.map((s) => [s.at, s]))
  const ids = new Set(page.sections.map((s) => s.id))
  const items = new Map(page.menus.flatMap((m) => m.items).map((i) => [i.link, i]))
  const links = new Map(reading.links.map((l) => [l.at, l]))
  const hadId = new Map(reading.ids.map((i) => [i.at, i.id]))
  return findings.filter(({ code, at }) => {
    if (at === null) return true
    if (code === 'link-broken' || code === 'link-case') {
      const item = items.get(at)
      if (item && item.target.kind !== 'as-is') return false
      return !ids.has(decodeFragment(links.get(at)?.fragment ?? ''))
    }
    if (code === 'heading-missing') return sections.has(at)
    const section = sections.get(at)
    return !section || section.id === hadId.get(at)
  })
}
