/** Commands for menu items. */
import type { Motion } from '../../contract/index.ts'
import { type Item, type ItemTarget, type Menu, type Site } from '../document/index.ts'
import { CommandError } from '../errors.ts'
import { checkFree, find, insert, onPage, readsOf, replace, type Applied, type KindsOf } from './kind.ts'
import { itemShape, motionShape, offShape, flagShape, targetShape } from './shapes.ts'

export type ItemCommand =
  | { type: 'item/add'; page: string; menu: string; item: Item; index: number }
  | { type: 'item/drop'; page: string; menu: string; item: string }
  | { type: 'item/move'; page: string; menu: string; item: string; index: number }
  | { type: 'item/label'; page: string; menu: string; item: string; label: string }
  /** Undefined keeps the page's. */
  | { type: 'item/tooltip'; page: string; menu: string; item: string; tooltip: string | undefined }
  | { type: 'item/lang'; page: string; menu: string; item: string; lang: string | undefined }
  | { type: 'item/depth'; page: string; menu: string; item: string; depth: number | undefined }
  | { type: 'item/off'; page: string; menu: string; item: string; off: string[] | undefined }
  /** Undefined follows the menu. */
  | { type: 'item/motion'; page: string; menu: string; item: string; motion: Motion | undefined }
  | { type: 'item/target'; page: string; menu: string; item: string; target: ItemTarget; assumed?: true }

function onMenu(
  site: Site,
  c: { page: string; menu: string },
  change: (menu: Menu) => { items: Item[]; inverse: ItemCommand },
): Applied<ItemCommand> {
  return onPage(site, c.page, (page) => {
    const menu = find(page.menus, c.menu, 'menu')
    if (menu.syncedWith) throw new CommandError(`“${menu.name}” is synced with another menu: change that one, or stop syncing this one`)
    const { items, inverse } = change(menu)
    return { page: { ...page, menus: replace(page.menus, menu, { ...menu, items }) }, inverse }
  })
}

/** Sets a property of an item, or removes it so that the page's applies. */
function say(
  site: Site,
  c: { page: string; menu: string; item: string },
  said: { [K in 'tooltip' | 'lang' | 'depth' | 'off' | 'motion']?: Item[K] | undefined },
  back: (item: Item) => ItemCommand,
): Applied<ItemCommand> {
  return onMenu(site, c, ({ items }) => {
    const item = find(items, c.item, 'item')
    const next = Object.fromEntries(Object.entries({ ...item, ...said }).filter(([, value]) => value !== undefined)) as unknown as Item
    return { items: replace(items, item, next), inverse: back(item) }
  })
}

const inMenu = (c: { page: string; menu: string }, what: string) => `page/${c.page}/menu/${c.menu}/${what}`

