/** Commands on menus. */
import type { Motion } from '../../contract/index.ts'
import type { ElementAt } from '../../page/index.ts'
import {
  isFound,
  isMade,
  type SyncSource,
  type Item,
  type MadeMenuForm,
  type Menu,
  type MenuLook,
  type Shown,
  type Site,
} from '../document/index.ts'
import { CommandError } from '../errors.ts'
import { checkFree, find, insert, onPage, readsOf, replace, type Applied, type KindsOf } from './kind.ts'
import { growsShape, syncShape, itemShape, lookShape, madeFormShape, menuShape, motionShape, shownShape } from './shapes.ts'

export type MenuCommand =
  | { type: 'menu/add'; page: string; menu: Menu; index: number }
  | { type: 'menu/drop'; page: string; menu: string }
  | { type: 'menu/name'; page: string; menu: string; name: string }
  /** For made menus. */
  | { type: 'menu/form'; page: string; menu: string; form: MadeMenuForm }
  | { type: 'menu/shown'; page: string; menu: string; shown: Shown | undefined }
  /** Syncs it with another menu, or stops syncing. @param items its items afterwards, if they differ */
  | { type: 'menu/sync'; page: string; menu: string; syncedWith: SyncSource | undefined; items?: Item[] | undefined }
  | { type: 'menu/look'; page: string; menu: string; look: MenuLook | undefined }
  /** Undefined follows the page. */
  | { type: 'menu/motion'; page: string; menu: string; motion: Motion | undefined }
  /** For found menus: what to press to close it; undefined for nothing. */
  | { type: 'menu/shut-by'; page: string; menu: string; by?: ElementAt | undefined }
  | { type: 'menu/grows'; page: string; menu: string; grows: false | undefined }

function onMenu(
  site: Site,
  c: { page: string; menu: string },
  change: (menu: Menu) => { menu: Menu; inverse: MenuCommand },
): Applied<MenuCommand> {
  return onPage(site, c.page, (page) => {
    const was = find(page.menus, c.menu, 'menu')
    const { menu, inverse } = change(was)
    return { page: { ...page, menus: replace(page.menus, was, menu) }, inverse }
  })
}

const asMade = (menu: Menu) => {
  if (!isMade(menu)) throw new CommandError(`“${menu.name}” is one of the page’s own menus; only the page can change its form`)
  return menu
}

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
  'menu/name': {
    name: 'Rename a menu',
    payload: (s) => ({ page: s.key, menu: s.key, name: s.text }),
    touches: (c) => ({ writes: [`page/${c.page}/menu/${c.menu}/name`] }),
    apply: (site, c) => onMenu(site, c, (menu) => ({ menu: { ...menu, name: c.name }, inverse: { ...c, name: menu.name } })),
  },
  'menu/form': {
    name: 'Change the form of a menu',
    payload: (s) => ({ page: s.key, menu: s.key, form: madeFormShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/menu/${c.menu}/form`] }),
    apply: (site, c) =>
      onMenu(site, c, (menu) => {
        const { form } = asMade(menu)
        return { menu: { ...menu, form: c.form }, inverse: { ...c, form } }
      }),
  },
  'menu/shown': {
    name: 'Change where a menu shows',
    payload: (s) => ({ page: s.key, menu: s.key, shown: shownShape(s) }),
    touches: (c) => ({
      writes: [`page/${c.page}/menu/${c.menu}/shown`],
      reads: [c.shown?.from, c.shown?.until].flatMap((key) => (key === undefined ? [] : [`page/${c.page}/section/${key}/target`])),
    }),
    apply: (site, c) =>
      onMenu(site, c, (menu) => {
        const { shown, ...rest } = asMade(menu)
        return { menu: { ...rest, ...(c.shown && { shown: c.shown }) }, inverse: { ...c, shown } }
      }),
  },
  'menu/sync': {
    name: 'Sync a menu',
    payload: (s) => ({ page: s.key, menu: s.key, syncedWith: syncShape(s), items: s.optional(s.array(itemShape(s), 5000)) }),
    touches: (c) => ({
      writes: [`page/${c.page}/menu/${c.menu}/*`],
      reads: c.syncedWith ? [`page/${c.syncedWith.page}/menu/${c.syncedWith.menu}/followed`] : [],
    }),
    apply: (site, c) =>
      onMenu(site, c, (menu) => {
        const { syncedWith, ...rest } = asMade(menu)
        const items = c.items ?? menu.items
        return {
          menu: { ...rest, ...(c.syncedWith && { syncedWith: c.syncedWith }), items },
          inverse: { ...c, syncedWith, items: menu.items },
        }
      }),
  },
  'menu/look': {
    name: 'Change the look of a menu',
    payload: (s) => ({ page: s.key, menu: s.key, look: lookShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/menu/${c.menu}/look`] }),
    apply: (site, c) =>
      onMenu(site, c, (menu) => {
        const { look, ...rest } = menu
        if (isFound(menu) && Object.keys(c.look ?? {}).some((name) => name !== 'states'))
          throw new CommandError(`“${menu.name}” is one of the page’s own menus; only the states of its items can be styled`)
        if (isFound(menu) && (c.look?.states?.rest || c.look?.states?.held))
          throw new CommandError(`the normal look of “${menu.name}” comes from the page`)
        return { menu: { ...rest, ...(c.look && { look: c.look }) }, inverse: { ...c, look } }
      }),
  },
  'menu/motion': {
    name: 'Change the motion of a menu',
    payload: (s) => ({ page: s.key, menu: s.key, motion: motionShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/menu/${c.menu}/motion`] }),
    apply: (site, c) =>
      onMenu(site, c, ({ motion, ...menu }) => ({
        menu: { ...menu, ...(c.motion && { motion: c.motion }) },
        inverse: { ...c, motion },
      })),
  },
  'menu/shut-by': {
    name: 'Change what closes a menu',
    payload: (s) => ({ page: s.key, menu: s.key, by: s.optional(s.at) }),
    touches: (c) => ({ writes: [`page/${c.page}/menu/${c.menu}/shut-by`] }),
    apply: (site, c) =>
      onMenu(site, c, (menu) => {
        if (!isFound(menu)) throw new CommandError(`“${menu.name}” is a made menu, which closes by itself`)
        const { shutBy, ...form } = menu.form
        return { menu: { ...menu, form: { ...form, ...(c.by !== undefined && { shutBy: c.by }) } }, inverse: { ...c, by: shutBy } }
      }),
  },
  'menu/grows': {
    name: 'Change whether a menu grows',
    payload: (s) => ({ page: s.key, menu: s.key, grows: growsShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/menu/${c.menu}/grows`] }),
    apply: (site, c) =>
      onMenu(site, c, (menu) => {
        const { grows, ...rest } = asMade(menu)
        return { menu: { ...rest, ...(c.grows === false && { grows: c.grows }) }, inverse: { ...c, grows } }
      }),
  },
}
