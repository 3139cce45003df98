/**
 * Findings: what is wrong or risky, with place, reason and, if there is one, a fix. `rules/` has a file for each code; `facts.ts` has
 * the lookups.
 */
import {
  inlineScripts,
  inlineStyles,
  namedIds,
  registersWorker,
  undeclaredNames,
  type NamedIds,
  type PageReading,
  type ParsedPage,
} from '../page/index.ts'
import { pageFacts, siteFacts, type Around, type SiteInput } from './facts.ts'
import type { Draft, Rule, Severity, Task } from './finding.ts'
import { rules } from './rules/index.ts'

export type { Around, MeasuringTrouble, SiteInput } from './facts.ts'
export type { Fix, Severity, Task, Where } from './finding.ts'
export { allArrive, outcomeOf, outcomeText, type Outcome } from './outcome.ts'
export { takePresses } from './tried.ts'

export type FindingCode = keyof typeof rules

export interface Finding extends Draft {
  code: FindingCode
  severity: Severity
}

const everyRule = Object.entries(rules) as [FindingCode, Rule][]
const named = (code: FindingCode, draft: Draft): Finding => ({ ...draft, code, severity: draft.severity ?? rules[code].severity })
const inOrder = (findings: Finding[]): Finding[] => findings.sort((a, b) => a.line - b.line || a.column - b.column)

/** Findings of a page as it came, in page order. */
export function pageFindings(reading: PageReading, around: Around): Finding[] {
  const facts = pageFacts(reading, around)
  return inOrder(everyRule.flatMap(([code, rule]) => rule.inPage?.(facts).map((f) => named(code, f)) ?? []))
}

/**
 * Open findings while a site is worked on: the page's that aren't resolved, and those of the work.
 * @param findings of the page as it came
 */
export function openFindings(input: SiteInput, findings: readonly Finding[]): Finding[] {
  const facts = siteFacts(input)
  if (!input.page.sections.length) {
    const always = everyRule.flatMap(([code, rule]) => (rule.always ? (rule.inSite?.(facts).map((f) => named(code, f)) ?? []) : []))
    return inOrder([...findings, ...always])
  }
  const left = findings.flatMap((finding): Finding[] => {
    const rule: Rule = rules[finding.code]
    const still = rule.whileOpen ? rule.whileOpen(finding, facts) : finding
    return still ? [{ ...finding, ...still }] : []
  })
  const own = everyRule.flatMap(([code, rule]) => rule.inSite?.(facts).map((f) => named(code, f)) ?? [])
  return inOrder([...left, ...own])
}

/** The task that a code belongs to. */
export const taskOf = (code: FindingCode): Task => rules[code].task

/** A page with its own text and that of its files. */
export interface PageTexts {
  parsed: ParsedPage
  reading: PageReading
  /** Paths of missing files. */
  missing: ReadonlySet<string>
  /** Text of the scripts that it loads. */
  scripts: readonly string[]
  styles: readonly string[]
}

export interface Known {
  /** Names that its scripts read and nothing declares. */
  undeclared: Set<string>
  /** IDs used by its styles and scripts. */
  named: NamedIds
  findings: Finding[]
}

/** What these say about a page. */
export function knownOf({ parsed, reading, missing, scripts, styles }: PageTexts): Known {
  const all = [...inlineScripts(parsed.tree), ...scripts]
  const undeclared = undeclaredNames(all)
  const named = namedIds(
    reading.ids.map((i) => i.id),
    [...inlineStyles(parsed.tree), ...styles],
    all,
  )
  return { undeclared, named, findings: pageFindings(reading, { missing, undeclared, registersWorker: registersWorker(all) }) }
}
