/** What the script in a handed-over page goes by; JSON in the piece `settings`. Lengths in CSS px. */

export interface Settings {
  /** IDs of the sections, in page order. */
  sections: string[]
  /** IDs of those whose link goes to the top of the page. */
  toTop: string[]
  /** Each former ID with the ID that its section has now, in page order and the latest last. */
  former: [was: string, now: string][]
  /** Sections that are points: ID, the number in `data-wb-anchor` of the element that it stands before, and how far below its top. */
  points: [id: string, anchor: number, shift: number][]
  breathing: number
  bellOffset: number
  smooth: boolean
  /** The page's header is made to stay in view. */
  keep: boolean
  /** Widest viewport of each screen with how much the page's header grows after moving (negative: shrinks), null where that was not measured; the last is for all wider. */
  shrink: [width: number, change: number | null][]
  /** The page's own offsets hold, and its own script marks the current item. */
  ownTravel?: true
  ownMarks?: true
  /** IDs of sections whose elements stand above what they are about, by their margin. */
  shifted?: string[]
  /** What the made menu covers, 0 without one. */
  bar: number
}

/** What of the settings is taken over when the page is brought in again; the rest is measured. */
export type WrittenSettings = Omit<Settings, 'shrink' | 'shifted' | 'bar'>

type Stored = { [K in keyof Settings]?: unknown }

const isIds = (x: unknown): x is string[] => Array.isArray(x) && x.every((i) => typeof i === 'string')
const isLength = (x: unknown): x is number => typeof x === 'number' && Number.isFinite(x) && Math.abs(x) < 10000

/** Earlier handovers wrote these two as objects, in which a browser puts names that are digits first. */
const rows = (x: unknown): unknown[][] => {
  if (Array.isArray(x)) return x.filter((row): row is unknown[] => Array.isArray(row))
  return x !== null && typeof x === 'object' ? Object.entries(x).map(([name, value]) => [name, value].flat()) : []
}

/** Null for what no handover wrote, or what was changed by hand beyond use. */
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
    former: rows(s.former).filter((row): row is [string, string] => row.length === 2 && isIds(row)),
    points: rows(s.points).filter(
      (row): row is [string, number, number] => row.length === 3 && typeof row[0] === 'string' && isLength(row[1]) && isLength(row[2]),
    ),
    breathing: s.breathing,
    bellOffset: s.bellOffset,
    smooth: s.smooth !== false,
    keep: s.keep === true,
    ...(s.ownTravel === true ? { ownTravel: true } : {}),
    ...(s.ownMarks === true ? { ownMarks: true } : {}),
  }
}
