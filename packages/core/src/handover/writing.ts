/** What those that write ask of a handover's input. */
import { isOwnTravel } from '../arrival/index.ts'
import type { ElementAt, PageReading } from '../page/index.ts'
import { anchorsOf, type Anchor } from './anchors.ts'
import type { HandoverInput } from './input.ts'

/** The same with what several of those that write ask of it. */
export interface WritingInput extends HandoverInput {
  anchors: readonly Anchor[]
  /** By key of the section. */
  idOf: (section: string) => string
  /** The ID that each element has in the source, or the name by which links find it. */
  ownId: ReadonlyMap<ElementAt, string>
}

export function writingInput(input: HandoverInput): WritingInput {
  const { page, reading } = input
  const ids = new Map(page.sections.map((s) => [s.key, s.id]))
  return { ...input, anchors: anchorsOf(input), idOf: (section) => ids.get(section)!, ownId: ownIdsOf(reading) }
}

/** Of a page that marks its items and keeps its offsets by itself there is nothing left for a script to do. */
export const needsScript = ({ page, anchors }: WritingInput): boolean => !page.highlight.own || !isOwnTravel(page) || anchors.length > 0

// A reading never changes, and on a large page this is most of the work.
const known = new WeakMap<PageReading, ReadonlyMap<ElementAt, string>>()

function ownIdsOf(reading: PageReading): ReadonlyMap<ElementAt, string> {
  const there = known.get(reading)
  if (there) return there
  const named = reading.candidates.flatMap((c) => (c.id === null ? [] : [[c.at, c.id] as const]))
  const own = new Map([...reading.ids.map((i) => [i.at, i.id] as const), ...named])
  known.set(reading, own)
  return own
}
