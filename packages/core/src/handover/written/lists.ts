/** Which menus have lists that open. */
import { builtMenusOf, nestedItems } from '../../menus/index.ts'
import { isFound, isMade, type FoundForm } from '../../site/index.ts'
import type { HandoverInput } from '../input.ts'

/** True when some menu has lists that open, so that what opens them is marked. */
export function opensLists({ page, reading, surveys }: HandoverInput): boolean {
  const elements = new Set(page.menus.filter(isFound).flatMap((m) => (m.form as FoundForm).elements))
  return (
    builtMenusOf(page, Object.values(surveys)).length > 0 ||
    page.menus.some((m) => isMade(m) && nestedItems(m).some((n) => n.children.length)) ||
    reading.menus.some((m) => elements.has(m.at) && m.opens)
  )
}
