/** The page's links outside its menus. */
import type { Motion } from '../../contract/index.ts'
import { itemKinds, type ItemTarget } from '../../menus/items/index.ts'
import type { Elsewhere, ItemKind, TargetFault, Ways } from '../../menus/items/kind.ts'
import type { ElementAt } from '../../page/index.ts'

/** A link outside the page's menus that was given a target, or that is made from something that was no link. */
export interface LinkChoice {
  at: ElementAt
  target: ItemTarget
  made?: MadeLink
}

/** What a made link wraps: an element, some of its words (the first match), or a button, which becomes a link. */
export interface MadeLink {
  of: 'element' | 'words' | 'button'
  /** The words, or the element's name. */
  label: string
  /** The element has no text, so the label becomes its `aria-label`. */
  isSaid?: true
}

export interface LinkMotion {
  at: ElementAt
  motion: Motion
}

/** Identifies a link of a page: one element may have several linked words. */
export const linkKey = ({ at, made }: Pick<LinkChoice, 'at' | 'made'>): string => (made?.of === 'words' ? `${at} ${made.label}` : `${at}`)

/** A copy with exactly these links. */
export function withLinks<T extends { links?: LinkChoice[] }>(holder: T, links: LinkChoice[]): T {
  const next = { ...holder }
  if (links.length) next.links = links
  else delete next.links
  return next
}

const kindOf = (target: ItemTarget) => itemKinds[target.kind] as ItemKind<ItemTarget>

/** Key of the section of the same page that a target leads to; null for none. */
export const sectionOf = (target: ItemTarget): string | null => kindOf(target).section(target)
/** The place on another page of the site that a target leads to; null for none. */
export const elsewhereOf = (target: ItemTarget): Elsewhere | null => kindOf(target).elsewhere?.(target) ?? null
/** Why a target can't be written; null if it can. */
export const faultOfTarget = (target: ItemTarget): TargetFault<ItemTarget> | null => kindOf(target).fault?.(target) ?? null

/** What is written for a target. */
export interface Way {
  /** Null when the link keeps its `href`. */
  href: string | null
  isNewTab: boolean
  /** It leads to a place on its own page. */
  isHere: boolean
}
export const wayOf = (target: ItemTarget, ways: Ways): Way => ({
  href: kindOf(target).href(target, ways),
  isNewTab: kindOf(target).isNewTab?.(target) ?? false,
  isHere: target.kind === 'top' || sectionOf(target) !== null,
})

export type { Elsewhere, ItemTarget, Ways }
