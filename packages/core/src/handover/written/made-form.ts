/** What made menus need. */
import { formOf, isLate, smallOf } from '../../menus/index.ts'
import type { MadeMenu } from '../../site/index.ts'

/** Visibility or opening that the style alone can't do. */
export const changesItself = (menu: MadeMenu): boolean => {
  const { until, holds } = menu.shown ?? {}
  const form = formOf(menu.form)
  const opens = form.isFolded || smallOf(menu).as === 'folds' || (form.opens && menu.items.some((i) => i.depth))
  return !!opens || !!holds || isLate(menu) || until !== undefined
}
