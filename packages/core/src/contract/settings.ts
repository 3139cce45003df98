/** What the script in a handed-over page goes by; JSON in the piece `settings`. Lengths in CSS px. */
import { readMotion } from './motion.ts'

/** A link’s hash takes the place of the one before in the history, or is not written at all. */
export const ADDRESS_RULES = ['replace', 'none'] as const
export type AddressRule = (typeof ADDRESS_RULES)[number]

/** Instead of room above a section: it fills the window. */
export const FILLS = 'fills'

export interface Settings {
  /** IDs of the sections, in page order. */
  sections: string[]
  /** IDs of those whose link goes to the top of the page. */
  toTop: string[]
  /** Each former ID with the ID that its section has now, in page order and the latest last. */
  former: { was: string; now: string }[]
  /**
   * Sections that are points, and how far below their element's top. It is the element that has their ID; where that could not be, `anchor` is
   * the number that it has in `data-wb-anchor`.
   */
  points: { id: string; below: number; anchor?: number }[]
  breathing: number
  /** On screens where it is another, by their keys; absent for none. */
  breathes?: { screen: string; px: number }[]
  bellOffset: number
  smooth: boolean
  /** Of a motion that takes a time of its own, what `motion.ts` says of it; absent for the browser's. */
  timed?: string
  /** What a link that is followed writes of its hash, where it is not a new entry of the history. */
  address?: AddressRule
  /** The address follows the scroll. */
  follows?: true
  /** Of links to its sections no script of the page takes the presses. */
  takesPresses?: true
  /** Heights of what is laid out only when it is near are said as they were measured. */
  estimates?: true
  /** Room above single sections that others do not have, not on some screens, by their keys; absent for none. */
  adjust?: { id: string; by: number | typeof FILLS; off?: string[] }[]
  /** Room that is left at the page's end, see `docs/formats.md`. */
  endSpace?: { id: string; as: 'padding' | 'height'; on: { screen: string; fits: number; base: number }[] }
  /** Keys of the screens on which the page's header scrolls away, and what it does once the page has been scrolled; absent for none. */
  headerOff?: string[]
  /** The page's header, which is smaller by itself once the page has moved, keeps its place. */
  headerSteady?: true
  headerUnder?: { screen: string; head: number; frame: number }[]
  headerOnScroll?: { after: number; over?: true; clear?: true; shadow?: true; away?: true; small?: number; off?: string[] }
  /** The page's header is made to stay in view. */
  keep: boolean
  /** The page's own offsets hold, and its own script marks the current item. */
  ownTravel?: true
  ownMarks?: true
  /** IDs of sections whose elements stand above what they are about, by their margin. */
  shifted?: string[]
  /** What the made menu covers, 0 without one. */
  bar: number
}

/** What of the settings is taken over when the page is brought in again; the rest is measured. */
export type WrittenSettings = Omit<Settings, 'shifted' | 'bar'>

/** As a page has them: unchecked, and with names of earlier handovers. */
type Stored = { [K in keyof Settings | 'room' | 'headerMoves']?: unknown }

const isIds = (x: unknown): x is string[] => Array.isArray(x) && x.every((i) => typeof i === 'string')
const isLength = (x: unknown): x is number => typeof x === 'number' && Number.isFinite(x) && Math.abs(x) < 10000

/** Earlier handovers wrote these two as rows without names, and before that as objects, in which a browser puts names that are digits first. */
const named = (x: unknown, names: readonly string[]): Record<string, unknown>[] => {
  const all = Array.isArray(x) ? x : x !== null && typeof x === 'object' ? Object.entries(x).map((row) => row.flat()) : []
  return all.flatMap((row: unknown) => {
    if (Array.isArray(row))
      return row.length === names.length ? [Object.fromEntries(names.map((name, i) => [name, row[i] as unknown]))] : []
    return row !== null && typeof row === 'object' ? [row as Record<string, unknown>] : []
  })
}

const isKeys = (x: unknown): x is string[] => isIds(x) && x.length < 100

function readAdjust(x: unknown): Pick<Settings, 'adjust'> {
  const adjust = (Array.isArray(x) ? (x as Record<string, unknown>[]) : []).flatMap((a) => {
    const { id, by, off } = (a ?? {}) as { by?: number | typeof FILLS } & Record<string, unknown>
    return typeof id === 'string' && (isLength(by) || by === FILLS) && (off === undefined || isKeys(off))
      ? [{ id, by, ...(off && { off }) }]
      : []
  })
  return adjust.length ? { adjust } : {}
}

