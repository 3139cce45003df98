/** Where a menu that is made is seen. */
import { HOLDS, isFound, isMade, type MadeMenu, type Menu, type Screen, type Section, type Shown, type SitePage } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'
import { formOf } from './form-of.ts'
import { SMALL, type Small } from './forms/form.ts'

/** Up to which width of the viewport screens are small where nothing is said, in px. */
export const SMALL_WIDTH = 640

/** What a menu does on small screens, and up to which width of the viewport those go, in px. */
export function smallOf({ form, shown }: MadeMenu): { upTo: number; as: Small } {
  const { small } = formOf(form)
  const said = shown?.small
  // What another form did, this one may not do.
  return { upTo: said?.upTo ?? SMALL_WIDTH, as: said && small.includes(said.as) ? said.as : small[0]! }
}

/** Where a menu is not seen at all, on some part of the page it is on all others. */
export function isOn(menu: MadeMenu, { key, width }: Pick<Screen, 'key' | 'width'>): boolean {
  const { upTo, as } = smallOf(menu)
  return !menu.shown?.off?.includes(key) && !(as === 'away' && width <= upTo)
}

/** Keys of the items of menus that are made which are not on a screen. */
export const hiddenOn = (page: SitePage, screen: Pick<Screen, 'key' | 'width'>): Set<string> =>
  new Set(
    page.menus.filter(isMade).flatMap((m) => m.items.filter((i) => !isOn(m, screen) || i.off?.includes(screen.key)).map((i) => i.key)),
  )

/** Menus of the page's own of which nothing is drawn on a screen before something opens them. */
export const foldedOn = (page: SitePage, { menus }: Pick<Survey, 'menus'>): Menu[] =>
  page.menus.filter((m) => isFound(m) && m.items.length && m.form.elements.every((at) => menus.some((s) => s.at === at && !s.isDrawn)))

/** It comes into view only after a while, so that it takes no room where the page begins. */
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
