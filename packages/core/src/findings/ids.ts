/** Shared by the rules about a single ID. */
import { soundId, type IdCode } from '../naming/index.ts'
import { idContext } from '../proposal/index.ts'
import { renameSection, type Section } from '../site/index.ts'
import type { SiteFacts } from './facts.ts'
import type { Fix, Draft, Rule, Severity } from './finding.ts'

export function renameFix(site: SiteFacts, section: Section): Fix {
  const id = soundId(section.id, idContext(site, section))
  return { label: `Rename to “${id}”`, command: renameSection(site.page.key, section, id, site.known) }
}

/** Resolved once the element is a section with another ID. */
export function untilRenamed(draft: Draft, site: SiteFacts): Draft | null {
  const at = draft.where.at!
  const section = site.sections.get(at)
  if (!section) return draft
  return section.id === site.hadId.get(at) ? { ...draft, fix: renameFix(site, section) } : null
}

/** Finds elements whose ID has a fault. */
export const idRule = (code: IdCode, severity: Severity): Rule => ({
  severity,
  task: 'sections',
  inPage: ({ ids }) =>
    ids.flatMap(({ entry, fault }) =>
      fault?.code === code ? { message: fault.message, line: entry.line, column: entry.column, where: { at: entry.at }, fix: null } : [],
    ),
  whileOpen: untilRenamed,
})