function readBreathes(x: unknown): Pick<Settings, 'breathes'> {
  const breathes = (Array.isArray(x) ? (x as Record<string, unknown>[]) : []).flatMap((b) => {
    const { screen, px } = b ?? {}
    return typeof screen === 'string' && isLength(px) ? [{ screen, px }] : []
  })
  return breathes.length ? { breathes: breathes.slice(0, 100) } : {}
}

function readHeaderOnScroll(x: unknown): Pick<Settings, 'headerOnScroll'> {
  const { after, off, small, ...said } = (x ?? {}) as Record<string, unknown>
  // A document has no others.
  if (!isLength(after) || !Number.isInteger(after) || after < 0 || after > 5000) return {}
  const is = (['over', 'clear', 'shadow', 'away'] as const).flatMap((name) => (said[name] === true ? [[name, true] as const] : []))
  const isSmall = isLength(small) && Number.isInteger(small) && small >= 1 && small <= 400
  return { headerOnScroll: { after, ...Object.fromEntries(is), ...(isSmall && { small }), ...(isKeys(off) && { off }) } }
}

function readUnder(x: unknown): Pick<Settings, 'headerUnder'> {
  const under = (Array.isArray(x) ? (x as Record<string, unknown>[]) : []).flatMap((u) => {
    const { screen, head, frame } = u ?? {}
    return typeof screen === 'string' && isLength(head) && isLength(frame) ? [{ screen, head, frame }] : []
  })
  return under.length ? { headerUnder: under.slice(0, 100) } : {}
}

function readEndSpace(x: unknown): Pick<Settings, 'endSpace'> {
  const { id, as, on } = (x ?? {}) as Record<string, unknown>
  if (typeof id !== 'string' || (as !== 'padding' && as !== 'height') || !Array.isArray(on)) return {}
  const read = (on as Record<string, unknown>[]).flatMap((o) => {
    const { screen, fits, base = o?.own } = o ?? {}
    return typeof screen === 'string' && isLength(fits) && isLength(base) ? [{ screen, fits, base }] : []
  })
  return { endSpace: { id, as, on: read.slice(0, 50) } }
}

/**
 * Null for settings that no handover wrote, or that can't be used after changes by hand.
 * Earlier handovers say `room`, `own` and `headerMoves` for `endSpace`, `base` and `headerOnScroll`.
 */
export function readSettings(text: string): WrittenSettings | null {
  let s: Stored
  try {
    s = JSON.parse(text) as Stored
  } catch {
    return null
  }
  if (s === null || typeof s !== 'object') return null
  if (!isIds(s.sections) || !isIds(s.toTop) || !isLength(s.breathing) || !isLength(s.bellOffset)) return null
  return {
    sections: s.sections,
    toTop: s.toTop,
    former: named(s.former, ['was', 'now']).flatMap(({ was, now }) =>
      typeof was === 'string' && typeof now === 'string' ? [{ was, now }] : [],
    ),
    points: named(s.points, ['id', 'anchor', 'below']).flatMap(({ id, anchor, below }) =>
      typeof id === 'string' && isLength(below) && (anchor === undefined || isLength(anchor))
        ? [{ id, below, ...(anchor === undefined ? {} : { anchor }) }]
        : [],
    ),
    breathing: s.breathing,
    ...readBreathes(s.breathes),
    bellOffset: s.bellOffset,
    smooth: s.smooth !== false,
    ...(typeof s.timed === 'string' && readMotion(s.timed) ? { timed: s.timed } : {}),
    ...(ADDRESS_RULES.includes(s.address as AddressRule) ? { address: s.address as AddressRule } : {}),
    ...(s.follows === true ? { follows: true } : {}),
    ...(s.takesPresses === true ? { takesPresses: true } : {}),
    ...(s.estimates === true ? { estimates: true } : {}),
    ...readAdjust(s.adjust),
    ...readEndSpace(s.endSpace ?? s.room),
    ...(isKeys(s.headerOff) ? { headerOff: s.headerOff } : {}),
    ...readHeaderOnScroll(s.headerOnScroll ?? s.headerMoves),
    ...(s.headerSteady === true ? { headerSteady: true } : {}),
    ...readUnder(s.headerUnder),
    keep: s.keep === true,
    ...(s.ownTravel === true ? { ownTravel: true } : {}),
    ...(s.ownMarks === true ? { ownMarks: true } : {}),
  }
}
