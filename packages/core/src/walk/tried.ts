/** The quick walk: every link of every menu followed once, without smooth motion, and what became of it against what was computed. */
import { partsByAt, solveArrivals, standsAbove } from '../arrival/index.ts'
import { madeMenuNamed, type MarkClass } from '../contract/index.ts'
import type { ElementAt } from '../page/index.ts'
import { isFound, sectionOf, type Item, type Menu, type Section, type SitePage } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'
import { TOLERANCE } from './judge.ts'

/** Where a press led. Lengths in CSS px. */
export interface Stop {
  /** Where the page stopped. */
  scroll: number
  /** How far below the top of what is seen of the page its target stood then; null for the page's top, and without a box. */
  top: number | null
  /** What covers the start of the target, as a selector; empty when it's out of view; null when it's visible. */
  coveredBy: string | null
}

/** One link as it was tried, from the page's top. Lengths in CSS px. */
export interface Tried extends Stop {
  /** The link in the source; null for one that was written or built by scripts. */
  at: ElementAt | null
  label: string
  href: string
  /** What its hash asks for, decoded; empty for the page's top. */
  id: string
  /** Whether the page has the target, and whether it has a box on this screen. */
  target: (typeof TARGETS)[number]
  /** A visitor's press is followed in another tab. */
  leaves: boolean
  /** The same once more, from the page's end; null without a target, where that has no box, and where the menu stayed open. */
  below: Stop | null
  /** What lies over nearly all that is seen, the link too, until a visitor sends it away, as a selector; empty where nothing does. It was tried as if that were gone. */
  overlay: string
  /** The page moved sideways by more than half the viewport. */
  isSideways: boolean
  /** How the menu marked the item: `right` also when the menu marks none. */
  mark: (typeof MARKED)[number]
  /** A script of the page kept the browser from following it. */
  isTaken: boolean
  /** Of one that is taken, how far below its place that script had left the page, before it was put right; 0 where it was not. */
  astray: number
  /** The menu that was made in which it stands, by its name; empty for one of the page's own. */
  menu: string
  /** The menu was opened for the press as a visitor does it, and stays open behind it: where it stands in the source, and what shuts it; null where not said, or built by scripts. */
  leftOpen: { menu: ElementAt | null; by: ElementAt | null } | null
  sizeProblems: SizeProblem[]
}

export const TARGETS = ['shown', 'hidden', 'missing'] as const
/** `unseen`: marked, but looks like the others. `shared`: another item looks current too. */
export const MARKED = ['right', 'absent', 'unseen', 'shared'] as const
/** Too small and too close to the next item; label cut off; label on several lines in a row of items. */
export const SIZE_PROBLEMS = ['tight', 'cut', 'wrapped'] as const
export type SizeProblem = (typeof SIZE_PROBLEMS)[number]

export type TryFault = 'nowhere' | 'no-box' | 'off' | 'covered' | 'unlit' | 'unseen' | 'two' | 'sideways' | 'leaves'

export interface TryVerdict {
  tried: Tried
  fault: TryFault | null
  /** What is wrong and why, in words; empty where nothing is. */
  why: string
  /** By how much it stopped below where it was computed, in px, though its target stands where it should: the page was laid out otherwise then. */
  drift?: number
  /** Of one that is off, by how much it stopped below its place, in px. */
  by?: number
}

/** Tells the links of a page apart: the same one may stand in several menus, which counts as one. */
export const triedKey = ({ label, href }: Pick<Tried, 'label' | 'href'>): string => `${label} ${href}`

/** Name of the menu that was made and covers where a link arrives; null where that is none. */
export const coveringMenu = ({ fault, tried }: Pick<TryVerdict, 'fault' | 'tried'>): string | null => {
  if (fault !== 'covered') return null
  const { coveredBy } = tried.coveredBy !== null || !tried.below ? tried : tried.below
  const [before, after] = madeMenuNamed('\n').split('\n') as [string, string]
  return coveredBy?.startsWith(before) && coveredBy.endsWith(after) ? coveredBy.slice(before.length, -after.length) : null
}

