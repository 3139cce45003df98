/** One row of links across the page's top. */
import { escapeAttribute, escapeText } from 'entities'
import { MADE_MENU, NEW_TAB, OWN_COVER } from '../../contract/index.ts'
import type { Link, MadeForm } from './form.ts'

export interface Form {
  kind: 'bar'
  /** At the top of the page, right behind the page's own header, or over the page below a fixed header. */
  place: 'top' | 'after-header' | 'under-fixed'
}

const HEIGHT = 48

const position: Record<Form['place'], string> = {
  top: 'position: fixed; top: 0; left: 0; right: 0;',
  'after-header': `position: sticky; top: var(${OWN_COVER});`,
  'under-fixed': `position: fixed; top: var(${OWN_COVER}); left: 0; right: 0;`,
}

const rule = (selector: string, declarations: string) => `${selector} {\n  ${declarations.replace(/; /g, ';\n  ')}\n}`

export const form: MadeForm<Form> = {
  shape: (s) => ({ place: s.oneOf('top', 'after-header', 'under-fixed') }),
  place: ({ place }, { header, scroller }) => {
    if (place === 'after-header' && header !== null) return { after: header }
    // Beside what scrolls there may be no room for it.
    return place === 'top' && scroller !== null ? { into: scroller } : 'body-start'
  },
  markup: (links) => {
    const attributes = ({ href, title, lang, isNewTab }: Link) =>
      Object.entries({ href, ...(title && { title }), ...(lang && { lang }), ...(isNewTab && NEW_TAB) })
        .map(([name, value]) => ` ${name}="${escapeAttribute(value)}"`)
        .join('')
    const line = (link: Link) => `<a${attributes(link)}>${escapeText(link.label)}</a>`
    return `\n${links.map(line).join('\n')}\n`
  },
  cover: HEIGHT,
  room: ({ place }) => (place === 'under-fixed' ? 0 : HEIGHT),
  isBelowHeader: ({ place }) => place !== 'top',
  style: ({ place }, { color, backing, isInner }) => {
    const isFixed = place !== 'top' || !isInner
    const bar = `html:root ${MADE_MENU}`
    return [
      // `all: unset` keeps what the page says of its own menus and links away from this one; font and colour are inherited.
      rule(
        bar,
        `all: unset; display: flex; ${isFixed ? position[place] : 'position: sticky; top: 0;'} box-sizing: border-box; height: ${HEIGHT}px; padding: 0 8px; overflow-x: auto; overflow-y: hidden; scrollbar-width: none; z-index: 1000; background: ${backing}; color: ${color}; font-size: 16px; line-height: 1.25; box-shadow: inset 0 -1px currentColor;`,
      ),
      rule(
        `${bar} a`,
        `all: unset; flex: none; display: flex; align-items: center; box-sizing: border-box; height: ${HEIGHT}px; padding: 0 12px; white-space: nowrap; cursor: pointer;`,
      ),
      rule(`${bar} a:hover`, 'text-decoration: underline;'),
      rule(`${bar} a:focus-visible`, 'outline: 2px solid currentColor; outline-offset: -4px;'),
      rule(`${bar} a[aria-current="true"]`, 'box-shadow: inset 0 -4px currentColor;'),
      ...(place === 'top' && isFixed ? [rule('html:root', `padding-top: ${HEIGHT}px;`)] : []),
      // On paper it stands once, before the page, and takes nothing away.
      `@media print {\n  ${bar} { position: static; flex-wrap: wrap; height: auto; }\n${place === 'top' && isFixed ? '  html:root { padding-top: 0; }\n' : ''}}`,
    ]
  },
}
