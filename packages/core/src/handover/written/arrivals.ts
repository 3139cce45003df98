/** When a link needs the script to arrive. Everywhere else, CSS alone lands it. */
import { coverOf, solveArrivals } from '../../arrival/index.ts'
import { decodeFragment } from '../../contract/index.ts'
import { isFound, isMade, type SitePage } from '../../site/index.ts'
import { builtOf, type Survey } from '../../survey/index.ts'
import { mayChange } from '../growth.ts'
import { travelsOtherwise, type WritingInput } from '../writing.ts'
import { changesItself } from './made-form.ts'

/**
 * Why links need the script to arrive, as the end of a sentence; null if CSS alone lands them all: what the header covers is constant, no
 * part is laid out late, and no page script moves the page.
 */
export function whyArrivals(input: WritingInput): string | null {
  const { page, reading, screens } = input
  const surveys = Object.values(input.surveys)
  const some = (is: (survey: Survey) => boolean) => surveys.some(is)
  const reasons: [string, boolean][] = [
    ['the page was not measured on every screen', screens.some(({ key }) => !input.surveys[key])],
    ['the header changes its height on scroll', changesHeader(page) || mayChange(input) || some((s) => s.near.length > 0)],
    ['the header covers the page on some screens only', new Set(coversOf(input).map((px) => px > 0)).size > 1],
    [
      'page scripts may move the page',
      reading.hasScripts || !!page.travel.takesPresses || some((s) => s.rewrites || s.isHeld || hasBuilt(s)),
    ],
    ['a section is sticky', some((s) => s.parts.some((p) => p.sticks))],
    ['the page scrolls in an element', page.scroller !== undefined || some((s) => s.scroller !== null)],
    ['pictures have no size until they are loaded', some((s) => s.pictures.some(({ at }) => !page.pictures?.some((p) => p.at === at)))],
    ['parts are laid out late', some((s) => s.estimates.length > 0)],
    ['links have motions or addresses of their own', travelsOtherwise(page)],
    ['points have no element of their own', input.anchors.some((a) => a.placed)],
    ['made menus open and close', page.menus.some((m) => isMade(m) && changesItself(m))],
    ['a section has no place of its own on some screen', some((s) => solveArrivals(page, s).some((a) => !a.movesPage))],
    ['links are written in an unusual way', reading.base !== null || hasUnusualLinks(input) || hasNames(input)],
  ]
  return reasons.find(([, is]) => is)?.[0] ?? null
}

/** What the page's header covers at rest on each measured screen, in px. */
export const coversOf = ({ page, surveys }: WritingInput): number[] => Object.values(surveys).map((s) => coverOf(page, s).ownRest)

const changesHeader = ({ header }: SitePage): boolean => !!header?.onScroll || !!header?.steady

const hasBuilt = (survey: Survey): boolean => {
  const { menus, targets } = builtOf([survey])
  return menus.length + targets.length > 0
}

/** As a browser writes it in `location.hash`. */
const hashIn = (fragment: string): string => new URL(`#${fragment}`, 'http://page/').hash

/** True for a hash that a browser doesn't write as the section's ID, and for a link to the top by another name. */
function hasUnusualLinks({ page, reading }: WritingInput): boolean {
  const ids = new Set(page.sections.flatMap((s) => [s.id, ...s.former]))
  const isOdd = (fragment: string) => {
    const id = decodeFragment(fragment)
    return !ids.has(fragment) && ids.has(id) && hashIn(id) !== hashIn(fragment)
  }
  const tops = new Set(
    page.menus.flatMap((m) => (isFound(m) ? m.items.filter((i) => i.target.kind === 'top').flatMap((i) => i.links) : [])),
  )
  return (
    // These are written percent-encoded.
    [...ids].some((id) => /[%"'<>`\\^{|}]/.test(id)) ||
    reading.links.some(
      ({ at, status, fragment }) =>
        fragment !== null && ['ok', 'broken', 'top'].includes(status) && (isOdd(fragment) || (tops.has(at) && !/^(top)?$/.test(fragment))),
    )
  )
}

/** Some section is an `<a name>`. */
const hasNames = ({ page, reading }: WritingInput): boolean => {
  const withId = new Set(reading.ids.map((i) => i.at))
  const names = new Map(reading.candidates.map((c) => [c.at, c.id]))
  return page.sections.some((s) => !s.point && !withId.has(s.at) && names.get(s.at) === s.id)
}
