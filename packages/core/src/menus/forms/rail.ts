/** Links in a column at a side of the viewport. */
import type { MadeForm } from './form.ts'
import { COVERED, listRules, panel, rule } from './rules.ts'

export interface Form {
  kind: 'rail'
  side: 'left' | 'right'
  /** Beside the page, which gets padding, or over it. */
  stands: 'beside' | 'over'
  /** Width, and distance from the viewport's edge and the covered top, in px. */
  width: number
  edge: number
}

export const form: MadeForm<Form> = {
  fields: {
    side: { options: ['left', 'right'] },
    stands: { options: ['beside', 'over'] },
    width: { least: 80, most: 480, usual: 200 },
    edge: { least: 0, most: 200, usual: 16 },
  },
  place: () => 'body-start',
  levels: Infinity,
  small: ['folds', 'scrolls', 'away'],
  isScreenOnly: true,
  pagePadding: ({ side, stands, width, edge }) => (stands === 'beside' ? { of: 'html:root body', side, by: width + 2 * edge } : null),
  style: ({ side, width, edge }, { nav, color, backing }) => [
    rule(
      nav,
      `display: block; position: fixed; z-index: 900; ${side}: ${edge}px; top: calc(${COVERED} + ${edge}px); width: ${width}px; max-height: calc(100vh - ${COVERED} - ${2 * edge}px); box-sizing: border-box; padding: 8px 0; overflow-y: auto; font-size: 16px; line-height: 1.25; ${panel(color, backing)}`,
    ),
    ...listRules(nav),
    rule(`${nav} a[aria-current="true"]`, `box-shadow: inset ${side === 'left' ? 3 : -3}px 0 currentColor;`),
  ],
  sideways: (_, { nav }) => [
    rule(nav, 'position: static; width: auto; border-radius: 0; overflow-x: auto; white-space: nowrap;'),
    rule(`${nav} :is(ul, li)`, 'display: inline-block; padding: 0;'),
  ],
}
