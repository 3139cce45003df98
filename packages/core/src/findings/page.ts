/** Findings of a page as it was brought in. */
import { hasSpace, isSelector } from '../naming/index.ts'
import { decodeFragment, type PageReading, type ReadId } from '../page/index.ts'
import type { Finding } from './codes.ts'

/** What is known of a page beside its own text. */
export interface Around {
  /** Paths of files that the page names and that did not come along. */
  missing: ReadonlySet<string>
  /** Names that its scripts read and nothing declares. */
  undeclared: ReadonlySet<string>
}

type Fault = Pick<Finding, 'code' | 'severity' | 'message'>

/** In page order; without fixes, since there is no site yet that a command could change. */
export function pageFindings(reading: PageReading, around: Around): Finding[] {
  const out: Finding[] = [...idFindings(reading, around.undeclared), ...linkFindings(reading)]
  for (const c of reading.candidates) {
    if (c.offered && c.heading === null)
      out.push({
        code: 'heading-missing',
        severity: 'warning',
        message: `The section “${c.title}” (${c.tag}) has no heading; a visitor who arrives cannot tell where.`,
        line: c.line,
        column: c.column,
        at: c.at,
        fix: null,
      })
  }
  for (const asset of reading.assets) {
    if (around.missing.has(asset.path))
      out.push({
        code: 'asset-missing',
        severity: 'warning',
        message: `The file “${asset.path}” is not there; the page will look different without it.`,
        line: asset.line,
        column: asset.column,
        at: null,
        fix: null,
      })
  }
  return out.sort((a, b) => a.line - b.line || a.column - b.column)
}

function idFindings(reading: PageReading, undeclared: ReadonlySet<string>): Finding[] {
  const out: Finding[] = []
  const firstOf = new Map<string, ReadId>()
  const byLower = new Map<string, ReadId>()
  const linked = new Set(
    reading.links.flatMap((l) => (l.target === null || l.fragment === null ? [] : [l.fragment, decodeFragment(l.fragment)])),
  )
  for (const entry of reading.ids) {
    const { id, line, column, at } = entry
    const add = (fault: Fault) => out.push({ ...fault, line, column, at, fix: null })
    if (id === '') {
      add({
        code: 'id-empty',
        severity: 'warning',
        message: 'The ID is empty, which an ID must not be; give it a name, or take the attribute away.',
      })
      continue
    }
    const first = firstOf.get(id)
    if (first) {
      add({
        code: 'id-duplicate',
        severity: linked.has(id) ? 'error' : 'warning',
        message: `The ID “${id}” stands on line ${first.line} already; links go to that one. Give this element another ID.`,
      })
      continue
    }
    firstOf.set(id, entry)
    const fault = faultOf(id, undeclared, byLower.get(id.toLowerCase()))
    if (fault) add(fault)
    byLower.set(id.toLowerCase(), byLower.get(id.toLowerCase()) ?? entry)
    if (entry.isHidden && linked.has(id))
      add({
        code: 'section-hidden',
        severity: 'error',
        message: `The element with the ID “${id}” is hidden and has no place on the page; links to it do nothing.`,
      })
    else if (entry.isEmpty)
      add({
        code: 'section-empty',
        severity: 'warning',
        message: `The section “${id}” holds neither words nor a picture; a visitor who arrives sees what follows it.`,
      })
  }
  return out
}

function faultOf(id: string, undeclared: ReadonlySet<string>, near: ReadId | undefined): Fault | null {
  if (hasSpace(id))
    return { code: 'id-space', severity: 'error', message: `The ID “${id}” holds white space, which an ID must not; use a hyphen.` }
  if (id.startsWith('#'))
    return {
      code: 'id-hash',
      severity: 'error',
      message: `The ID “${id}” begins with #; a link to it would need two. Leave the # to the links.`,
    }
  if (near)
    return {
      code: 'id-case',
      severity: 'warning',
      message: `The ID “${id}” differs only in case from “${near.id}” on line ${near.line}; links and people mistake one for the other.`,
    }
  if (!isSelector(id))
    return {
      code: 'id-selector',
      severity: 'warning',
      message: `The ID “${id}” is no CSS selector as it stands; styles and scripts must escape it.`,
    }
  if (id === 'top')
    return { code: 'id-reserved', severity: 'note', message: 'Links to “#top” come to this element and not to the top of the page.' }
  if (undeclared.has(id))
    return {
      code: 'id-shadow',
      severity: 'warning',
      message: `A script of the page reads the name “${id}” without declaring it; this element takes its place.`,
    }
  return null
}

function linkFindings(reading: PageReading): Finding[] {
  const lower = new Map<string, string>()
  for (const { id } of reading.ids) if (!lower.has(id.toLowerCase())) lower.set(id.toLowerCase(), id)
  return reading.links.flatMap((link): Finding[] => {
    if (link.status !== 'broken' || link.fragment === null) return []
    const place = { line: link.line, column: link.column, at: link.at, fix: null }
    const wanted = decodeFragment(link.fragment)
    const other = lower.get(wanted.toLowerCase())
    return [
      other && other !== wanted
        ? {
            code: 'link-case',
            severity: 'error',
            message: `The link to “#${wanted}” finds nothing: the ID is “${other}”. Write it the same way.`,
            ...place,
          }
        : {
            code: 'link-broken',
            severity: 'error',
            message: `The link to “#${wanted}” has no target on this page. Give a section this ID, or link to another.`,
            ...place,
          },
    ]
  })
}
