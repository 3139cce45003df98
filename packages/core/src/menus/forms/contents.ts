/** A list in the text, before the first section. */
import type { MadeForm } from './form.ts'
import { listRules, rule } from './rules.ts'

export interface Form {
  kind: 'contents'
  layout: 'list' | 'columns'
  /** Max width, and distance from its surroundings, in px. */
  width: number
  edge: number
}

export const form: MadeForm<Form> = {
  fields: {
    layout: { options: ['list', 'columns'] },
    width: { least: 120, most: 2000, usual: 640 },
    edge: { least: 0, most: 200, usual: 24 },
  },
  place: (_, { firstSection }) => (firstSection === null ? 'body-start' : { before: firstSection }),
  levels: Infinity,
  small: ['same', 'folds', 'away'],
  style: ({ layout, width, edge }, { nav, color, backing }) => [
    rule(
      nav,
      `display: block; box-sizing: border-box; max-width: ${width}px; margin: ${edge}px auto; padding: 12px 8px; font-size: 16px; line-height: 1.25; background: ${backing}; color: ${color}; border: 1px solid currentColor; border-radius: 6px;`,
    ),
    ...listRules(nav),
    rule(`${nav} a`, 'text-decoration: underline; text-underline-offset: 0.2em;'),
    rule(`${nav} a[aria-current="true"]`, 'font-weight: bold;'),
    ...(layout === 'columns'
      ? [rule(`${nav} .wb-items`, 'column-width: 200px; column-gap: 16px;'), rule(`${nav} li`, 'break-inside: avoid;')]
      : []),
  ],
}
