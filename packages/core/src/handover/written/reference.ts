/** Labels, descriptions and the like go along with an ID that was changed. */
import { renamedReference } from '../../page/index.ts'
import type { PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../input.ts'

export function planReferences({ page, reading, ownId }: WritingInput): PlannedEdit[] {
  const renames = new Map<string, string>()
  // Of doubles the first is meant, and only that.
  const first = new Map<string, number>()
  for (const { id, at } of reading.ids) if (!first.has(id)) first.set(id, at)
  for (const section of page.sections) {
    const was = section.point ? undefined : ownId.get(section.at)
    if (was && was !== section.id && first.get(was) === section.at) renames.set(was, section.id)
  }
  if (!renames.size) return []
  return reading.references.flatMap((reference): PlannedEdit[] => {
    const value = renamedReference(reference, renames)
    if (value === null) return []
    const { at, name } = reference
    return [{ edit: { kind: 'attribute', at, name, value }, why: `“${name}” follows an ID that was changed.`, for: {}, layout: null }]
  })
}
