/** The mark of the element in which the page scrolls: offsets and motion are said of that too, and the script looks there. */
import { SCROLLER } from '../../contract/index.ts'
import type { PlannedEdit } from '../edit.ts'
import { needsScript, type WritingInput } from '../writing.ts'

export function planScroller(input: WritingInput): PlannedEdit[] {
  const { page, reading } = input
  const wanted = needsScript(input) ? (page.scroller ?? null) : null
  const edit = (at: number, value: string | null, why: string): PlannedEdit => ({
    edit: { kind: 'attribute', at, name: SCROLLER, value },
    why,
    for: {},
    layout: null,
  })
  const earlier = reading.written.scroller
  return [
    ...(earlier !== null && earlier !== wanted ? [edit(earlier, null, 'The page does not scroll in this element.')] : []),
    ...(wanted === null ? [] : [edit(wanted, '', 'Says in which element the page scrolls.')]),
  ]
}
