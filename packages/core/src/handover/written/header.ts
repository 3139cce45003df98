/** The mark of the page's own header. */
import { HEADER } from '../../contract/index.ts'
import type { PlannedEdit } from '../edit.ts'
import { needsScript, type WritingInput } from '../writing.ts'

export function planHeader(input: WritingInput): PlannedEdit[] {
  const { header } = input.page
  if (!header || (!header.keep && !needsScript(input))) return []
  const { at, keep } = header
  const why = keep ? 'The page’s header is made to stay in view.' : 'Says which element the page’s header is.'
  return [{ edit: { kind: 'attribute', at, name: HEADER, value: keep ?? '' }, why, for: {}, layout: `header ${at} ${keep}` }]
}
