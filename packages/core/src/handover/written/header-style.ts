/** Style of the header: its height, whether it stays, and what it does on scroll. */
import { coverOf, isKept, MOST_OF_SCREEN, shiftOf, smallerBy } from '../../arrival/index.ts'
import { AHEAD, AT, COVER, GIVES, GLIDES, GROWS, HEADER, MADE_BAR, MOVES, OWN_COVER, SHIFTS, SMALLER, TALL } from '../../contract/index.ts'
import { formOf, partUnder } from '../../menus/index.ts'
import { breathingOn, firstSection, madeBar, type SitePage } from '../../site/index.ts'
import type { ElementAt, PageReading } from '../../page/index.ts'
import type { Survey } from '../../survey/index.ts'
import { growthOn, mayChange } from '../growth.ts'
import type { HandoverInput } from '../input.ts'
import { from, saidAnew, type Range } from '../ranges.ts'
import { byScreen, comment, forScreens, group, media, px, rule } from './css.ts'
import { givingElements } from './header.ts'
import { scrolls, selectorOf } from './selectors.ts'

/** Elements that get keyboard focus. */
const FOCUSABLE = ':is(a[href], button, input, select, textarea, summary, [tabindex])'

/** The covered height on arrival, for each screen. */
export function coverRules({ page, surveys }: HandoverInput, ranges: readonly Range[]): string[] {
  const made = madeBar(page)
  const belowHeader = made && formOf(made.form).covers!.isBelowHeader(made.form)
  const variables = (own: number, bar: number) => [`${COVER}: ${px(own + bar)};`, ...(belowHeader ? [`${OWN_COVER}: ${px(own)};`] : [])]
  const ahead = Object.values(surveys).some((s) => shiftOf(page, s)) ? `var(${AHEAD}, 0px) + ` : ''
  const figures = ranges.map(({ screen }): [own: number, bar: number, tallest: number | null, isMeasured: boolean] => {
    const survey = surveys[screen.key] ?? null
    // At rest, because no header shrinks without script; the script measures it.
    const { ownRest, bar } = coverOf(page, survey, screen)
    return [ownRest, bar, tallest(page, survey), survey !== null]
  })
  const breathes = ranges.map(({ screen }) => breathingOn(page, screen.key))
  const paddingOf = (by: number) =>
    `scroll-padding-top: calc(var(${COVER}) + ${ahead}${px(by)}) !important; ${comment(`${px(by)} between header and section`)}`
  const otherwise = saidAnew(ranges, breathes)
    .slice(1)
    .map(({ range, figure }) => media(from(range), [rule(page.scroller === undefined ? 'html:root' : scrolls(page), [paddingOf(figure)])]))
  const rules = saidAnew(ranges, figures).flatMap(({ range, figure: [own, bar, , isMeasured], screens }, i) => {
    const sizes = screens.map(({ width, height }) => `${width}x${height}`)
    const note = comment(`${isMeasured ? 'as measured at' : 'not measured, assumed at'} ${sizes.join(', ')}`)
    const set = variables(own, bar).map((line, n) => (n ? line : `${line} ${note}`))
    const padding = paddingOf(breathes[0]!)
    if (i === 0 && page.scroller === undefined) return [rule('html:root', [...set, padding])]
    if (i === 0) return [rule('html:root', set), rule(scrolls(page), [padding])]
    return [media(from(range), [rule('html:root', set)])]
  })
  const low = forScreens(
    ranges,
    figures.map(([, bar, most]) => (most ? rule('html:root', variables(0, bar)) : null)),
    { is: 'upTo', px: figures.map(([, , most]) => most ?? 0) },
  )
  const hasHeader = made || page.header || Object.values(surveys).some((s) => s.header)
  // Chromium and WebKit treat focused elements within that offset as out of view, even in a stuck header, and would scroll.
  const still = byScreen(ranges, breathes, (by) =>
    rule(`${made ? `:is([${HEADER}], ${MADE_BAR})` : `[${HEADER}]`} ${FOCUSABLE}`, [
      `scroll-margin-top: calc(${px(-by)} - ${ahead ? `var(${AHEAD}, 0px) - ` : ''}var(${COVER})) !important;`,
    ]),
  )
  return [
    ...group(
      `${COVER} is the height covered at the top when a link has arrived (${made ? 'fixed header and made menu' : 'fixed header'}). The script updates it.`,
      [...rules, ...low, ...otherwise],
    ),
    ...group('Focusing something in the header doesn’t move the page.', hasHeader ? still : []),
  ]
}

