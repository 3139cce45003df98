/** One row of links across the page's top. */
import { OWN_COVER } from '../../contract/index.ts'
import type { MadeForm } from './form.ts'
import { rule } from './rules.ts'

export interface Form {
  kind: 'bar'
  /** At the page's top, after the header, over the page below a fixed header, or last in the header. */
  place: 'top' | 'after-header' | 'under-fixed' | 'in-header'
}

const HEIGHT = 48

const position: Record<Exclude<Form['place'], 'in-header'>, string> = {
  top: 'position: fixed; top: 0; left: 0; right: 0;',
  'after-header': `position: sticky; top: var(${OWN_COVER});`,
  'under-fixed': `position: fixed; top: var(${OWN_COVER}); left: 0; right: 0;`,
}

export const form: MadeForm<Form> = {
  fields: { place: { options: ['top', 'after-header', 'under-fixed', 'in-header'] } },
  place: ({ place }, { header, scroller }) => {
    if (header !== null && place === 'in-header') return { into: header, last: true }
    if (header !== null && place === 'after-header') return { after: header }
    // Next to an inner scroller there may be no space.
    return place === 'top' && scroller !== null ? { into: scroller } : 'body-start'
  },
  levels: 2,
  small: ['scrolls', 'folds', 'away'],
  opens: true,
  covers: {
    // In the header it's measured with that.
    height: ({ place }) => (place === 'in-header' ? 0 : HEIGHT),
    contentShift: ({ place }) => (place === 'under-fixed' || place === 'in-header' ? 0 : HEIGHT),
    isBelowHeader: ({ place }) => place !== 'top' && place !== 'in-header',
  },
  // In an inner scroller it has its own space; a late one takes none.
  pagePadding: ({ place }, { isInner, isLate }) =>
    place === 'top' && !isInner && !isLate ? { of: 'html:root', side: 'top', by: HEIGHT } : null,
  style: ({ place }, { nav, color, backing, isInner }) => {
    const isFixed = place !== 'top' || !isInner
    const stands = place === 'in-header' ? 'position: static; z-index: 1000;' : isFixed ? position[place] : 'position: sticky; top: 0;'
    const list = `background: ${backing}; color: ${color};`
    return [
      rule(
        nav,
        `display: flex; ${stands} box-sizing: border-box; height: ${HEIGHT}px; padding: 0 8px; overflow-x: auto; overflow-y: hidden; scrollbar-width: none; z-index: 1000; ${list} font-size: 16px; line-height: 1.25; box-shadow: inset 0 -1px currentColor;`,
      ),
      rule(`${nav} :is(.wb-items, li)`, 'display: flex; flex: none;'),
      rule(`${nav} details`, 'display: block;'),
      rule(
        `${nav} :is(a, summary)`,
        `flex: none; display: flex; align-items: center; box-sizing: border-box; height: ${HEIGHT}px; padding: 0 12px; white-space: nowrap; cursor: pointer;`,
      ),
      // Outside a sideways scroller, which would clip it.
      rule(
        `${nav} ul ul`,
        `position: fixed; display: block; box-sizing: border-box; min-width: 180px; max-width: 100vw; max-height: calc(100vh - ${2 * HEIGHT}px); overflow-y: auto; ${list} box-shadow: 0 2px 8px rgba(0, 0, 0, 0.3);`,
      ),
      rule(`${nav} ul ul :is(li, a)`, 'display: flex; width: auto; min-height: 40px; height: auto;'),
      rule(`${nav} .wb-group:not([open]) > ul`, 'display: none;'),
      rule(`${nav} a[aria-current="true"]`, 'box-shadow: inset 0 -4px currentColor;'),
      // Printed once, before the page.
      `@media print {\n  ${nav} { position: static; flex-wrap: wrap; height: auto; }\n}`,
    ]
  },
}
