/** What those that write ask of a handover's input. */
import { isOwnTravel } from '../arrival/index.ts'
import { relativePath, type ElementAt, type PageReading } from '../page/index.ts'
import { hashOf } from '../contract/index.ts'
import { isFound, isMade, type Menu, type SitePage, type Ways } from '../site/index.ts'
import { anchorsOf, type Anchor } from './anchors.ts'
import type { HandoverInput } from './input.ts'

/** The same with what several of those that write ask of it. */
export interface WritingInput extends HandoverInput {
  anchors: readonly Anchor[]
  ways: Ways
  /** The ID that each element has in the source, or the name by which links find it. */
  ownId: ReadonlyMap<ElementAt, string>
}

export function writingInput(input: HandoverInput): WritingInput {
  return { ...input, anchors: anchorsOf(input), ways: waysFrom(input.page, input.pages, input.address), ownId: ownIdsOf(input.reading) }
}

/** Addresses as the page writes them. */
export function waysFrom(page: SitePage, pages: readonly SitePage[], address?: string): Ways {
  const ids = new Map(page.sections.map((s) => [s.key, s.id]))
  return {
    idOf: (section) => ids.get(section)!,
    addressOf: ({ page: key, section }) => {
      const there = pages.find((p) => p.key === key)!
      const path = address === undefined ? relativePath(page.file, there.file) : address + relativePath('', there.file)
      return path + (section === null ? '' : hashOf(there.sections.find((s) => s.key === section)!.id))
    },
  }
}

/** By some link a page travels in another way than by the motion that all have in CSS, or writes another address than browsers do. */
export const travelsOtherwise = ({ travel, menus, motions = [] }: SitePage): boolean =>
  !!(travel.smooth && travel.timed) || !!travel.address || !!travel.follows || motions.length > 0 || menus.some(hasMotion)
const hasMotion = ({ motion, items }: Menu): boolean => !!motion || items.some((i) => i.motion)

/** Of a page that marks its items and keeps its offsets by itself there is nothing left for a script to do. */
export const needsScript = ({ page, anchors }: Pick<WritingInput, 'page' | 'anchors'>): boolean =>
  !page.highlight.pageMark ||
  !isOwnTravel(page) ||
  anchors.length > 0 ||
  page.menus.some(isMade) ||
  travelsOtherwise(page) ||
  !!page.header?.onScroll ||
  !!page.header?.steady ||
  !!page.travel.takesPresses ||
  page.menus.some((m) => isFound(m) && m.form.shutBy !== undefined)

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
