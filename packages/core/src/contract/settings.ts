/** Settings of the script in a handed-over page: JSON in the piece `settings`. Lengths in CSS px. */
import { readMotion } from './motion.ts'

/** A followed link replaces the history entry, or doesn't change the address. */
export const ADDRESS_RULES = ['replace', 'none'] as const
export type AddressRule = (typeof ADDRESS_RULES)[number]

/** The section fills the window instead of having an offset. */
export const FILLS = 'fills'

export interface Settings {
  /** IDs of the sections, in page order. */
  sections: string[]
  /** IDs of sections whose link goes to the page's top. */
  toTop: string[]
  /** Each former ID with its section's present ID, in page order, the latest last. */
  former: { was: string; now: string }[]
  /**
   * Sections that are points, and px below their element's top. The element has their ID; if it can't, `anchor` is its number in
   * `data-wb-anchor`.
   */
  points: { id: string; below: number; anchor?: number }[]
  breathing: number
  /** Other breathing spaces, by screen key; absent for none. */
  breathes?: { screen: string; px: number }[]
  bellOffset: number
  smooth: boolean
  /** A timed motion, see `motion.ts`; absent for the browser's. */
  timed?: string
  /** How following a link changes the address; absent for a new history entry. */
  address?: AddressRule
  /** The address follows the scroll. */
  follows?: true
  /** Presses of section links are kept from the page's script. */
  takesPresses?: true
  /** Measured heights are written for parts that are laid out late. */
  estimates?: true
  /** Extra offsets of single sections, with keys of screens where they don't apply; absent for none. */
  adjust?: { id: string; by: number | typeof FILLS; off?: string[] }[]
  /** Space added at the page's end, see `docs/formats.md`. */
  endSpace?: { id: string; as: 'padding' | 'height'; on: { screen: string; fits: number; base: number }[] }
  /** Keys of screens where the header scrolls away; absent for none. */
  headerOff?: string[]
  /** The header shrinks by itself but keeps its space. */
  headerSteady?: true
  headerUnder?: { screen: string; head: number; frame: number }[]
  headerOnScroll?: { after: number; over?: true; clear?: true; shadow?: true; away?: true; small?: number; off?: string[] }
  /** The header is kept in view. */
  keep: boolean
  /** The page's own offsets are right; its own script marks the current item. */
  ownTravel?: true
  ownMarks?: true
  /** IDs of sections whose targets the page moved up. */
  shifted?: string[]
  /** Height of the made bar; 0 without one. */
  bar: number
}

/** The settings that are read when the page is brought in again; the rest is measured. */
export type WrittenSettings = Omit<Settings, 'shifted' | 'bar'>

/** As a page has them: unchecked, and with names of earlier handovers. */
type Stored = { [K in keyof Settings | 'room' | 'headerMoves']?: unknown }

const isIds = (x: unknown): x is string[] => Array.isArray(x) && x.every((i) => typeof i === 'string')
const isLength = (x: unknown): x is number => typeof x === 'number' && Number.isFinite(x) && Math.abs(x) < 10000

/** Earlier handovers wrote these as rows without names, and before that as objects, in which browsers reorder numeric names. */
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
