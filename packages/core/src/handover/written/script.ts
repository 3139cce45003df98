/** The script: it marks the current item and keeps the offset true. */
import type { PlannedEdit } from '../edit.ts'
import { needsScript, type WritingInput } from '../input.ts'

export const planScript = (input: WritingInput): PlannedEdit[] =>
  !needsScript(input)
    ? []
    : [
        {
          edit: { kind: 'piece', role: 'script', place: 'head', text: input.runtime },
          why: 'The script that marks the current item.',
          for: {},
          layout: null,
        },
      ]
