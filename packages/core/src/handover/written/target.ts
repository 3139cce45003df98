/** Attributes of links for items and chosen targets. */
import { MOTION, motionText, NEW_TAB, SAME_TAB } from '../../contract/index.ts'
import type { PageLink } from '../../page/index.ts'
import type { Item, Way } from '../../site/index.ts'
import type { For, PlannedEdit } from '../edit.ts'

type Said = Pick<Item, 'tooltip' | 'lang' | 'motion'>

/** The `target` of a written link. @param baseLeaves see `PageReading` */
export const tabOf = ({ isNewTab, isHere }: Way, baseLeaves: boolean): Record<string, string> =>
  isNewTab ? NEW_TAB : isHere && baseLeaves ? SAME_TAB : {}

/** Attributes of an added link; null removes one that the copied link has. @param baseLeaves see `PageReading` */
export const attributesOf = (
  way: Way & { href: string },
  { tooltip, lang, motion }: Said,
  baseLeaves: boolean,
): Record<string, string | null> => ({
  href: way.href,
  target: null,
  ...tabOf(way, baseLeaves),
  title: tooltip || null,
  lang: lang || null,
  [MOTION]: motion ? motionText(motion) : null,
})

/** Edits of an existing link; only for what changes. @param named the link's name in the reason: `the item “Tickets”` */
export function planTarget(
  { at, href: was, leaves }: PageLink,
  { href, isNewTab, isHere }: Way,
  named: string,
  said: Said = {},
  about: For = {},
): PlannedEdit[] {
  const edit = (name: string, value: string | null, why: string): PlannedEdit => ({
    edit: { kind: 'attribute', at, name, value },
    why,
    for: about,
    layout: null,
  })
  return [
    ...(href === null || href === was ? [] : [edit('href', href, `Where ${named} leads.`)]),
    ...(isNewTab ? Object.entries(NEW_TAB).map(([name, value]) => edit(name, value, `Makes ${named} open in its own tab.`)) : []),
    ...(leaves && isHere ? [edit('target', SAME_TAB.target, `Makes ${named} open on this page, not in another tab.`)] : []),
    ...(said.tooltip === undefined ? [] : [edit('title', said.tooltip || null, `Tooltip of ${named}.`)]),
    ...(said.motion ? [edit(MOTION, motionText(said.motion), `Motion of ${named}.`)] : []),
    ...(said.lang === undefined ? [] : [edit('lang', said.lang || null, `The language of ${named}.`)]),
  ]
}
