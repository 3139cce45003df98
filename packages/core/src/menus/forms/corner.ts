/** Links in a lower corner of the viewport, such as back to top. */
import type { MadeForm } from './form.ts'
import { panel, rule } from './rules.ts'

export interface Form {
  kind: 'corner'
  side: 'right' | 'left'
  /** Distance from the viewport's edges, in px. */
  edge: number
}

export const form: MadeForm<Form> = {
  fields: { side: { options: ['right', 'left'] }, edge: { least: 0, most: 200, usual: 16 } },
  place: () => 'body-start',
  levels: 1,
  small: ['same', 'away'],
  isScreenOnly: true,
  style: ({ side, edge }, { nav, color, backing }) => [
    rule(nav, `display: block; position: fixed; z-index: 900; ${side}: ${edge}px; bottom: ${edge}px; font-size: 16px; line-height: 1.25;`),
    rule(`${nav} .wb-items`, 'display: flex; gap: 8px;'),
    rule(`${nav} li`, 'display: block;'),
    rule(
      `${nav} a`,
      `display: flex; align-items: center; box-sizing: border-box; min-height: 44px; padding: 0 16px; cursor: pointer; ${panel(color, backing)} border-radius: 22px;`,
    ),
    rule(`${nav} a[aria-current="true"]`, 'border-width: 3px;'),
  ],
}
