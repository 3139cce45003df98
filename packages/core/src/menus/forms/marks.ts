/** A mark for each item at a side of the viewport, with its label. */
import type { MadeForm } from './form.ts'
import { panel, rule } from './rules.ts'

export interface Form {
  kind: 'marks'
  side: 'right' | 'left'
  /** Which labels are visible: the current item's, or all while hovered or focused. A hovered mark always shows its label. */
  labels: 'current' | 'all'
  /** Distance from the viewport's edge, in px. */
  edge: number
}

const SIZE = 24

export const form: MadeForm<Form> = {
  fields: {
    side: { options: ['right', 'left'] },
    labels: { options: ['current', 'all'] },
    edge: { least: 0, most: 200, usual: 8 },
  },
  place: () => 'body-start',
  levels: 1,
  small: ['same', 'away'],
  isScreenOnly: true,
  style: ({ side, labels, edge }, { nav, color, backing }) => {
    const shown = [`${nav} a:hover .wb-label`, `${nav} a:focus-visible .wb-label`]
    const more =
      labels === 'current' ? [`${nav} a[aria-current="true"] .wb-label`] : [`${nav}:hover .wb-label`, `${nav}:focus-within .wb-label`]
    return [
      rule(
        nav,
        `display: block; position: fixed; z-index: 900; ${side}: ${edge}px; top: 0; bottom: 0; height: fit-content; max-height: 100vh; margin: auto 0; font-size: 14px; line-height: ${SIZE}px; color: ${color};`,
      ),
      rule(`${nav} :is(ul, li)`, 'display: block;'),
      rule(`${nav} a`, `display: block; position: relative; width: ${SIZE}px; height: ${SIZE}px; cursor: pointer;`),
      // A border also shows in forced colours.
      rule(
        `${nav} a::before`,
        `content: ""; position: absolute; top: 7px; left: 7px; box-sizing: border-box; width: 10px; height: 10px; border: 2px solid currentColor; border-radius: 50%; background: ${backing}; box-shadow: 0 0 0 2px ${backing};`,
      ),
      rule(`${nav} a[aria-current="true"]::before`, 'border-width: 5px;'),
      // Hidden labels stay available to screen readers.
      rule(
        `${nav} .wb-label`,
        `position: absolute; top: 0; ${side}: ${SIZE + 4}px; max-width: 60vw; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; clip-path: inset(100%); pointer-events: none; padding: 0 8px; ${panel(color, backing)}`,
      ),
      rule([...shown, ...more].join(',\n'), 'clip-path: none;'),
    ]
  },
}
