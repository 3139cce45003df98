/**
 * Findings: what is wrong or risky, each with its place, its reason and, where there is one, its fix. `rules/` has a file for each
 * code; `facts.ts` looks up for all of them what they ask.
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

/** Of a page as it was brought in, in page order. */
export function pageFindings(reading: PageReading, around: Around): Finding[] {
  const facts = pageFacts(reading, around)
  return inOrder(everyRule.flatMap(([code, rule]) => rule.inPage?.(facts).map((f) => named(code, f)) ?? []))
}

/**
 * Those that are open while a site is worked on: of the page's those that the work has not settled, and those of the work itself.
 * @param findings of the page as it was brought in
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

/** The step of the work that findings of a code belong to. */
export const taskOf = (code: FindingCode): Task => rules[code].task

/** A page with its own text and that of the files that it loads. */
export interface PageTexts {
  parsed: ParsedPage
  reading: PageReading
  /** Paths of files that the page names and that did not come along. */
  missing: ReadonlySet<string>
  /** The text of those that it loads. */
  scripts: readonly string[]
  styles: readonly string[]
}

export interface Known {
  /** Names that its scripts read and nothing declares. */
  undeclared: Set<string>
  /** IDs that its styles and scripts name. */
  named: NamedIds
  findings: Finding[]
}

/** What is known of a page by them. */
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
