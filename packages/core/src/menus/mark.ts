/** How the current item of a found menu is marked. */
import { markStyles, type Mark } from '../contract/index.ts'
import type { ElementAt } from '../page/index.ts'
import { isFound, type SitePage } from '../site/index.ts'
import { builtOf, inScreenOrder, type Survey } from '../survey/index.ts'

/**
 * The page's own class, else the first style that shows wherever the menu is visible; undefined if it was never seen.
 * @param isOurs the page's static mark means this section
 */
export function markFor(elements: readonly ElementAt[], surveys: readonly Survey[], isOurs: boolean): Mark | undefined {
  const seen = surveys.flatMap((s) => s.menus.filter((m) => elements.includes(m.at)))
  const own = seen.map((m) => m.pageMark).find((o) => o?.name && o.isSeen && (o.followsScroll || isOurs))
  if (own) return { on: own.on, name: own.name }
  const drawn = seen.filter((m) => m.isDrawn)
  return drawn.length ? (markStyles.find((style) => drawn.every((m) => m.shows.includes(style))) ?? 'strong') : undefined
}

/** Menus that scripts build in an element of the source, which can carry a mark. */
export function builtMenusOf(page: SitePage, measured: Iterable<Survey>): { at: ElementAt; mark: Mark }[] {
  const surveys = inScreenOrder(measured)
  const known = new Set(page.menus.flatMap((m) => (isFound(m) ? m.form.elements : [])))
  const places = new Set(builtOf(surveys).menus.flatMap((m) => (m.at === null || known.has(m.at) ? [] : m.at)))
  return [...places].map((at) => ({ at, mark: markFor([at], surveys, true) ?? 'line' }))
}
