/** `waybell check`: what a page has, and its findings. */
import { knownOf, parsePage, readParsed, type PageReading } from '@waybell/core'
import { readFileSync } from 'node:fs'
import { basename } from 'node:path'
import { localFiles, type LocalFile } from './files.ts'

export function check(pageFile: string): { report: object; failed: boolean; text: string } {
  const bytes = readFileSync(pageFile)
  const parsed = parsePage(bytes)
  const reading = readParsed(parsed, bytes.length, basename(pageFile))
  const { found, missing } = localFiles(pageFile, reading)
  const { findings } = knownOf({ parsed, reading, missing, ...textsOf(found) })
  const report = {
    file: pageFile,
    sections: reading.candidates.filter((c) => c.offered).map(({ id, title, line, depth }) => ({ id, title, line, depth })),
    links: reading.links.map(({ href, line, status }) => ({ href, line, status })),
    findings: findings.map(({ code, severity, message, line, column }) => ({ code, severity, message, line, column })),
  }
  return { report, failed: findings.some((f) => f.severity === 'error'), text: asText(pageFile, reading, report) }
}

/** Text of the page's files, by kind. */
export function textsOf(files: readonly LocalFile[]): { scripts: string[]; styles: string[] } {
  const read = (kind: RegExp) => files.filter((f) => kind.test(f.path)).map((f) => readFileSync(f.file, 'utf8'))
  return { scripts: read(/\.m?js$/i), styles: read(/\.css$/i) }
}

function asText(
  file: string,
  reading: PageReading,
  report: { findings: { severity: string; line: number; column: number; message: string; code: string }[] },
): string {
  const sections = reading.candidates.filter((c) => c.offered)
  return [
    `${file}: ${sections.length} sections, ${reading.links.length} links, ${report.findings.length} findings`,
    ...sections.map((c) => `  ${'  '.repeat(c.depth)}${c.title}  ${c.id === null ? '(no ID)' : '#' + c.id}  line ${c.line}`),
    ...report.findings.map((f) => `  ${f.severity} ${f.code} ${f.line}:${f.column}  ${f.message}`),
  ].join('\n')
}
