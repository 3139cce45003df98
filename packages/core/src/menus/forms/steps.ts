/** Under each section of the menu, a link to the next item's target. */
import type { MadeForm } from './form.ts'
import { panel, rule } from './rules.ts'

export interface Form {
  kind: 'steps'
  /** At the section's end, or at the viewport's bottom while the section is in view. */
  place: 'end' | 'foot'
  /** Text of every link; empty for the next item's label. */
  text: string
  /** Around it, in px. */
  edge: number
}

export const form: MadeForm<Form> = {
  fields: { place: { options: ['end', 'foot'] }, text: { usual: '' }, edge: { least: 0, most: 200, usual: 16 } },
  // Each stands under its section.
  place: () => 'body-end',
  levels: 1,
  small: ['same', 'away'],
  isScreenOnly: true,
  style: ({ place, edge }, { nav, color, backing }) => [
    rule(
      nav,
      `display: block; width: fit-content; margin: ${edge}px auto; font-size: 16px; line-height: 1.25;${place === 'foot' ? ` position: sticky; z-index: 800; bottom: ${edge}px;` : ''}`,
    ),
    rule(
      `${nav} a`,
      `display: flex; align-items: center; box-sizing: border-box; min-height: 44px; padding: 0 20px; cursor: pointer; ${panel(color, backing)} border-radius: 22px;`,
    ),
    rule(`${nav} a::after`, 'content: ""; margin: 4px 0 0 10px; border: 5px solid transparent; border-top-color: currentColor;'),
  ],
}
