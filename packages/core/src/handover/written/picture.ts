/** Sizes of pictures without any: the browser reserves their space, so that content below stays in place. */
import { SIZED } from '../../contract/index.ts'
import type { ElementAt } from '../../page/index.ts'
import type { PlannedEdit } from '../edit.ts'
import type { WritingInput } from '../writing.ts'

export function planPictures({ page, reading }: WritingInput): PlannedEdit[] {
  const edits = (at: ElementAt, values: (string | null)[], why: string) =>
    [SIZED, 'width', 'height'].map((name, i): PlannedEdit => ({
      edit: { kind: 'attribute', at, name, value: values[i]! },
      why,
      for: {},
      // Nothing moves for it.
      layout: null,
    }))
  const sized = page.pictures ?? []
  const left = reading.written.pictures.filter(({ at }) => !sized.some((p) => p.at === at))
  return [
    ...left.flatMap(({ at }) => edits(at, [null, null, null], 'Removes a picture’s size again.')),
    ...sized.flatMap(({ at, width, height }) =>
      edits(at, ['', String(width), String(height)], 'Sets a picture’s size, so nothing moves when it loads.'),
    ),
  ]
}
