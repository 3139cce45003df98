/** Layout of the live area: the screen in view as large as possible, the others in a strip below or beside it. */
import type { Screen } from '@waybell/core'

/** In px of the live area. */
export interface Place {
  left: number
  top: number
  scale: number
}

type Size = Pick<Screen, 'key' | 'width' | 'height'>

const GAP = 10
/** Height of a screen's caption below it. */
export const CAPTION = 20
export const CAPTION_WIDTH = 84
/** Min and max size of the strip. */
const LEAST = 110
const MOST = 0.4

export function placesOf(
  room: { width: number; height: number },
  screens: readonly Size[],
  shown: string,
  isStrip: boolean,
): ReadonlyMap<string, Place> {
  const large = screens.find((s) => s.key === shown)
  const others = isStrip ? screens.filter((s) => s.key !== shown) : []
  if (!large) return new Map()
  const fits = (width: number, height: number) => Math.min(1, width / large.width, height / large.height)
  const strip = (whole: number, left: number) => (others.length ? Math.min(MOST * whole, Math.max(LEAST, left - GAP)) : -GAP)
  const whole = fits(room.width, room.height)
  const under = strip(room.height, room.height - large.height * fits(room.width, Infinity))
  const aside = strip(room.width, room.width - large.width * whole)
  const below = fits(room.width, room.height - under - GAP)
  const beside = fits(room.width - aside - GAP, room.height)
  const isBelow = below >= beside
  const scale = isBelow ? below : beside
  const out = new Map<string, Place>()
  const [width, height] = [large.width * scale, large.height * scale]
  out.set(large.key, { left: isBelow ? (room.width - width) / 2 : 0, top: 0, scale })
  // The area left by the screen in view.
  const area = isBelow
    ? { left: 0, top: height + GAP, width: room.width, height: room.height - height - GAP }
    : { left: width + GAP, top: 0, width: room.width - width - GAP, height: room.height }
  for (const [key, place] of packed(others, area)) out.set(key, place)
  return out
}

interface Area {
  left: number
  top: number
  width: number
  height: number
}

/** In columns and in order, as large as possible; empty if there is no space for all. */
function packed(screens: readonly Size[], area: Area): Map<string, Place> {
  let best = { places: new Map<string, Place>(), seen: -1 }
  for (const columns of waysIn(screens)) {
    const places = inColumns(columns, area)
    // Enlarging a small one helps more than a large one.
    const seen = screens.reduce((sum, s) => sum + (places.get(s.key)?.scale ?? 0) * Math.sqrt(s.width * s.height), 0)
    if (seen > best.seen) best = { places, seen }
  }
  return best.places
}

/** With more screens, not every arrangement is tried. */
const MANY = 8

/** Ways to split them into columns. */
function* waysIn(screens: readonly Size[]): Generator<Size[][]> {
  const cut = (isCut: (i: number) => boolean) => {
    const columns: Size[][] = []
    screens.forEach((s, i) => (i === 0 || isCut(i) ? columns.push([s]) : columns.at(-1)!.push(s)))
    return columns
  }
  if (screens.length <= MANY)
    for (let mask = 0; mask < 2 ** Math.max(0, screens.length - 1); mask++) yield cut((i) => (mask & (1 << (i - 1))) !== 0)
  else for (let each = 1; each <= screens.length; each++) yield cut((i) => i % each === 0)
}

/** All of a column have the same width, and columns the area's height, as far as widths allow. */
function inColumns(columns: readonly Size[][], { left, top, width, height }: Area): Map<string, Place> {
  const free = columns.map((column) => height - column.length * CAPTION - (column.length - 1) * GAP)
  const widths = columns.map((column, c) =>
    Math.min(free[c]! / column.reduce((sum, s) => sum + s.height / s.width, 0), ...column.map((s) => s.width)),
  )
  const takes = (by: number) => widths.reduce((sum, w) => sum + Math.max(CAPTION_WIDTH, w * by), GAP * (columns.length - 1))
  // Not even the captions fit.
  if (free.some((h) => h <= 0) || takes(0) > width) return new Map()
  let by = 1
  if (takes(1) > width) {
    let low = 0
    for (let high = 1, n = 0; n < 20; n++) {
      by = (low + high) / 2
      if (takes(by) > width) high = by
      else low = by
    }
    by = low
  }
  const out = new Map<string, Place>()
  let x = left + Math.max(0, width - takes(by)) / 2
  columns.forEach((column, c) => {
    const w = widths[c]! * by
    let y = top
    for (const s of column) {
      const scale = w / s.width
      out.set(s.key, { left: x, top: y, scale })
      y += s.height * scale + CAPTION + GAP
    }
    x += Math.max(CAPTION_WIDTH, w) + GAP
  })
  return out
}
