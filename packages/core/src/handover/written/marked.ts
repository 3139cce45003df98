/** Marks for style and script: where the page scrolls, and what holds the end space. */
import { endSpaceHolder } from '../../arrival/index.ts'
import { ROOM, SCROLLER } from '../../contract/index.ts'
import type { PlannedEdit } from '../edit.ts'
import { needsScript, type WritingInput } from '../writing.ts'

export function planMarks(input: WritingInput): PlannedEdit[] {
  const { page, reading } = input
  const { written } = reading
  const last = page.sections.find((s) => s.key === page.endSpace?.section)
  const holder = last ? endSpaceHolder(last, reading) : null
  return [
    ...marked(SCROLLER, written.scroller, needsScript(input) ? (page.scroller ?? null) : null, [
      'The element in which the page scrolls.',
      'The page doesn’t scroll in this element.',
    ]),
    ...marked(ROOM, written.endSpace, holder === 'body' ? null : holder, [
      'Holds the space at the page’s end.',
      'Holds no space any more.',
    ]),
  ]
}

function marked(name: string, earlier: number | null, wanted: number | null, [why, whyNot]: [string, string]): PlannedEdit[] {
  const edit = (at: number, value: string | null): PlannedEdit => ({
    edit: { kind: 'attribute', at, name, value },
    why: value === null ? whyNot : why,
    for: {},
    layout: null,
  })
  return [...(earlier !== null && earlier !== wanted ? [edit(earlier, null)] : []), ...(wanted === null ? [] : [edit(wanted, '')])]
}
