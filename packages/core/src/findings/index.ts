/** Findings: what is wrong or risky, each with its place, its reason and, where there is one, its fix. */
export type { Finding, FindingCode, Severity } from './codes.ts'
export { pageFindings, type Around } from './page.ts'
export { openFindings, type OpenInput } from './open.ts'