/** Figures for the script, for a header with more than one size. */
export function growthRules(input: HandoverInput, ranges: readonly Range[]): string[] {
  if (!mayChange(input)) return []
  const said = ranges.map(({ screen }) => {
    const growth = growthOn(input, screen)
    return growth ? [`${GROWS}: ${px(growth.by)};`, `${SHIFTS}: ${px(growth.shifts)};`] : [`${GROWS}: unknown;`, `${SHIFTS}: 0px;`]
  })
  return group(
    `How much the header grows after scrolling, and how far that moves the sections. The script measures what is unknown.`,
    byScreen(ranges, said, (declarations) => rule('html:root', declarations)),
  )
}

/** Figures for the script, for a header that shrinks by itself but keeps its space. */
export function steadyRules({ page, surveys }: HandoverInput, ranges: readonly Range[]): string[] {
  if (!page.header?.steady) return []
  const said = ranges.map(({ screen }) => {
    const header = surveys[screen.key]?.header
    return header?.makesUp ? [`${TALL}: ${px(header.height)};`, `${SMALLER}: ${px(header.makesUp)};`] : [`${SMALLER}: none;`]
  })
  return group(
    'The header keeps its place while it shrinks: the script adds the missing height as margin below.',
    byScreen(ranges, said, (declarations) => rule('html:root', declarations)),
  )
}

/** The viewport height in px up to which a kept header isn't kept; 0 if it stays by itself, null if none is kept. */
function tallest(page: SitePage, survey: Survey | null): number | null {
  if (!page.header?.keep || !isKept(page, survey)) return null
  if (/sticky|fixed/.test(survey?.header?.position ?? '')) return 0
  const { ownRest } = coverOf(page, survey)
  return Math.max(0, Math.ceil(ownRest / MOST_OF_SCREEN) - 1)
}

/** Keeps the header in view on screens with enough space to read. */
export function keepRules(page: SitePage, ranges: readonly Range[], surveys: HandoverInput['surveys']): string[] {
  const { header } = page
  if (!header) return []
  const { keep, backing, off } = header
  if (!keep) return backing ? [rule(`[${HEADER}]`, [`background-color: ${backing} !important;`])] : []
  const stays = rule(`[${HEADER}="${keep}"]`, [
    `position: ${keep} !important;`,
    'top: 0 !important;',
    'z-index: 1000;',
    ...(backing ? [`background-color: ${backing};`] : []),
  ])
  const limits = ranges.map(({ screen }) => (off?.includes(screen.key) ? null : tallest(page, surveys[screen.key] ?? null)))
  return forScreens(
    ranges,
    limits.map((limit) => (limit === null ? null : stays)),
    { is: 'over', px: limits.map((limit) => limit ?? 0) },
  )
}

/** Lets the header scroll away on some screens. */
export function letGoRules({ header }: SitePage, ranges: readonly Range[], surveys: HandoverInput['surveys']): string[] {
  if (!header?.off) return []
  const figures = ranges.map(({ screen }) => {
    if (!header.off!.includes(screen.key)) return null
    const isFixed = surveys[screen.key]?.header?.position === 'fixed'
    return rule(`[${HEADER}]`, isFixed ? ['position: absolute !important;'] : ['position: relative !important;', 'inset: auto !important;'])
  })
  return forScreens(ranges, figures)
}

