/** Updates labels, descriptions and the like after an ID changed. */
import { renamedReference } from '../../page/index.ts'
import type { PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../writing.ts'

export function planReferences({ page, reading, ownId }: WritingInput): PlannedEdit[] {
  const changed = page.sections.flatMap(({ at, id, point }) => {
    const was = point ? undefined : ownId.get(at)
    return was && was !== id ? [{ at, was, id }] : []
  })
  if (!changed.length) return []
  // With duplicate IDs, the first one counts.
  const first = new Map<string, number>()
  for (const { id, at } of reading.ids) if (!first.has(id)) first.set(id, at)
  const renames = new Map(changed.flatMap(({ at, was, id }) => (first.get(was) === at ? [[was, id] as const] : [])))
  if (!renames.size) return []
  return reading.references.flatMap((reference): PlannedEdit[] => {
    const value = renamedReference(reference, renames)
    if (value === null) return []
    const { at, name } = reference
    return [{ edit: { kind: 'attribute', at, name, value }, why: `“${name}” follows a changed ID.`, for: {}, layout: null }]
  })
}
