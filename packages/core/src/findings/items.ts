/** Shared by the rules about items. */
import type { Item, MadeMenu, Menu, Screen } from '../site/index.ts'
import type { SiteFacts } from './facts.ts'
import type { Draft, Fix } from './finding.ts'

/** Items, except those of synced menus, whose findings belong to the source. */
export const itemsOf = ({ page }: SiteFacts): { menu: Menu; item: Item }[] =>
  page.menus.flatMap((menu) => (menu.syncedWith ? [] : menu.items.map((item) => ({ menu, item }))))

export function placeOfItem({ links }: SiteFacts, menu: Menu, item: Item): Pick<Draft, 'line' | 'column' | 'where'> {
  const link = links.get(item.links[0] ?? -1)
  return {
    line: link?.line ?? 1,
    column: link?.column ?? 1,
    where: { ...(link ? { at: link.at } : {}), item: { menu: menu.key, item: item.key } },
  }
}

/** The screen whose decisions apply: screens with larger text have none of their own. */
export const decidedBy = ({ site, surveys }: Pick<SiteFacts, 'site' | 'surveys'>, screen: Screen): Screen =>
  site.screens.find((s) => s.key === surveys[screen.key]?.screen) ?? screen

/** Takes a made menu off some screens. */
export const takenOff = (page: string, { key, name, shown }: MadeMenu, screens: readonly Screen[]): Fix => ({
  label: `Take “${name}” off ${screens.map((s) => `“${s.name}”`).join(', ')}`,
  command: {
    type: 'menu/shown',
    page,
    menu: key,
    shown: { ...shown, off: [...new Set([...(shown?.off ?? []), ...screens.map((s) => s.key)])] },
  },
})
