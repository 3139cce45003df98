/** Style of made menus. */
import { AWAY, COVER, MADE, OFF, PIECE } from '../../contract/index.ts'
import { formOf, isLate, isOn, lookRules, nestedItems, smallOf, withOpacity, type Look, type Nested } from '../../menus/index.ts'
import { isMade, type MadeMenu, type SitePage } from '../../site/index.ts'
import type { Range } from '../ranges.ts'
import { forScreens, group, media, rule } from './css.ts'

export function madeRules(page: SitePage, ranges: readonly Range[], look: Omit<Look, 'nav' | 'isLate'>): string[] {
  const made = page.menus.filter(isMade)
  return [
    ...made.flatMap((menu, i) => {
      const nav =
        menu.form.kind === 'steps'
          ? `html:root p[${PIECE}="step"][${MADE}^="${i + 1}."]`
          : `html:root nav[${PIECE}="menu"][${MADE}^="${i + 1} "]`
      const { ink, ground, opacity } = menu.look ?? {}
      const color = ink === undefined ? look.color : withOpacity(ink)
      const backing = ground === undefined ? look.backing : withOpacity(ground, opacity)
      return group(
        `The menu “${menu.name}”, made for this page.`,
        rulesOf(menu, ranges, { ...look, color, backing, nav, isLate: isLate(menu) }),
      )
    }),
    ...group('Not on every screen.', offRules(made, ranges)),
  ]
}

function rulesOf(menu: MadeMenu, ranges: readonly Range[], look: Look): string[] {
  const { nav } = look
  const form = formOf(menu.form)
  const { upTo, as } = smallOf(menu)
  const isSmall = `(max-width: ${upTo}px)`
  const room = form.pagePadding?.(menu.form, look) ?? null
  const padding = (by: number) => (room ? [rule(room.of, [`padding-${room.side}: ${by}px;`])] : [])
  return [
    // Resets the page's menu and link styles; font and colour are inherited.
    rule(`${nav},\n${nav} *,\n${nav} *::before,\n${nav} *::after`, ['all: unset;']),
    ...form.style(menu.form, look),
    ...padding(room?.by ?? 0),
    rule(`${nav} :is(a, summary):hover`, ['text-decoration: underline;']),
    rule(`${nav} :is(a, summary):focus-visible`, ['outline: 2px solid currentColor;', 'outline-offset: -4px;']),
    ...(menu.shown?.holds
      ? [rule(`${nav} a[aria-disabled="true"]`, ['opacity: 0.5;', 'cursor: not-allowed;', 'text-decoration: none;'])]
      : []),
    ...(form.opens ? [openerRule(nav)] : []),
    ...lookRules(nav, menu.look ?? {}, menu.form).map(([selector, declarations]) => rule(selector, declarations)),
    ...(form.isFolded ? foldRules(menu, look) : []),
    ...(as === 'folds'
      ? [standsOpen(nav, upTo), media(isSmall, [...foldRules(menu, look), ...(room?.side === 'top' ? [] : padding(0))])]
      : []),
    ...(as === 'scrolls' && form.sideways ? [media(isSmall, [...form.sideways(menu.form, look), ...padding(0)])] : []),
    ...(isLate(menu) || menu.shown?.until !== undefined ? [rule(`${nav}[${AWAY}]`, ['visibility: hidden;'])] : []),
    ...forScreens(
      ranges,
      ranges.map(({ screen }) => (isOn(menu, screen) ? null : [rule(nav, ['display: none;']), ...padding(0)].join('\n'))),
    ),
    media('print', [...(form.isScreenOnly ? [rule(nav, ['display: none;'])] : []), ...padding(0)]),
  ]
}

const openerRule = (nav: string) =>
  rule(`${nav} .wb-group > summary::after`, [
    'content: "";',
    'margin: 4px 0 0 6px;',
    'border: 4px solid transparent;',
    'border-top-color: currentColor;',
  ])

