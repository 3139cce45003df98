/** Lookups that the writers of edits share. */
import { isOwnTravel } from '../arrival/index.ts'
import { relativePath, type ElementAt, type PageReading } from '../page/index.ts'
import { hashOf } from '../contract/index.ts'
import { isFound, isMade, type Menu, type SitePage, type Ways } from '../site/index.ts'
import { anchorsOf, type Anchor } from './anchors.ts'
import type { HandoverInput } from './input.ts'

/** The input with these lookups. */
export interface WritingInput extends HandoverInput {
  anchors: readonly Anchor[]
  ways: Ways
  /** Each element's ID in the source, or its `name`. */
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

/** True when some link has a motion or address rule that CSS can't give. */
export const travelsOtherwise = ({ travel, menus, motions = [] }: SitePage): boolean =>
  !!(travel.smooth && travel.timed) || !!travel.address || !!travel.follows || motions.length > 0 || menus.some(hasMotion)
const hasMotion = ({ motion, items }: Menu): boolean => !!motion || items.some((i) => i.motion)

/** False for a page that marks its items and has its own offsets: a script has nothing to do. */
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

// Readings don't change, and on a large page this is most of the work.
const known = new WeakMap<PageReading, ReadonlyMap<ElementAt, string>>()

function ownIdsOf(reading: PageReading): ReadonlyMap<ElementAt, string> {
  const there = known.get(reading)
  if (there) return there
  const named = reading.candidates.flatMap((c) => (c.id === null ? [] : [[c.at, c.id] as const]))
  const own = new Map([...reading.ids.map((i) => [i.at, i.id] as const), ...named])
  known.set(reading, own)
  return own
}