/** It arrives elsewhere, aside or out of sight for a menu that stays open behind the press. */
export const isLeftOpen = ({ fault, tried }: Pick<TryVerdict, 'fault' | 'tried'>): boolean =>
  tried.leftOpen !== null && (fault === 'covered' || fault === 'sideways' || (fault === 'off' && !tried.isTaken))

/** True for what may have been a busy machine's doing; what has no target, or a script of the page took, is so after a longer wait too. */
export const mayPass = ({ fault, tried }: TryVerdict): boolean =>
  fault !== null && fault !== 'nowhere' && fault !== 'no-box' && fault !== 'leaves' && !(fault === 'off' && tried.isTaken)

/**
 * Tries a link, and once more with longer waits when it isn't right and a busy machine may be why.
 * @param ask tries it; null when there is no such link
 */
export async function triedTwice(
  ask: (isPatient: boolean) => Promise<Tried | null>,
  mayBeBusy: (tried: Tried) => boolean,
): Promise<Tried | null> {
  const tried = await ask(false)
  return tried && mayBeBusy(tried) ? ((await ask(true)) ?? tried) : tried
}

/** It stops elsewhere than was computed, and no script or open menu is to blame: the page was perhaps another when it was measured. */
export const stopsElsewhere = ({ fault, drift, tried }: TryVerdict): boolean =>
  tried.leftOpen === null && (drift !== undefined || (fault === 'off' && !tried.isTaken))

/** Links whose presses a script of the page takes. */
export interface TakenLinks {
  /** How many there are, and how many of them that script brings elsewhere than computed. */
  links: number
  off: number
  /** Of these all are put right once that script has done. */
  isPutRight: boolean
  /** The one of them that stops farthest from its place; `by` in px, negative above it. */
  worst: { label: string; screen: string; by: number } | null
}

/** @param page as it is handed over; the rest by screen key */
export function takenLinks(
  page: SitePage,
  surveys: Readonly<Record<string, Survey>>,
  tried: Readonly<Record<string, readonly Tried[]>>,
): TakenLinks {
  const all = new Set<string>()
  const off = new Set<string>()
  let worst: TakenLinks['worst'] = null
  let isPutRight = true
  for (const [screen, links] of Object.entries(tried))
    for (const { tried: one, fault, by: left = 0 } of judgeTried(page, surveys[screen] ?? null, links)) {
      if (!one.isTaken) continue
      const key = triedKey(one)
      all.add(key)
      const by = (fault === 'off' && left) || one.astray
      if (Math.abs(by) <= TOLERANCE) continue
      off.add(key)
      isPutRight &&= fault !== 'off'
      if (!worst || Math.abs(by) > Math.abs(worst.by)) worst = { label: one.label, screen, by }
    }
  return { links: all.size, off: off.size, isPutRight, worst }
}

/** What of the page's menus has to be known to try their links: those that the page marks by itself, and items that lead to this page. */
export function knownMenusOf(page: SitePage, surveys: Readonly<Record<string, Survey>>): { marked: MarkedMenu[]; items: ElementAt[] } {
  return { marked: pageMarked(page, surveys), items: page.menus.flatMap((m) => itemsHere(m).flatMap((i) => i.links)) }
}

/** Items that lead to a place of their own page. */
export const itemsHere = ({ items }: Menu): Item[] => items.filter(({ target }) => target.kind === 'top' || sectionOf(target) !== null)

interface MarkedMenu {
  at: ElementAt
  mark: MarkClass
}

function pageMarked(page: SitePage, surveys: Readonly<Record<string, Survey>>): MarkedMenu[] {
  if (!page.highlight.pageMark) return []
  const seen = Object.values(surveys).flatMap((s) => s.menus)
  return page.menus.flatMap((menu) =>
    isFound(menu)
      ? menu.form.elements.flatMap((at) => {
          const mark = seen.find((m) => m.at === at && m.pageMark)?.pageMark
          return mark ? [{ at, mark: { on: mark.on, name: mark.name } }] : []
        })
      : [],
  )
}

const FROM_BELOW = ' when followed from further down'

const arrivesUnder = (cover: string): string => (cover ? `arrives under ${cover}` : 'arrives out of sight')

