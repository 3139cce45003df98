/** Sections: what links lead to. */
import { FILLS } from '../../contract/index.ts'
import type { ElementAt } from '../../page/index.ts'

export interface Section {
  key: string
  /** The element; for a point, the element below it. */
  at: ElementAt
  /** Null for a section that is an element. */
  point: Point | null
  title: string
  id: string
  /** The element's ID in the source; null without one, and for a point. */
  sourceId: string | null
  /** Earlier IDs, the latest last. Links to them still arrive. */
  former: string[]
  heading: ElementAt | null
  /** 0 for a top-level section, 1 for a part of the section before it, and so on. */
  depth: number
  /** Its link goes to the very top of the page. */
  toTop: boolean
  /** Extra offset of this section alone; absent for none. */
  adjust?: Adjust
  /** For an empty target above a block, a common workaround for fixed headers: the block, which gets the ID instead. Absent when the target keeps it. */
  block?: ElementAt
}

/** A target without size, at the top of the element below it. */
export interface Point {
  /** Distance below that top in px; negative above it. */
  shift: number
}

export interface Adjust {
  /** px added to the breathing space, or subtracted if negative; or the section fills the window: it starts at the top of the viewport, under the header. */
  by: number | typeof FILLS
  /** Keys of screens where it doesn't apply. */
  off?: string[]
}

const adjustBy = ({ adjust, toTop }: Pick<Section, 'adjust' | 'toTop'>, screen: string): Adjust['by'] =>
  !adjust || toTop || adjust.off?.includes(screen) ? 0 : adjust.by

/** True when a section fills the window on a screen. */
export const fillsOn = (section: Pick<Section, 'adjust' | 'toTop'>, screen: string): boolean => adjustBy(section, screen) === FILLS

/** A section's extra offset on a screen in px; 0 for one that fills the window. */
export const adjustOn = (section: Pick<Section, 'adjust' | 'toTop'>, screen: string): number => {
  const by = adjustBy(section, screen)
  return by === FILLS ? 0 : by
}

export const inPageOrder = (sections: readonly Section[]): Section[] => [...sections].sort(pageOrder)

/** Orders sections as the page does: a point before its element, higher points first. IDs break ties, so the order is total. */
export const pageOrder = (a: Section, b: Section): number =>
  a.at - b.at ||
  Number(!a.point) - Number(!b.point) ||
  (a.point?.shift ?? 0) - (b.point?.shift ?? 0) ||
  (a.id < b.id ? -1 : a.id > b.id ? 1 : 0)
