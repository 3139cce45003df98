/** Where made menus are visible. */
import { HOLDS, isFound, isMade, type MadeMenu, type Menu, type Screen, type Section, type Shown, type SitePage } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'
import { formOf } from './form-of.ts'
import { SMALL, type Small } from './forms/form.ts'

/** Default width limit of small screens, in px. */
export const SMALL_WIDTH = 640

/** What a menu does on small screens, and their width limit in px. */
export function smallOf({ form, shown }: MadeMenu): { upTo: number; as: Small } {
  const { small } = formOf(form)
  const said = shown?.small
  // The form may not offer what another form did.
  return { upTo: said?.upTo ?? SMALL_WIDTH, as: said && small.includes(said.as) ? said.as : small[0]! }
}

/** Whether a menu is on a screen at all. */
export function isOn(menu: MadeMenu, { key, width }: Pick<Screen, 'key' | 'width'>): boolean {
  const { upTo, as } = smallOf(menu)
  return !menu.shown?.off?.includes(key) && !(as === 'away' && width <= upTo)
}

/** Keys of items of made menus that aren't on a screen. */
export const hiddenOn = (page: SitePage, screen: Pick<Screen, 'key' | 'width'>): Set<string> =>
  new Set(
    page.menus.filter(isMade).flatMap((m) => m.items.filter((i) => !isOn(m, screen) || i.off?.includes(screen.key)).map((i) => i.key)),
  )

/** Found menus with nothing visible on a screen until they're opened. */
export const foldedOn = (page: SitePage, { menus }: Pick<Survey, 'menus'>): Menu[] =>
  page.menus.filter((m) => isFound(m) && m.items.length && m.form.elements.every((at) => menus.some((s) => s.at === at && !s.isDrawn)))

/** True when it appears after scrolling, and so takes no space at the start. */
export const isLate = ({ shown }: Pick<MadeMenu, 'shown'>): boolean => shown?.from !== undefined || shown?.after !== undefined

export function shownWords({ shown }: MadeMenu, idOf: (section: string) => string): Record<string, string> {
  const { from, until, after, off, small, holds } = shown ?? {}
  return {
    ...(from !== undefined && { from: idOf(from) }),
    ...(until !== undefined && { until: idOf(until) }),
    ...(after !== undefined && { after: String(after) }),
    ...(off?.length && { off: off.join(',') }),
    ...(small && { small: `${small.as}:${small.upTo}` }),
    ...(holds && { holds }),
  }
}

export function readShown(words: Readonly<Record<string, string>>, byId: ReadonlyMap<string, Section>): Shown | null {
  const section = (name: 'from' | 'until') => {
    const key = byId.get(words[name] ?? '')?.key
    return key === undefined ? {} : { [name]: key }
  }
  const [, as, upTo] = /^(\w+):(\d{1,5})$/.exec(words.small ?? '') ?? []
  const holds = HOLDS.find((h) => h === words.holds)
  const shown: Shown = {
    ...section('from'),
    ...section('until'),
    ...(/^[1-9]\d{0,4}$|^100000$/.test(words.after ?? '') && { after: Number(words.after) }),
    ...(words.off && { off: words.off.split(',') }),
    ...(holds && { holds }),
    ...(SMALL.includes(as as Small) && Number(upTo) > 0 && { small: { upTo: Number(upTo), as: as as Small } }),
  }
  return Object.keys(shown).length ? shown : null
}
