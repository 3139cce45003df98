/** The script: it marks the current item and keeps the offset true. Parts that the page has no use for are not in it. */
import type { PlannedEdit } from '../edit.ts'
import { builtMenusOf } from '../../menus/index.ts'
import { isFound, type FoundForm } from '../../site/index.ts'
import { needsScript, SCRIPT_PARTS, type ScriptPart, type WritingInput } from '../input.ts'

function partsOf({ page, anchors, surveys }: WritingInput): ScriptPart[] {
  const marks = [
    ...page.menus.filter(isFound).map((m) => (m.form as FoundForm).mark),
    ...builtMenusOf(page, Object.values(surveys)).map((m) => m.mark),
  ]
  const has: Record<ScriptPart, boolean> = {
    classes: marks.some((mark) => typeof mark === 'object'),
    former: anchors.some((a) => a.isFormer),
    header: page.header !== null,
    points: anchors.some((a) => !a.isFormer),
  }
  return SCRIPT_PARTS.filter((part) => has[part])
}

export const planScript = (input: WritingInput): PlannedEdit[] =>
  !needsScript(input)
    ? []
    : [
        {
          edit: { kind: 'piece', role: 'script', place: 'head', text: input.runtime(partsOf(input)) },
          why: 'The script that marks the current item.',
          for: {},
          layout: null,
        },
      ]
