/** Sizes of pictures without any, over all measured screens. */
import type { ElementAt } from '../page/index.ts'
import type { Survey } from './survey.ts'

export interface PictureSize {
  at: ElementAt
  /** In px, for the markup. */
  width: number
  height: number
}

/**
 * Pictures that can be given a size, in page order, and those that can't: nothing may move on any screen, and the file must be the same
 * on all.
 */
export function pictureSizes(surveys: readonly Survey[]): { sizes: PictureSize[]; others: ElementAt[] } {
  const known = new Map<ElementAt, PictureSize | null>()
  for (const { at, width, height, fits } of surveys.flatMap((s) => s.pictures)) {
    const before = known.get(at)
    const isSame = before === undefined || (before?.width === width && before.height === height)
    known.set(at, fits && isSame ? { at, width, height } : null)
  }
  const all = [...known].sort(([a], [b]) => a - b)
  return { sizes: all.flatMap(([, size]) => size ?? []), others: all.flatMap(([at, size]) => (size ? [] : at)) }
}