/** @param page as it is handed over; @param survey of the screen that they were tried on */
export function judgeTried(page: SitePage, survey: Survey | null, tried: readonly Tried[]): TryVerdict[] {
  const land = new Map<string, number>([['', 0]])
  /** Where the element of an ID is to stand in the viewport; on a page that has grown meanwhile it may get where it could not before. */
  const tops = new Map<string, number[]>()
  if (survey) {
    const byKey = new Map(solveArrivals(page, survey).map((a) => [a.section, a]))
    const parts = partsByAt(survey)
    const isAbove = (section: Section) => parts.has(section.at) && standsAbove(section, parts.get(section.at)!)
    for (const section of page.sections) {
      const arrival = byKey.get(section.key)
      // What the page does not move for is left where one stands.
      if (!arrival?.movesPage) continue
      for (const id of [section.id, ...section.former]) land.set(id, arrival.land)
      if (!section.point && !section.toTop && !isAbove(section)) tops.set(section.id, [arrival.top, arrival.top - arrival.shortfall])
    }
  }
  // What is left as it is leads to no section, and to no mark.
  const items = page.menus.flatMap((m) => m.items.filter((i) => i.target.kind !== 'as-is'))
  const links = new Set(items.flatMap((i) => i.links))
  const labels = new Set(items.map((i) => i.label))
  // What Way Bell wrote has its label as it was written, and no place in the source.
  const isItem = ({ at, label }: Tried) => (at === null ? labels.has(label) : links.has(at))
  return tried.map((one): TryVerdict => {
    const wrong = (fault: TryFault, why: string): TryVerdict => ({ tried: one, fault, why })
    const meant = land.get(one.id)
    const offOf = ({ scroll }: Stop) => (meant === undefined ? 0 : scroll - meant)
    const isInPlace = ({ top }: Stop) => top !== null && !!tops.get(one.id)?.some((meantTop) => Math.abs(top - meantTop) <= TOLERANCE)
    const off = offOf(one)
    const drift = Math.abs(off) > TOLERANCE && isInPlace(one) ? { drift: off } : {}
    const stopsOff = (stop: Stop, why: string): TryVerdict | null => {
      const by = offOf(stop)
      if (Math.abs(by) <= TOLERANCE || isInPlace(stop)) return null
      return { ...wrong('off', `stops ${Math.round(Math.abs(by))} px ${by > 0 ? 'below' : 'above'} its place${why}`), by }
    }
    if (one.target === 'missing') return wrong('nowhere', `leads nowhere: the page has no “#${one.id}”`)
    if (one.leaves) return wrong('leaves', 'opens in another tab')
    if (one.target === 'hidden') return wrong('no-box', 'doesn’t move the page: its target is hidden on this screen')
    if (one.isSideways && one.leftOpen) return wrong('sideways', 'moves the page sideways, because its menu stays open')
    if (one.isSideways) return wrong('sideways', 'moves the page sideways: that isn’t supported yet, so only a press marks its item')
    const reason = one.isTaken ? ', because a page script handles the press' : one.leftOpen ? ', because its menu stays open' : ''
    const isOff = stopsOff(one, reason)
    if (isOff) return isOff
    if (one.coveredBy !== null && one.leftOpen) return wrong('covered', 'arrives under its own menu, which stays open')
    if (one.coveredBy !== null) return wrong('covered', arrivesUnder(one.coveredBy))
    const isOffFromBelow = one.below && stopsOff(one.below, `${FROM_BELOW}${one.isTaken ? reason : ''}`)
    if (isOffFromBelow) return isOffFromBelow
    if (one.below && one.below.coveredBy !== null) return wrong('covered', arrivesUnder(one.below.coveredBy) + FROM_BELOW)
    // Only items are marked, and not a site's name that stands among them.
    if (!isItem(one)) return { tried: one, fault: null, why: '', ...drift }
    if (one.mark === 'absent') return wrong('unlit', 'arrives but isn’t marked')
    if (one.mark === 'unseen') return wrong('unseen', 'is marked but looks like the others: the page’s own styles win')
    if (one.mark === 'shared') return wrong('two', 'is marked, but the page also shows another item as current')
    return { tried: one, fault: null, why: '', ...drift }
  })
}
