/** Style as text that can be read: a rule over several lines, and before a group of rules what it is for. */

import { from, saidAnew, type Range } from '../ranges.ts'

/** @param declarations each with its semicolon, and a comment behind it where there is one */
export const rule = (selector: string, declarations: readonly string[]): string => `${selector} {\n${indent(declarations)}\n}`

/** The rules under a media query; the same without one where that is empty. */
export const media = (query: string, rules: readonly string[]): string =>
  query && rules.length ? `@media ${query} {\n${indent(rules)}\n}` : rules.join('\n')

/** Words that end neither the comment nor the element that holds the style. */
export const comment = (text: string): string =>
  `/* ${text.replace(/\*\//g, '* /').replace(/</g, '(').replace(/’/g, "'").replace(/[“”]/g, '"')} */`

/** Nothing where there is no rule. */
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

/** A rule for each range in which a figure is the same. */
export const byScreen = <T>(ranges: readonly Range[], figures: readonly T[], write: (figure: T) => string): string[] =>
  saidAnew(ranges, figures).map(({ range, figure }) => media(from(range), [write(figure)]))
