/** A button in a lower corner of the viewport that opens a list. */
import type { MadeForm } from './form.ts'
import { listRules, rule } from './rules.ts'

export interface Form {
  kind: 'floating'
  side: 'right' | 'left'
  /** Distance from the viewport's edges, in px. */
  edge: number
}

export const form: MadeForm<Form> = {
  fields: { side: { options: ['right', 'left'] }, edge: { least: 0, most: 200, usual: 16 } },
  place: () => 'body-start',
  levels: Infinity,
  small: ['same', 'away'],
  isFolded: true,
  isScreenOnly: true,
  style: ({ side }, { nav }) => [
    ...listRules(nav),
    rule(`${nav} a[aria-current="true"]`, `box-shadow: inset ${side === 'left' ? 3 : -3}px 0 currentColor;`),
  ],
}
