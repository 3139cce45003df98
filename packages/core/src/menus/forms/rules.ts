/** CSS that several forms share. */
import { COVER } from '../../contract/index.ts'

/** Formats declarations as a rule. */
export const rule = (selector: string, declarations: string): string => `${selector} {\n  ${declarations.replace(/; /g, ';\n  ')}\n}`

/** The covered height at the viewport's top. */
export const COVERED = `var(${COVER}, 0px)`

/** A list of links in a column. */
export const listRules = (nav: string): string[] => [
  rule(`${nav} :is(ul, li, details)`, 'display: block;'),
  rule(
    `${nav} :is(a, summary, .wb-words)`,
    'display: block; box-sizing: border-box; min-height: 24px; padding: 4px 12px; cursor: pointer;',
  ),
  rule(`${nav} ul ul`, 'padding-left: 14px;'),
  rule(`${nav} .wb-words`, 'font-weight: bold; cursor: default;'),
]

/** A panel over the page. */
export const panel = (color: string, backing: string): string =>
  `background: ${backing}; color: ${color}; border: 1px solid currentColor; border-radius: 6px;`
