/** Where the screens of a site stand in the live area: the one in view as large as it goes, the others in a strip beneath it or beside it. */
import type { Screen } from '@waybell/core'

/** In px of the live area. */
export interface Place {
  left: number
  top: number
  scale: number
}

type Size = Pick<Screen, 'key' | 'width' | 'height'>

const GAP = 10
/** What is said of a screen stands under it, and takes so much room. */
export const CAPTION = 20
export const CAPTION_WIDTH = 84
/** A strip is at least as high, or as wide, and at most so much of the live area. */
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
  // What the one in view leaves.
  const area = isBelow
    ? { left: 0, top: height + GAP, width: room.width, height: room.height - height - GAP }
    : { left: width + GAP, top: 0, width: room.width - width - GAP, height: room.height }
  for (const [key, place] of packed(others, area, isBelow)) out.set(key, place)
  return out
}

/** In a row or a column, all to one scale of their longer sides as far as that goes. */
function packed(
  screens: readonly Size[],
  area: { left: number; top: number; width: number; height: number },
  isRow: boolean,
): [string, Place][] {
  const n = screens.length
  const lone = screens.map((s) => Math.min((area.height - CAPTION) / s.height, area.width / s.width, 1))
  const gaps = GAP * (n - 1) + (isRow ? 0 : CAPTION * n)
  const whole = (isRow ? area.width : area.height) - gaps
  const long = screens.map((s, i) => (isRow ? s.width : s.height) * lone[i]!)
  const sum = (of: readonly number[]) => of.reduce((a, b) => a + b, 0)
  const first = Math.min(1, whole / sum(long))
  // In a row a narrow one takes as much as what is said of it.
  const isNarrow = long.map((length) => isRow && length * first < CAPTION_WIDTH)
  const rest = sum(long.filter((_, i) => !isNarrow[i]))
  const left = whole - CAPTION_WIDTH * isNarrow.filter(Boolean).length
  const by = Math.max(0, Math.min(1, rest ? left / rest : first))
  let at = 0
  return screens.map((s, i) => {
    const scale = lone[i]! * (isNarrow[i] ? first : by)
    const place = isRow ? { left: area.left + at, top: area.top, scale } : { left: area.left, top: area.top + at, scale }
    at += (isRow ? Math.max(s.width * scale, isNarrow[i] ? CAPTION_WIDTH : 0) : s.height * scale + CAPTION) + GAP
    return [s.key, place]
  })
}
