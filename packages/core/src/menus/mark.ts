/** How the current item of a menu is marked that the page has. */
import { markStyles, type Mark } from '../contract/index.ts'
import type { ElementAt } from '../page/index.ts'
import { isFound, type SitePage } from '../site/index.ts'
import { builtOf, inScreenOrder, type Survey } from '../survey/index.ts'

/**
 * By the class that the page has for it, else by the first look that shows wherever the menu is drawn; undefined where nobody saw it.
 * @param isOurs what the page marks there, and leaves standing, says which section this is and not which page
 */
export function markFor(elements: readonly ElementAt[], surveys: readonly Survey[], isOurs: boolean): Mark | undefined {
  const seen = surveys.flatMap((s) => s.menus.filter((m) => elements.includes(m.at)))
  const own = seen.map((m) => m.pageMark).find((o) => o?.name && o.isSeen && (o.followsScroll || isOurs))
  if (own) return { on: own.on, name: own.name }
  const drawn = seen.filter((m) => m.isDrawn)
  return drawn.length ? (markStyles.find((style) => drawn.every((m) => m.shows.includes(style))) ?? 'strong') : undefined
}

/** Menus that scripts of the page build in an element of the source: it can say so, though nothing of them can be written. */
export function builtMenusOf(page: SitePage, measured: Iterable<Survey>): { at: ElementAt; mark: Mark }[] {
  const surveys = inScreenOrder(measured)
  const known = new Set(page.menus.flatMap((m) => (isFound(m) ? m.form.elements : [])))
  const places = new Set(builtOf(surveys).menus.flatMap((m) => (m.at === null || known.has(m.at) ? [] : m.at)))
  return [...places].map((at) => ({ at, mark: markFor([at], surveys, true) ?? 'line' }))
}
