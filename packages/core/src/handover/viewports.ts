/** Sets of viewports as short media queries. */

/** Bounds in px; absent for none. */
export interface Box {
  maxWidth?: number
  /** Exclusive, like `minHeight`. */
  minWidth?: number
  maxHeight?: number
  minHeight?: number
  orientation?: 'landscape' | 'portrait'
}

interface Size {
  width: number
  height: number
}

export const holds = (box: Box, { width, height }: Size): boolean =>
  width <= (box.maxWidth ?? width) &&
  width > (box.minWidth ?? 0) &&
  height <= (box.maxHeight ?? height) &&
  height > (box.minHeight ?? 0) &&
  (box.orientation === undefined || (box.orientation === 'landscape') === width > height)

/** A viewport for each way in which boxes can differ: the bounds divide the plane into cells, and the diagonal divides some of those. */
function samplesOf(boxes: readonly Box[]): Size[] {
  const bounds = boxes.flatMap(({ maxWidth, minWidth, maxHeight, minHeight }) => [maxWidth, minWidth, maxHeight, minHeight])
  const cuts = [...new Set([0, ...bounds.filter((b) => b !== undefined)])].sort((a, b) => a - b)
  const middles = cuts.map((cut, i) => (cut + (cuts[i + 1] ?? cut + 100)) / 2)
  return middles.flatMap((width) =>
    middles.flatMap((height) =>
      width === height
        ? [
            { width, height },
            { width: width + 0.25, height },
          ]
        : { width, height },
    ),
  )
}

/** The same viewports with as few boxes and bounds as can be left out one by one. */
export function simplified(boxes: readonly Box[]): Box[] {
  const samples = samplesOf(boxes)
  const setOf = (some: readonly Box[]) => samples.map((size) => some.some((box) => holds(box, size))).join()
  const meant = setOf(boxes)
  let out = [...boxes]
  for (const box of [...boxes].reverse()) {
    const others = out.filter((b) => b !== box)
    if (setOf(others) === meant) out = others
  }
  return out.map((box, i) => {
    for (const name of ['orientation', 'maxHeight', 'minHeight', 'maxWidth', 'minWidth'] as const) {
      const wider = { ...box }
      delete wider[name]
      const next = out.with(i, wider)
      if (box[name] === undefined || setOf(next) !== meant) continue
      out = next
      box = wider
    }
    return box
  })
}

/** Two numbers that no viewport's size lies between. */
const over = (name: string, bound: number): string => `(min-${name}: ${bound + 0.02}px)`

const textOf = ({ maxWidth, maxHeight, minWidth, minHeight, orientation }: Box, more: string): string =>
  [
    maxWidth === undefined ? '' : `(max-width: ${maxWidth}px)`,
    maxHeight === undefined ? '' : `(max-height: ${maxHeight}px)`,
    minWidth === undefined ? '' : over('width', minWidth),
    minHeight === undefined ? '' : over('height', minHeight),
    orientation ? `(orientation: ${orientation})` : '',
    more,
  ]
    .filter(Boolean)
    .join(' and ')

/** Media query for the viewports in any of the boxes; empty for all, null for none. @param more a further condition */
export function mediaQuery(boxes: readonly Box[], more = ''): string | null {
  const said = simplified(boxes)
  return said.length ? said.map((box) => textOf(box, more)).join(', ') : null
}
