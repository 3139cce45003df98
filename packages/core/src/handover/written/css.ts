/** CSS as readable text: one declaration per line, and a comment before each group of rules. */

import { from, joined, only, saidAnew, type Range } from '../ranges.ts'
import { mediaQuery } from '../viewports.ts'

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

/** One rule for each range whose figure differs from the one before. */
export const byScreen = <T>(ranges: readonly Range[], figures: readonly T[], write: (figure: T) => string): string[] =>
  saidAnew(ranges, figures).map(({ range, figure }) => media(from(range), [write(figure)]))

/**
 * One block for each text, with the ranges that it's for.
 * @param texts rules; null for none
 * @param limit on the viewport's height, in px for each range; 0 for none
 */
export function forScreens(
  ranges: readonly Range[],
  texts: readonly (string | null)[],
  limit?: { is: 'over' | 'upTo'; px: readonly number[] },
): string[] {
  return [...new Set(texts)].flatMap((text) => {
    if (text === null) return []
    const limits = texts.map((other, i) => (other === text ? (limit?.px[i] ?? 0) : null))
    const viewports = joined(ranges, limits).flatMap(({ range, figure }) =>
      figure === null ? [] : only(range, limit && figure ? { [limit.is]: figure } : {}),
    )
    const query = mediaQuery(viewports)
    return query === null ? [] : [media(query, [text])]
  })
}
