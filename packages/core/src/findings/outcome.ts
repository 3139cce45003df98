/** Whether all menu links of a page arrive; used by the bar, the command line and the walk. */
import type { Item, Menu } from '../site/index.ts'
import { itemsHere, judgeTried, triedKey, type Tried } from '../walk/index.ts'
import type { SiteInput } from './facts.ts'
import type { rules } from './rules/index.ts'

/** Counts of menu links over all screens. */
export interface Outcome {
  /** That were tried. */
  tried: number
  /** Links that don't arrive or aren't marked on some screen. */
  wrong: number
  /** That lead nowhere. */
  nowhere: number
  /** Links whose target is an unconfirmed guess. */
  unconfirmed: number
  /** Links to this page that were tried on no screen; all of them while a screen has no tries. */
  untried: number
}

/** @param open the page's open findings */
export function outcomeOf(
  input: Pick<SiteInput, 'site' | 'page' | 'surveys' | 'tried'>,
  open: readonly { code: string; where: { at?: number } }[],
): Outcome {
  const { site, page, surveys, tried } = input
  const verdicts = Object.entries(tried).flatMap(([screen, links]) => judgeTried(page, surveys[screen] ?? null, links))
  const count = (of: typeof verdicts) => new Set(of.map((v) => triedKey(v.tried))).size
  const findings = (code: keyof typeof rules) => open.filter((f) => f.code === code)
  const lost = verdicts.filter((v) => v.fault === 'nowhere').map(({ tried: one }) => one.at ?? triedKey(one))
  const isWhole = site.screens.every(({ key }) => tried[key])
  const seen = Object.values(tried).flat()
  const items = page.menus.flatMap((menu) => itemsHere(menu).map((item) => ({ menu, item })))
  return {
    tried: count(verdicts),
    wrong: count(verdicts.filter((v) => v.fault && v.fault !== 'nowhere')),
    nowhere: new Set([...lost, ...findings('item-nowhere').map((f) => f.where.at)]).size,
    unconfirmed: findings('item-likely').length,
    untried: items.filter(({ menu, item }) => !isWhole || !seen.some((one) => isTryOf(one, menu, item))).length,
  }
}

/** Links of made menus have no place in the source; their label identifies them. */
const isTryOf = (one: Tried, menu: Menu, item: Item): boolean =>
  one.at === null ? one.label === item.label || one.menu === menu.name : item.links.includes(one.at)

/** True when every menu link was tried on every screen that shows it, arrived, and was marked. */
export const allArrive = ({ wrong, nowhere, unconfirmed, untried }: Outcome): boolean => !(wrong || nowhere || unconfirmed || untried)

/** The outcome in words: “7 links: 2 lead nowhere, 1 not tried”. */
export function outcomeText(outcome: Outcome): string {
  const { wrong, nowhere, unconfirmed, untried } = outcome
  if (allArrive(outcome)) return 'all arrive'
  const parts = [
    wrong ? `${wrong} not right` : '',
    nowhere ? `${nowhere} ${nowhere === 1 ? 'leads' : 'lead'} nowhere` : '',
    unconfirmed ? `${unconfirmed} unconfirmed` : '',
    untried ? `${untried} not tried` : '',
  ]
  return parts.filter(Boolean).join(', ')
}
