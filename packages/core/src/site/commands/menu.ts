/** Commands on menus. */
import { type Menu } from '../document.ts'
import { checkFree, find, insert, onPage, readsOf, type KindsOf } from './kind.ts'
import { menuShape } from './shapes.ts'

export type MenuCommand = { type: 'menu/add'; page: string; menu: Menu; index: number } | { type: 'menu/drop'; page: string; menu: string }

export const menuCommands: KindsOf<MenuCommand> = {
  'menu/add': {
    name: 'Add a menu',
    payload: (s) => ({ page: s.key, menu: menuShape(s), index: s.index }),
    touches: ({ page, menu }) => ({
      writes: [`page/${page}/menus`, `page/${page}/menu/${menu.key}/*`],
      reads: menu.items.flatMap((i) => readsOf(page, i.target)),
    }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => {
        checkFree(page.menus, c.menu.key, `the menu “${c.menu.name}” is there already`)
        return {
          page: { ...page, menus: insert(page.menus, c.index, c.menu) },
          inverse: { type: 'menu/drop', page: c.page, menu: c.menu.key },
        }
      }),
  },
  'menu/drop': {
    name: 'Remove a menu',
    payload: (s) => ({ page: s.key, menu: s.key }),
    touches: ({ page, menu }) => ({ writes: [`page/${page}/menus`, `page/${page}/menu/${menu}/*`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => {
        const menu = find(page.menus, c.menu, 'menu')
        return {
          page: { ...page, menus: page.menus.filter((m) => m !== menu) },
          inverse: { type: 'menu/add', page: c.page, menu, index: page.menus.indexOf(menu) },
        }
      }),
  },
}