/** Without folding it's open, without its button: by CSS, or by the script in browsers without that CSS. */
const standsOpen = (nav: string, upTo: number): string =>
  media(`(min-width: ${upTo + 0.02}px)`, [
    rule(`${nav} .wb-fold[open] > summary`, ['display: none;']),
    `@supports selector(::details-content) {\n  ${nav} .wb-fold::details-content { content-visibility: visible; }\n  ${nav} .wb-fold > summary { display: none; }\n}`,
  ])

/** A button and its list. */
function foldRules({ form }: MadeMenu, { nav, color, backing }: Look): string[] {
  const [fold, button, list] = [`${nav} .wb-fold`, `${nav} .wb-fold > summary`, `${nav} .wb-fold > .wb-items`]
  const panel = [`background: ${backing};`, `color: ${color};`, 'overflow-y: auto;', 'white-space: normal;']
  const paint = [`background: ${backing};`, `color: ${color};`, 'border: 1px solid currentColor;']
  if (form.kind === 'contents')
    return [rule(button, ['display: block;', 'min-height: 24px;', 'padding: 4px 12px;', 'font-weight: bold;', 'cursor: pointer;'])]
  if (form.kind === 'bar')
    return [
      rule(fold, ['display: block;']),
      rule(button, ['font-weight: bold;']),
      rule(list, [
        'position: fixed;',
        'left: 0;',
        'right: 0;',
        'display: block;',
        `max-height: calc(100vh - var(${COVER}, 0px));`,
        ...panel,
        'box-shadow: 0 2px 8px rgba(0, 0, 0, 0.3);',
      ]),
      rule(`${list} :is(li, a, ul, summary)`, [
        'display: block;',
        'position: static;',
        'height: auto;',
        'max-height: none;',
        'box-shadow: none;',
      ]),
      rule(`${list} :is(a, summary)`, ['padding: 12px 20px;', 'white-space: normal;']),
      rule(`${list} ul`, ['padding-left: 16px;']),
      // Beside its link, at the line's end.
      rule(`${list} li`, ['position: relative;']),
      rule(`${list} .wb-more`, [
        'position: absolute;',
        'top: 0;',
        'right: 0;',
        'min-width: 44px;',
        'min-height: 44px;',
        'box-sizing: border-box;',
      ]),
    ]
  const side = 'side' in form ? form.side : 'right'
  const edge = 'edge' in form ? form.edge : 16
  return [
    rule(nav, [
      'display: block;',
      'position: fixed;',
      'z-index: 900;',
      'top: auto;',
      `bottom: ${edge}px;`,
      'left: auto;',
      'right: auto;',
      `${side}: ${edge}px;`,
      'width: auto;',
      'max-height: none;',
      'padding: 0;',
      'overflow: visible;',
      'border: 0;',
      'background: none;',
      'font-size: 16px;',
      'line-height: 1.25;',
    ]),
    rule(fold, ['display: block;']),
    rule(button, [
      'display: flex;',
      'align-items: center;',
      'box-sizing: border-box;',
      'min-height: 44px;',
      'width: fit-content;',
      `margin-${side === 'right' ? 'left' : 'right'}: auto;`,
      'padding: 0 16px;',
      'border-radius: 22px;',
      'cursor: pointer;',
      ...paint,
    ]),
    rule(list, [
      'position: absolute;',
      `${side}: 0;`,
      'bottom: calc(100% + 8px);',
      'display: block;',
      'box-sizing: border-box;',
      'width: max-content;',
      `max-width: calc(100vw - ${2 * edge}px);`,
      `max-height: calc(100vh - var(${COVER}, 0px) - ${2 * edge + 60}px);`,
      'padding: 8px 0;',
      'border-radius: 6px;',
      ...paint,
      'overflow-y: auto;',
    ]),
  ]
}

/** Hides items on screens they aren't on. */
function offRules(made: readonly MadeMenu[], ranges: readonly Range[]): string[] {
  const offOf = ({ item, children }: Nested): string[] => [...(item.off ?? []), ...children.flatMap(offOf)]
  const keys = new Set(made.flatMap((m) => nestedItems(m).flatMap(offOf)))
  return forScreens(
    ranges,
    ranges.map(({ screen: { key } }) => (keys.has(key) ? rule(`html:root [${OFF}~="${key}"]`, ['display: none !important;']) : null)),
  )
}
