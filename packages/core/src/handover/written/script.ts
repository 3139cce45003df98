/** The script: it marks the current item and keeps the offset true. */
import type { PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../input.ts'

export const planScript = ({ runtime }: WritingInput): PlannedEdit[] => [
  {
    edit: { kind: 'piece', role: 'script', place: 'head', text: runtime },
    why: 'The script that marks the current item.',
    for: {},
    layout: null,
  },
]
