/** Links at the page's end, in a row or columns. */
import type { MadeForm } from './form.ts'
import { rule } from './rules.ts'

export interface Form {
  kind: 'footer'
  layout: 'row' | 'columns'
  /** Around it, in px. */
  edge: number
}

export const form: MadeForm<Form> = {
  fields: { layout: { options: ['row', 'columns'] }, edge: { least: 0, most: 200, usual: 24 } },
  place: (_, { scroller }) => (scroller === null ? 'body-end' : { into: scroller, last: true }),
  levels: 2,
  small: ['same', 'scrolls', 'away'],
  isScreenOnly: true,
  style: ({ layout, edge }, { nav, color, backing }) => [
    rule(
      nav,
      `display: block; box-sizing: border-box; padding: ${edge}px; font-size: 16px; line-height: 1.25; background: ${backing}; color: ${color}; box-shadow: inset 0 1px currentColor;`,
    ),
    rule(
      `${nav} .wb-items`,
      layout === 'row'
        ? 'display: flex; flex-wrap: wrap; gap: 0 8px;'
        : 'display: grid; grid-template-columns: repeat(auto-fill, minmax(180px, 1fr)); gap: 8px 24px;',
    ),
    rule(`${nav} :is(li, ul ul)`, 'display: block;'),
    rule(`${nav} :is(a, .wb-words)`, 'display: block; box-sizing: border-box; min-height: 24px; padding: 4px 8px;'),
    rule(`${nav} a`, 'cursor: pointer;'),
    rule(`${nav} a[aria-current="true"]`, 'text-decoration: underline; text-decoration-thickness: 2px; text-underline-offset: 0.3em;'),
    rule(`${nav} .wb-words`, 'font-weight: bold;'),
  ],
  sideways: (_, { nav }) => [
    rule(nav, 'overflow-x: auto; white-space: nowrap;'),
    rule(`${nav} .wb-items`, 'display: flex; flex-wrap: nowrap;'),
  ],
}