export function movesRules(page: SitePage, ranges: readonly Range[], surveys: HandoverInput['surveys']): string[] {
  const { onScroll } = page.header ?? {}
  if (!onScroll) return []
  const at = (state: string) => `[${MOVES}][${AT}~="${state}"]`
  const rules = [
    ...(onScroll.clear
      ? [
          rule(at('top'), [
            'background: transparent !important;',
            'box-shadow: none !important;',
            'backdrop-filter: none !important;',
            'border-color: transparent !important;',
          ]),
        ]
      : []),
    ...(onScroll.shadow ? [rule(at('moved'), ['box-shadow: 0 2px 14px rgb(0 0 0 / 0.28) !important;'])] : []),
    // A header with the focus in it stays.
    ...(onScroll.away ? [rule(`${at('away')}:not(:focus-within)`, ['translate: 0 -120% !important;'])] : []),
  ]
  const giving = givingElements(page, surveys)
  const smaller = ranges.map(({ screen }) => smallerRules(page, surveys[screen.key], giving))
  const shrinks = smaller.some((s) => s !== null)
  // The page's own transitions continue to work.
  const own = ranges.map(({ screen }) => surveys[screen.key]?.header?.transition ?? '')
  const still = '(prefers-reduced-motion: no-preference)'
  const glide = [
    ...saidAnew(ranges, own).map(({ range, figure }) =>
      media(from(range, still), [
        rule(`[${MOVES}]`, [
          `transition: ${[...(figure ? [figure] : []), GLIDES, ...(shrinks ? ['padding 0.2s linear', 'margin 0.2s linear'] : [])].join(', ')};`,
        ]),
      ]),
    ),
    ...(shrinks ? [media(still, [rule(`[${GIVES}]`, ['transition: padding 0.2s linear;'])])] : []),
  ]
  const figures = ranges.map(({ screen }) => (rules.length && !onScroll.off?.includes(screen.key) ? rules.join('\n') : null))
  return [...(onScroll.away || onScroll.clear || shrinks ? glide : []), ...forScreens(ranges, figures), ...forScreens(ranges, smaller)]
}

/** Moves the section up to the page's top and adds that much padding, so its content stays in place. */
export function underRules(page: SitePage, reading: PageReading, ranges: readonly Range[], surveys: HandoverInput['surveys']): string[] {
  const { header } = page
  const first = firstSection(page)
  if (!header?.under || !first) return []
  const figures = ranges.map(({ screen }): string | null => {
    const survey = surveys[screen.key]
    // Screens added later are assumed to be like the others.
    const own = header.under!.find((u) => u.screen === screen.key) ?? header.under![0]
    const part = survey && partUnder(page, survey)
    if (!own || !part || survey?.header?.at !== header.at) return null
    const { lead } = part
    const least = (view: string) => `min-height: ${own.frame ? `calc(100${view} - ${px(own.frame + lead)})` : `100${view}`} !important;`
    const pulled = lead ? [`margin-top: ${px(-lead)} !important;`, `padding-top: ${px(own.head + lead)} !important;`] : []
    return [
      rule(`[${HEADER}]`, [...(survey.header.position === 'static' ? ['position: relative;'] : []), 'z-index: 1000;']),
      rule(`:root ${selectorOf(first, reading)}`, [...pulled, least('vh'), least('svh')]),
    ].join('\n\n')
  })
  return forScreens(ranges, figures)
}

/** The header's margin takes what its padding loses, so nothing moves; null if it loses nothing. */
function smallerRules(page: SitePage, survey: Survey | undefined, giving: readonly ElementAt[]): string | null {
  const by = survey ? smallerBy(page, survey) : 0
  if (!by) return null
  const { at, top, bottom, margin } = survey!.header!.gives!
  const header = `[${MOVES}][${AT}~="moved"]`
  // In whole px, so both are exactly equal.
  const below = Math.round((by * bottom) / (top + bottom))
  const padding = [`padding-top: ${px(top - by + below)} !important;`, `padding-bottom: ${px(bottom - below)} !important;`]
  const made = margin ? [`margin-${margin.side}: ${px(margin.own + by)} !important;`] : []
  const number = giving.indexOf(at) + 1
  if (!number) return rule(header, [...padding, ...made])
  return [rule(`${header} [${GIVES}="${number}"]`, padding), ...(made.length ? [rule(header, made)] : [])].join('\n\n')
}
