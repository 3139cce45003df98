/** The quick walk: every menu link followed once without smooth motion, compared with what was computed. */
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
  /** The target's distance from the top of the visible page; null for the page's top, and without a box. */
  top: number | null
  /** What covers the start of the target, as a selector; empty when it's out of view; null when it's visible. */
  coveredBy: string | null
}

/** One tried link, from the page's top. Lengths in CSS px. */
export interface Tried extends Stop {
  /** The link in the source; null for one that we or a script made. */
  at: ElementAt | null
  label: string
  href: string
  /** Its decoded hash; empty for the page's top. */
  id: string
  /** Whether the page has the target, and whether it has a box on this screen. */
  target: (typeof TARGETS)[number]
  /** It opens in another tab. */
  leaves: boolean
  /** The same from the page's end; null without a visible target, and if the menu stayed open. */
  below: Stop | null
  /** An overlay that covers nearly everything, the link too, until it's closed, as a selector; empty for none. Tried as if it were gone. */
  overlay: string
  /** The page scrolled sideways by more than half the viewport. */
  isSideways: boolean
  /** How the menu marked the item: `right` also when the menu marks none. */
  mark: (typeof MARKED)[number]
  /** A page script handled the press. */
  isTaken: boolean
  /** For those: how far below its place the script had left the page before it was corrected; 0 for none. */
  astray: number
  /** Name of its made menu; empty for a found one. */
  menu: string
  /** The menu was opened for the press and stayed open: its element, and what closes it; null if unknown or built by scripts. */
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
  /** What is wrong and why, in words; empty for nothing. */
  why: string
  /** How far below its computed place it stopped, in px, although the target is in place: the layout had changed. */
  drift?: number
  /** How far below its place it stopped, in px, if off. */
  by?: number
}

/** Identifies a link of a page; the same link in several menus counts once. */
export const triedKey = ({ label, href }: Pick<Tried, 'label' | 'href'>): string => `${label} ${href}`

/** Name of the made menu that covers the target; null for none. */
export const coveringMenu = ({ fault, tried }: Pick<TryVerdict, 'fault' | 'tried'>): string | null => {
  if (fault !== 'covered') return null
  const { coveredBy } = tried.coveredBy !== null || !tried.below ? tried : tried.below
  const [before, after] = madeMenuNamed('\n').split('\n') as [string, string]
  return coveredBy?.startsWith(before) && coveredBy.endsWith(after) ? coveredBy.slice(before.length, -after.length) : null
}

/** True when an open menu makes it miss, move sideways or arrive covered. */
export const isLeftOpen = ({ fault, tried }: Pick<TryVerdict, 'fault' | 'tried'>): boolean =>
  tried.leftOpen !== null && (fault === 'covered' || fault === 'sideways' || (fault === 'off' && !tried.isTaken))

/** True when a busy machine may be the reason; missing targets and script-handled presses are certain. */
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

/** True when it stops elsewhere, without a script or open menu as reason: the page may have changed since it was measured. */
export const stopsElsewhere = ({ fault, drift, tried }: TryVerdict): boolean =>
  tried.leftOpen === null && (drift !== undefined || (fault === 'off' && !tried.isTaken))

/** Links whose presses a page script handles. */
export interface TakenLinks {
  /** Number of links, and of those that the script leaves elsewhere. */
  links: number
  off: number
  /** All of these are corrected afterwards. */
  isPutRight: boolean
  /** The one farthest off; `by` in px, negative above. */
  worst: { label: string; screen: string; by: number } | null
}

/** @param page as handed over; the rest by screen key */
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

/** What trying a page's links needs to know: menus that the page marks itself, and items that lead to this page. */
export function knownMenusOf(page: SitePage, surveys: Readonly<Record<string, Survey>>): { marked: MarkedMenu[]; items: ElementAt[] } {
  return { marked: pageMarked(page, surveys), items: page.menus.flatMap((m) => itemsHere(m).flatMap((i) => i.links)) }
}

/** Items that lead to their own page. */
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

/** @param page as handed over @param survey of the screen they were tried on */
export function judgeTried(page: SitePage, survey: Survey | null, tried: readonly Tried[]): TryVerdict[] {
  const land = new Map<string, number>([['', 0]])
  /** Target positions in the viewport by ID; a page that has grown may reach places it couldn't before. */
  const tops = new Map<string, number[]>()
  if (survey) {
    const byKey = new Map(solveArrivals(page, survey).map((a) => [a.section, a]))
    const parts = partsByAt(survey)
    const isAbove = (section: Section) => parts.has(section.at) && standsAbove(section, parts.get(section.at)!)
    for (const section of page.sections) {
      const arrival = byKey.get(section.key)
      // Targets that don't move the page have no position.
      if (!arrival?.movesPage) continue
      for (const id of [section.id, ...section.former]) land.set(id, arrival.land)
      if (!section.point && !section.toTop && !isAbove(section)) tops.set(section.id, [arrival.top, arrival.top - arrival.shortfall])
    }
  }
  // Items left as they are have no section and no mark.
  const items = page.menus.flatMap((m) => m.items.filter((i) => i.target.kind !== 'as-is'))
  const links = new Set(items.flatMap((i) => i.links))
  const labels = new Set(items.map((i) => i.label))
  // Made links have their label, but no place in the source.
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
    // Only items are marked, not the site's name among them.
    if (!isItem(one)) return { tried: one, fault: null, why: '', ...drift }
    if (one.mark === 'absent') return wrong('unlit', 'arrives but isn’t marked')
    if (one.mark === 'unseen') return wrong('unseen', 'is marked but looks like the others: the page’s own styles win')
    if (one.mark === 'shared') return wrong('two', 'is marked, but the page also shows another item as current')
    return { tried: one, fault: null, why: '', ...drift }
  })
}
