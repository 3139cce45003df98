/** Commands for marking the current section. */
import type { Mark } from '../../contract/index.ts'
import { isFound } from '../document/index.ts'
import { CommandError } from '../errors.ts'
import { onPage, type KindsOf } from './kind.ts'
import { flagShape, markShape } from './shapes.ts'

export type HighlightCommand =
  | { type: 'highlight/bell'; page: string; bellOffset: number }
  /** The page's script marks the current item, or ours. */
  | { type: 'highlight/page-mark'; page: string; pageMark?: true }
  | { type: 'highlight/mark'; page: string; menu: string; mark?: Mark }

export const highlightCommands: KindsOf<HighlightCommand> = {
  'highlight/bell': {
    name: 'Move the bell line',
    payload: (s) => ({ page: s.key, bellOffset: s.px }),
    touches: (c) => ({ writes: [`page/${c.page}/bell`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => ({
        page: { ...page, highlight: { ...page.highlight, bellOffset: c.bellOffset } },
        inverse: { ...c, bellOffset: page.highlight.bellOffset },
      })),
  },
  'highlight/page-mark': {
    name: 'Change who marks the current item',
    payload: (s) => ({ page: s.key, pageMark: flagShape(s) }),
    touches: (c) => ({ writes: [`page/${c.page}/marking`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => ({
        page: { ...page, highlight: { bellOffset: page.highlight.bellOffset, ...(c.pageMark && { pageMark: c.pageMark }) } },
        inverse: { type: c.type, page: c.page, ...(page.highlight.pageMark && { pageMark: true }) },
      })),
  },
  'highlight/mark': {
    name: 'Change how the current item is marked',
    payload: (s) => ({ page: s.key, menu: s.key, mark: s.optional(markShape(s)) }),
    touches: (c) => ({ writes: [`page/${c.page}/menu/${c.menu}/mark`] }),
    apply: (site, c) =>
      onPage(site, c.page, (page) => {
        const menu = page.menus.find((m) => m.key === c.menu)
        if (!menu || !isFound(menu)) throw new CommandError(`the page has no menu of its own with the key “${c.menu}”`)
        const { mark: before, ...form } = menu.form
        const changed = { ...menu, form: { ...form, ...(c.mark ? { mark: c.mark } : {}) } }
        return {
          page: { ...page, menus: page.menus.map((m) => (m === menu ? changed : m)) },
          inverse: { type: c.type, page: c.page, menu: c.menu, ...(before ? { mark: before } : {}) },
        }
      }),
  },
}
