/** IDs of sections that are elements. */
import type { ElementAt } from '../../page/index.ts'
import type { PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../writing.ts'

export const planIds = ({ page, reading, ownId }: WritingInput): PlannedEdit[] =>
  page.sections.flatMap(({ at, id, key, title, point, block }) => {
    if (point || (block === undefined && ownId.get(at) === id)) return []
    const set = (el: ElementAt, name: string, value: string | null, why: string): PlannedEdit => ({
      edit: { kind: 'attribute', at: el, name, value },
      why,
      for: { section: key },
      // Page styles may use the ID.
      layout: `id ${el} ${value}`,
    })
    const own = set(block ?? at, 'id', id, `The ID of the section “${title}”.`)
    if (block === undefined || !ownId.has(at)) return [own]
    const name = reading.ids.some((i) => i.at === at) ? 'id' : 'name'
    return [set(at, name, null, `The empty target of “${title}” gives its ID to its content.`), own]
  })
