/** CSS as readable text: one declaration per line, and a comment before each group of rules. */

import { from, saidAnew, type Range } from '../ranges.ts'

/** @param declarations each with its semicolon and maybe a comment */
export const rule = (selector: string, declarations: readonly string[]): string => `${selector} {\n${indent(declarations)}\n}`

/** Rules in a media query; plain for an empty query. */
export const media = (query: string, rules: readonly string[]): string =>
  query && rules.length ? `@media ${query} {\n${indent(rules)}\n}` : rules.join('\n')

/** Keeps text from ending the comment or the style element. */
export const comment = (text: string): string =>
  `/* ${text.replace(/\*\//g, '* /').replace(/</g, '(').replace(/’/g, "'").replace(/[“”]/g, '"')} */`

/** Empty without rules. */
export const group = (why: string, rules: readonly string[]): string[] => {
  const there = rules.filter(Boolean)
  return there.length ? [`${comment(why)}\n${there.join('\n')}`] : []
}

const indent = (lines: readonly string[]) =>
  lines
    .join('\n')
    .split('\n')
    .map((line) => `  ${line}`)
    .join('\n')

export const px = (n: number) => `${Math.round(n * 100) / 100}px`

/** One rule for each range with the same figure. */
export const byScreen = <T>(ranges: readonly Range[], figures: readonly T[], write: (figure: T) => string): string[] =>
  saidAnew(ranges, figures).map(({ range, figure }) => media(from(range), [write(figure)]))