export const itemCommands: KindsOf<ItemCommand> = {
  'item/add': {
    name: 'Add an item',
    payload: (s) => ({ page: s.key, menu: s.key, item: itemShape(s), index: s.index }),
    touches: (c) => ({ writes: [inMenu(c, 'order'), inMenu(c, `item/${c.item.key}/*`)], reads: readsOf(c.page, c.item.target) }),
    apply: (site, c) =>
      onMenu(site, c, ({ items }) => {
        checkFree(items, c.item.key, `the item “${c.item.label}” is there already`)
        return { items: insert(items, c.index, c.item), inverse: { type: 'item/drop', page: c.page, menu: c.menu, item: c.item.key } }
      }),
  },
  'item/drop': {
    name: 'Remove an item',
    payload: (s) => ({ page: s.key, menu: s.key, item: s.key }),
    touches: (c) => ({ writes: [inMenu(c, 'order'), inMenu(c, `item/${c.item}/*`)] }),
    apply: (site, c) =>
      onMenu(site, c, ({ items }) => {
        const item = find(items, c.item, 'item')
        return {
          items: items.filter((i) => i !== item),
          inverse: { type: 'item/add', page: c.page, menu: c.menu, item, index: items.indexOf(item) },
        }
      }),
  },
  'item/move': {
    name: 'Move an item',
    payload: (s) => ({ page: s.key, menu: s.key, item: s.key, index: s.index }),
    touches: (c) => ({ writes: [inMenu(c, 'order')], reads: [inMenu(c, `item/${c.item}/place`)] }),
    apply: (site, c) =>
      onMenu(site, c, ({ items }) => {
        const item = find(items, c.item, 'item')
        return {
          items: insert(
            items.filter((i) => i !== item),
            c.index,
            item,
          ),
          inverse: { ...c, index: items.indexOf(item) },
        }
      }),
  },
  'item/label': {
    name: 'Change a label',
    payload: (s) => ({ page: s.key, menu: s.key, item: s.key, label: s.text }),
    touches: (c) => ({ writes: [inMenu(c, `item/${c.item}/label`)] }),
    apply: (site, c) =>
      onMenu(site, c, ({ items }) => {
        const item = find(items, c.item, 'item')
        return { items: replace(items, item, { ...item, label: c.label }), inverse: { ...c, label: item.label } }
      }),
  },
  'item/tooltip': {
    name: 'Change a tooltip',
    payload: (s) => ({ page: s.key, menu: s.key, item: s.key, tooltip: s.optional(s.text) }),
    touches: (c) => ({ writes: [inMenu(c, `item/${c.item}/tooltip`)] }),
    apply: (site, c) => say(site, c, { tooltip: c.tooltip }, ({ tooltip }) => ({ ...c, tooltip })),
  },
  'item/lang': {
    name: 'Change the language of a label',
    payload: (s) => ({ page: s.key, menu: s.key, item: s.key, lang: s.optional(s.lang) }),
    touches: (c) => ({ writes: [inMenu(c, `item/${c.item}/lang`)] }),
    apply: (site, c) => say(site, c, { lang: c.lang }, ({ lang }) => ({ ...c, lang })),
  },
  'item/depth': {
    name: 'Nest an item',
    payload: (s) => ({ page: s.key, menu: s.key, item: s.key, depth: s.optional(s.depth) }),
    touches: (c) => ({ writes: [inMenu(c, `item/${c.item}/depth`)], reads: [inMenu(c, 'order')] }),
    apply: (site, c) => say(site, c, { depth: c.depth }, ({ depth }) => ({ ...c, depth })),
  },
  'item/off': {
    name: 'Choose the screens of an item',
    payload: (s) => ({ page: s.key, menu: s.key, item: s.key, off: offShape(s) }),
    touches: (c) => ({ writes: [inMenu(c, `item/${c.item}/off`)] }),
    apply: (site, c) => say(site, c, { off: c.off }, ({ off }) => ({ ...c, off })),
  },
  'item/motion': {
    name: 'Change the motion of a link',
    payload: (s) => ({ page: s.key, menu: s.key, item: s.key, motion: motionShape(s) }),
    touches: (c) => ({ writes: [inMenu(c, `item/${c.item}/motion`)] }),
    apply: (site, c) => say(site, c, { motion: c.motion }, ({ motion }) => ({ ...c, motion })),
  },
  'item/target': {
    name: 'Change a target',
    payload: (s) => ({ page: s.key, menu: s.key, item: s.key, target: targetShape(s), assumed: flagShape(s) }),
    touches: (c) => ({ writes: [inMenu(c, `item/${c.item}/target`)], reads: readsOf(c.page, c.target) }),
    apply: (site, c) =>
      onMenu(site, c, ({ items }) => {
        const item = find(items, c.item, 'item')
        // A chosen target is confirmed; undo restores the doubt.
        const { assumed, ...rest } = item
        const { assumed: again, ...command } = c
        return {
          items: replace(items, item, { ...rest, target: c.target, ...(again && { assumed: again }) }),
          inverse: { ...command, target: item.target, ...(assumed && { assumed: assumed }) },
        }
      }),
  },
}
