/** IDs of sections that are elements. */
import type { PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../writing.ts'

export const planIds = ({ page, ownId }: WritingInput): PlannedEdit[] =>
  page.sections.flatMap(({ at, id, key, title, point }) =>
    point || ownId.get(at) === id
      ? []
      : {
          edit: { kind: 'attribute', at, name: 'id', value: id },
          why: `The ID of the section “${title}”.`,
          for: { section: key },
          // The page's own styles may go by it.
          layout: `id ${at} ${id}`,
        },
  )
