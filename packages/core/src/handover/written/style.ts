/** The style that a handover writes: offsets, motion, the made menu's bar, and how the current item is marked. */
import escapeIdentifier from 'css.escape'
import { coverOf, isKept, isOwnTravel, MOST_OF_SCREEN, shiftOf, smallerBy } from '../../arrival/index.ts'
import { backingFor } from '../../colour/index.ts'
import {
  AHEAD,
  ANCHOR,
  AT,
  COVER,
  GIVES,
  GROWS,
  HEADER,
  MADE_BAR,
  MARK_STYLES,
  markRule,
  markText,
  MENU,
  MOTION,
  MOVES,
  OWN_COVER,
  PIECE,
  SCROLLER,
  SHIFTS,
  WAS,
  WITHIN,
} from '../../contract/index.ts'
import { builtMenusOf, formOf, foundLookRules, partUnder } from '../../menus/index.ts'
import {
  adjustOn,
  breathingOn,
  fillsOn,
  firstSection,
  isFound,
  madeBar,
  type Screen,
  type Section,
  type SitePage,
} from '../../site/index.ts'
import { inScreenOrder, type Survey } from '../../survey/index.ts'
import type { Motion } from '../../contract/index.ts'
import type { ElementAt, PageReading } from '../../page/index.ts'
import type { Anchor } from '../anchors.ts'
import type { PlannedEdit } from '../edit.ts'
import { growthOn, mayChange } from '../growth.ts'
import type { HandoverInput } from '../input.ts'
import { from, joined, only, rangesOf, saidAnew, type Range } from '../ranges.ts'
import { needsScript, type WritingInput } from '../writing.ts'
import { comment, group, media, rule } from './css.ts'
import { markOf } from './found-menu.ts'
import { givingElements } from './header.ts'
import { madeRules } from './made-style.ts'

const px = (n: number) => `${Math.round(n * 100) / 100}px`

/** A section's element: by its ID, or by the name that it has instead, as pages had them before any element could be a target. */
function selectorOf(section: Section, reading: PageReading): string {
  const hasId = section.own !== section.id || reading.ids.some((i) => i.at === section.at)
  return hasId ? idSelector(section.id) : `a[name="${section.id.replace(/["\\]/g, '\\$&')}"]`
}

/** An ID as a CSS selector. @see CSSOM, "serialize an identifier" */
export const idSelector = (id: string): string => `#${escapeIdentifier(id)}`

export function planStyle(input: WritingInput): PlannedEdit[] {
  const text = pageStyle(input, input.anchors)
  if (!text.trim()) return []
  return [
    {
      edit: { kind: 'piece', role: 'style', place: 'head', text },
      why: 'Offsets, motion, and how the current item is marked.',
      for: {},
      // What else of it moves anything is told with the header and the menu that is made.
      layout: input.page.room ? `room ${JSON.stringify(input.page.room)}` : null,
    },
  ]
}

export function pageStyle(input: HandoverInput, anchors: readonly Anchor[]): string {
  const { page, reading, screens, surveys } = input
  const ranges = rangesOf(screens)
  const toTop = page.sections.filter((s) => s.toTop && !s.point).map((s) => `:root ${selectorOf(s, reading)}`)
  // Those that have one of the page's own.
  const ofPage = new Set(Object.values(surveys).flatMap((s) => s.parts.flatMap((p) => (p.margin !== 0 ? p.at : []))))
  const reset = page.sections
    .filter((s) => !s.toTop && !s.point && !s.adjust && ofPage.has(s.at))
    .map((s) => `:root ${selectorOf(s, reading)}`)
  const isOwn = isOwnTravel(page)
  const seen = inScreenOrder(Object.values(surveys))[0]
  const color = seen?.color ?? 'rgb(0, 0, 0)'
  const groups = [
    ...(isOwn ? [] : coverRules(input, ranges)),
    ...(needsScript({ page, anchors }) ? growthRules(input, ranges) : []),
    ...motionRules(page, surveys),
    ...group(
      'The link to the first section goes to the very top of the page.',
      toTop.length ? [rule(toTop.join(',\n'), ['scroll-margin-top: 100vh;'])] : [],
    ),
    ...(isOwn
      ? []
      : [
          ...group(
            'Offsets that the page had for single sections: the one above is for all.',
            reset.length ? [rule(reset.join(',\n'), ['scroll-margin-top: 0;'])] : [],
          ),
          ...group(
            'Targets that the page moves up, away from what they are about: links arrive where that begins.',
            marginRules(input, ranges, true),
          ),
          ...group('Room above single sections, besides the breathing space that all have.', marginRules(input, ranges, false)),
        ]),
    ...group(
      'Room at the page’s end, for its last sections to reach their places: so much more than the section has by itself.',
      roomRules(input, ranges),
    ),
    ...hostRules(page, anchors, ranges, isOwn),
    ...placedRules(page, anchors, ranges, isOwn),
    ...group(
      `The page’s header stays in view, where it takes no more than a sixth of the screen’s height.`,
      keepRules(page, ranges, surveys),
    ),
    ...group('Screens on which the page’s header scrolls away with the page.', letGoRules(page, ranges, surveys)),
    ...group('The first section begins under the page’s header, and fills the screen.', underRules(page, reading, ranges, surveys)),
    ...group(
      'What the page’s header does once the page has been scrolled; without script it has its ground, and stays.',
      movesRules(page, ranges, surveys),
    ),
    ...group('The skip link is seen once it has the focus.', page.travel.skip === undefined || !page.sections.length ? [] : SKIP_RULES),
    ...group('A link that was a button looks as buttons do, where the page says nothing else of it.', buttonRules(page, reading)),
    ...(page.highlight.own ? [] : markRules(page, surveys)),
    ...group(
      'The look that states of items of the page’s own menus were given.',
      page.menus
        .filter((m) => isFound(m) && m.look)
        .flatMap((menu, i) => foundLookRules(i + 1, menu).map(([selector, declarations]) => rule(selector, declarations))),
    ),
    ...madeRules(page, ranges, {
      color,
      backing: backingFor(color, seen?.background ?? 'rgb(255, 255, 255)'),
      isInner: page.scroller !== undefined,
    }),
  ]
  return groups.length
    ? `\n${[comment('Way Bell: what it takes to travel by links on this page. Figures were measured in a browser.'), ...groups].join('\n\n')}\n`
    : ''
}

/** What the visitor's keys reach. */
const FOCUSABLE = ':is(a[href], button, input, select, textarea, summary, [tabindex])'

/** What covers on arrival, on each screen. */
function coverRules({ page, surveys }: HandoverInput, ranges: readonly Range[]): string[] {
  const made = madeBar(page)
  const belowHeader = made && formOf(made.form).covers!.isBelowHeader(made.form)
  const variables = (own: number, bar: number) => [`${COVER}: ${px(own + bar)};`, ...(belowHeader ? [`${OWN_COVER}: ${px(own)};`] : [])]
  const ahead = Object.values(surveys).some((s) => shiftOf(page, s)) ? `var(${AHEAD}, 0px) + ` : ''
  const figures = ranges.map(({ screen }): [own: number, bar: number, tallest: number | null, isMeasured: boolean] => {
    const survey = surveys[screen.key] ?? null
    // At rest: without script no header shrinks. The script takes what it measures.
    const { ownRest, bar } = coverOf(page, survey, screen)
    return [ownRest, bar, tallest(page, survey), survey !== null]
  })
  const breathes = ranges.map(({ screen }) => breathingOn(page, screen.key))
  const paddingOf = (by: number) =>
    `scroll-padding-top: calc(var(${COVER}) + ${ahead}${px(by)}); ${comment(`${px(by)} of breathing space`)}`
  const otherwise = saidAnew(ranges, breathes)
    .slice(1)
    .map(({ range, figure }) => media(from(range), [rule(page.scroller === undefined ? 'html:root' : scrolls(page), [paddingOf(figure)])]))
  const said = saidAnew(ranges, figures)
  const rules = said.flatMap(({ range, figure: [own, bar, most, isMeasured] }, i) => {
    const next = said[i + 1]
    const sizes = ranges
      .slice(ranges.indexOf(range), next && ranges.indexOf(next.range))
      .map(({ screen }) => `${screen.width}x${screen.height}`)
    const note = comment(`${isMeasured ? 'as measured at' : 'not measured, taken to be so at'} ${sizes.join(', ')}`)
    const set = variables(own, bar).map((line, n) => (n ? line : `${line} ${note}`))
    const padding = paddingOf(breathes[0]!)
    const low = !most ? [] : [media(from(range, `(max-height: ${px(most)})`), [rule('html:root', variables(0, bar))])]
    if (i === 0 && page.scroller === undefined) return [rule('html:root', [...set, padding]), ...low]
    if (i === 0) return [rule('html:root', set), rule(scrolls(page), [padding]), ...low]
    return [media(from(range), [rule('html:root', set)]), ...low]
  })
  // Chromium and WebKit take what stands within that room for out of sight, also in a header that is stuck there, and would move the page.
  const still = byScreen(ranges, breathes, (by) =>
    rule(`:is([${HEADER}], ${MADE_BAR}) ${FOCUSABLE}`, [
      `scroll-margin-top: calc(${px(-by)} - ${ahead ? `var(${AHEAD}, 0px) - ` : ''}var(${COVER})) !important;`,
    ]),
  )
  return [
    ...group(
      `${COVER} is what covers the viewport’s top when a link has arrived: ${made ? 'the header of the page, if it stays, and the menu that was made' : 'the header of the page, if it stays'}. The script keeps it true.`,
      [...rules, ...otherwise],
    ),
    ...group('What stands in the header is seen where it is: when it gets the focus, the page is not to move for it.', still),
  ]
}

/** What the script goes by, where the header has more than one size. */
function growthRules(input: HandoverInput, ranges: readonly Range[]): string[] {
  if (!mayChange(input)) return []
  const said = ranges.map(({ screen }) => {
    const growth = growthOn(input, screen)
    return growth ? [`${GROWS}: ${px(growth.by)};`, `${SHIFTS}: ${px(growth.shifts)};`] : [`${GROWS}: unknown;`, `${SHIFTS}: 0px;`]
  })
  return group(
    `What the page’s header grows by once the page has moved, and how far that moves the sections; the script goes by it, and looks for itself where it is unknown.`,
    byScreen(ranges, said, (declarations) => rule('html:root', declarations)),
  )
}

/** What scrolls, as a selector: on other screens than those measured it may be the document too. */
const scrolls = ({ scroller }: SitePage) => (scroller === undefined ? 'html:root' : `html:root,\n:root [${SCROLLER}]`)

/** Up to which height of the viewport a header that is made to stay does not, in px: 0 where it stays by itself, null where none is made to. */
function tallest(page: SitePage, survey: Survey | null): number | null {
  if (!page.header?.keep || !isKept(page, survey)) return null
  if (/sticky|fixed/.test(survey?.header?.position ?? '')) return 0
  const { ownRest } = coverOf(page, survey)
  return Math.max(0, Math.ceil(ownRest / MOST_OF_SCREEN) - 1)
}

function motionRules(page: SitePage, surveys: HandoverInput['surveys']): string[] {
  const single = linkMotionRules(page)
  if (isOwnTravel(page) && !single.length && Object.values(surveys).every((s) => s.smooth === page.travel.smooth)) return []
  const still = rule(scrolls(page), ['scroll-behavior: auto;'])
  if (!page.travel.smooth) return [...group('Links jump.', [still]), ...single]
  const glide = media('(prefers-reduced-motion: no-preference)', [rule(scrolls(page), ['scroll-behavior: smooth;'])])
  return [...group('Links glide, but for who asked for less motion.', [still, glide]), ...single]
}

/** Links that travel in another way than all do. Without script it is the one under the pointer that is followed, or the one
 * with the focus; Chromium takes that away before it scrolls. A motion that takes a time of its own is the script's. */
function linkMotionRules(page: SitePage): string[] {
  const items = page.menus.flatMap((m) => m.items)
  const of = (holders: readonly { motion?: Motion }[], link: (motion: string) => string): string[] => {
    const kinds = new Set(holders.flatMap(({ motion }) => (motion ? [motion === 'jump'] : [])))
    return [...kinds].flatMap((jumps) => {
      // What holds a menu is said before the links in it, which say it for themselves.
      const those = jumps ? [`[${MOTION}="jump"]`] : [`[${MOTION}="smooth"]`, `[${MOTION}^="timed"]`]
      const followed = `html:root:has(${those.map(link).join(', ')})`
      const to = rule(page.scroller === undefined ? followed : `${followed},\n${followed} [${SCROLLER}]`, [
        `scroll-behavior: ${jumps ? 'auto' : 'smooth'};`,
      ])
      return jumps ? [to] : [media('(prefers-reduced-motion: no-preference)', [to])]
    })
  }
  return group('Links that travel in a way of their own: one that is followed is under the pointer, or has the focus.', [
    ...of(page.menus, (motion) => `${motion} a:is(:hover, :focus)`),
    ...of([...items, ...(page.motions ?? [])], (motion) => `a${motion}:is(:hover, :focus)`),
  ])
}

/**
 * The margins of single sections, on each screen.
 * @param isShifted of targets that the page moved up, away from what they are about: they are reached where that begins. Else of those that have
 * more room above them than others, or less.
 */
function marginRules({ page, reading, surveys }: HandoverInput, ranges: readonly Range[], isShifted: boolean): string[] {
  const shifts = ranges.map(({ screen }) => new Map(surveys[screen.key]?.parts.map((p) => [p.at, p.shift])))
  const some = page.sections.filter(
    (s) => !s.toTop && !s.point && shifts.some((of) => of.get(s.at)) === isShifted && (isShifted || s.adjust),
  )
  return some.flatMap((section) =>
    byScreen(
      ranges,
      ranges.map(({ screen }, i) => roomText(page, section, screen, -(shifts[i]!.get(section.at) ?? 0))),
      (room) => rule(`:root ${selectorOf(section, reading)}`, [`scroll-margin-top: ${room};`]),
    ),
  )
}

/** Above one section besides what all have; of one that fills the window less by that. @param more of its own, in px */
function roomText(page: SitePage, section: Section, { key }: Screen, more = 0): string {
  if (!fillsOn(section, key)) return px(adjustOn(section, key) + more)
  return `calc(${px(more - breathingOn(page, key))} - var(${COVER}))`
}

function roomRules({ page: { room, sections }, reading }: HandoverInput, ranges: readonly Range[]): string[] {
  const section = sections.find((s) => s.key === room?.section)
  if (!room || !section) return []
  const figures = ranges.map(({ screen }) => {
    const on = room.on.find((o) => o.screen === screen.key)
    return on ? `calc(${px(on.own)} + max(0px, 100vh - ${px(on.fits)}))` : null
  })
  const name = room.as === 'padding' ? 'padding-bottom' : 'min-height'
  const selector = `:root ${selectorOf(section, reading)}`
  // Of a screen that came later nothing is known.
  return joined(ranges, figures).flatMap(({ range, figure }) =>
    figure === null ? [] : [media(only(range), [rule(selector, [`${name}: ${figure} !important;`])])],
  )
}

/** A rule for each range in which a figure is the same. */
const byScreen = <T>(ranges: readonly Range[], figures: readonly T[], write: (figure: T) => string): string[] =>
  saidAnew(ranges, figures).map(({ range, figure }) => media(from(range), [write(figure)]))

/** IDs that elements of the page have for a point or a former ID: how far below their top it is meant. */
function hostRules(page: SitePage, anchors: readonly Anchor[], ranges: readonly Range[], isOwn: boolean): string[] {
  return anchors.flatMap(({ id, host, below, section, isFormer }) => {
    if (host === null) return []
    const selector = `:root ${idSelector(id)}`
    const why = isFormer
      ? `“${id}” was the ID of “${section.id}” before. Its heading has it now, and links to it arrive where the section begins.`
      : `The point “${id}”.`
    if (section.toTop) return group(why, [rule(selector, ['scroll-margin-top: 100vh;'])])
    const figures = ranges.map(({ screen }) => {
      const more = -Math.round((below[screen.key] ?? 0) * 100) / 100
      return isOwn ? px(more) : roomText(page, section, screen, more)
    })
    return group(
      why,
      byScreen(ranges, figures, (room) => rule(selector, [`scroll-margin-top: ${room};`])),
    )
  })
}

/** Looks of the current item in menus that the page has; one that the page marks by a class has that class's. */
function markRules(page: SitePage, surveys: HandoverInput['surveys']): string[] {
  const found = page.menus.filter(isFound).map(markOf)
  const marks = new Map([...found, ...builtMenusOf(page, Object.values(surveys)).map((m) => m.mark)].map((m) => [markText(m), m])).values()
  const looks = [...marks].flatMap((mark) => {
    const menu = `[${MENU}="${markText(mark)}"]`
    const style = typeof mark === 'string' && MARK_STYLES[mark] ? mark : null
    // What opens a list has no look of the page's own for it.
    return [...(style ? [markRule(style, menu, 'a[aria-current="true"]')] : []), markRule(style ?? 'line', menu, `[${WITHIN}]`)]
  })
  return [
    ...group('The current item of a menu, and what opens the list that it is in.', looks),
    ...group('Where the system’s own few colours are forced, shades and shadows are not seen.', [
      media('(forced-colors: active)', [
        rule(`[${MENU}] a[aria-current="true"],\n[${MENU}] [${WITHIN}]`, [
          'outline: 2px solid !important;',
          'outline-offset: -2px !important;',
        ]),
      ]),
    ]),
  ]
}

const SKIP = `a[${PIECE}="skip"]`
const SKIP_RULES = [
  rule(SKIP, [
    'position: fixed !important;',
    'inset: 8px auto auto 8px !important;',
    'z-index: 2147483647 !important;',
    'padding: 8px 16px !important;',
    'background: #fff !important;',
    'color: #000 !important;',
    'outline: 2px solid #000 !important;',
    'font: 16px/1.25 system-ui, sans-serif !important;',
  ]),
  rule(`${SKIP}:not(:focus)`, ['clip-path: inset(50%) !important;']),
  media('print', [rule(SKIP, ['display: none !important;'])]),
]

/** What a browser says of buttons and not of links; everything that the page says wins over it. */
function buttonRules({ links = [] }: SitePage, { written }: PageReading): string[] {
  if (!written.buttons && !links.some((l) => l.made?.of === 'button')) return []
  return [
    rule(`:where([${WAS}="button"])`, [
      'display: inline-block;',
      'box-sizing: border-box;',
      'padding: 1px 6px;',
      'border: 2px outset buttonborder;',
      'background-color: buttonface;',
      'color: buttontext;',
      'font: 13.3333px Arial, sans-serif;',
      'letter-spacing: normal;',
      'text-align: center;',
      'text-decoration: none;',
      'text-transform: none;',
      'cursor: default;',
    ]),
  ]
}

/** The header that is made to stay, on the screens where it leaves room to read. */
function keepRules(page: SitePage, ranges: readonly Range[], surveys: HandoverInput['surveys']): string[] {
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
  return joined(ranges, limits).flatMap(({ range, figure: limit }) =>
    limit === null ? [] : media(only(range, limit ? `(min-height: ${px(limit + 0.02)})` : ''), [stays]),
  )
}

/** On some screens one that would stay is let go: it keeps its place at the page's top. */
function letGoRules({ header }: SitePage, ranges: readonly Range[], surveys: HandoverInput['surveys']): string[] {
  if (!header?.off) return []
  const figures = ranges.map(({ screen }) => {
    if (!header.off!.includes(screen.key)) return null
    return surveys[screen.key]?.header?.position === 'fixed' ? 'absolute' : 'relative'
  })
  return joined(ranges, figures).flatMap(({ range, figure }) =>
    figure === null
      ? []
      : [
          media(only(range), [
            rule(`[${HEADER}]`, [`position: ${figure} !important;`, ...(figure === 'relative' ? ['inset: auto !important;'] : [])]),
          ]),
        ],
  )
}

function movesRules(page: SitePage, ranges: readonly Range[], surveys: HandoverInput['surveys']): string[] {
  const { moves } = page.header ?? {}
  if (!moves) return []
  const at = (state: string) => `[${MOVES}][${AT}~="${state}"]`
  const rules = [
    ...(moves.clear
      ? [
          rule(at('top'), [
            'background: transparent !important;',
            'box-shadow: none !important;',
            'backdrop-filter: none !important;',
            'border-color: transparent !important;',
          ]),
        ]
      : []),
    ...(moves.shadow ? [rule(at('moved'), ['box-shadow: 0 2px 14px rgb(0 0 0 / 0.28) !important;'])] : []),
    // Who has the focus in it is not left without it.
    ...(moves.away ? [rule(`${at('away')}:not(:focus-within)`, ['translate: 0 -120% !important;'])] : []),
  ]
  const giving = givingElements(page, surveys)
  const smaller = ranges.map(({ screen }) => smallerRules(page, surveys[screen.key], giving))
  const shrinks = smaller.some((s) => s !== null)
  const glide = media('(prefers-reduced-motion: no-preference)', [
    rule(`[${MOVES}]`, [
      `transition: translate 0.2s, background-color 0.2s, box-shadow 0.2s${shrinks ? ', padding 0.2s linear, margin 0.2s linear' : ''};`,
    ]),
    ...(shrinks ? [rule(`[${GIVES}]`, ['transition: padding 0.2s linear;'])] : []),
  ])
  const figures = ranges.map(({ screen }) => !moves.off?.includes(screen.key))
  return [
    ...(moves.away || moves.clear || shrinks ? [glide] : []),
    ...joined(ranges, figures).flatMap(({ range, figure }) => (figure && rules.length ? [media(only(range), rules)] : [])),
    ...joined(ranges, smaller).flatMap(({ range, figure }) => (figure === null ? [] : [media(only(range), [figure])])),
  ]
}

/** The section is pulled up to the page's top, and has that much more padding, so that what is in it stays where it was. */
function underRules(page: SitePage, reading: PageReading, ranges: readonly Range[], surveys: HandoverInput['surveys']): string[] {
  const { header } = page
  const first = firstSection(page)
  if (!header?.under || !first) return []
  const figures = ranges.map(({ screen }): string | null => {
    const survey = surveys[screen.key]
    // One that came later is taken to be as the others.
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
  return joined(ranges, figures).flatMap(({ range, figure }) => (figure === null ? [] : [media(only(range), [figure])]))
}

/** What the header gives up of its padding its margin takes, so that nothing on the page moves; null where it gives up nothing. */
function smallerRules(page: SitePage, survey: Survey | undefined, giving: readonly ElementAt[]): string | null {
  const by = survey ? smallerBy(page, survey) : 0
  if (!by) return null
  const { at, top, bottom, margin } = survey!.header!.gives!
  const header = `[${MOVES}][${AT}~="moved"]`
  // By whole px, so that what the one takes and the other gives is the same to the last bit.
  const below = Math.round((by * bottom) / (top + bottom))
  const padding = [`padding-top: ${px(top - by + below)} !important;`, `padding-bottom: ${px(bottom - below)} !important;`]
  const made = margin ? [`margin-${margin.side}: ${px(margin.own + by)} !important;`] : []
  const number = giving.indexOf(at) + 1
  if (!number) return rule(header, [...padding, ...made])
  return [rule(`${header} [${GIVES}="${number}"]`, padding), ...(made.length ? [rule(header, made)] : [])].join('\n\n')
}

/** Targets in the head, for points and former IDs that no element of the page could take. */
function placedRules(page: SitePage, anchors: readonly Anchor[], ranges: readonly Range[], isOwn: boolean): string[] {
  const there = anchors.flatMap((a) => (a.placed ? [{ ...a, placed: a.placed }] : []))
  if (!there.length) return []
  const numbers = new Set(there.map((a) => a.placed.number))
  return group('Targets that no element of the page could be: they stand in the head, and are placed by what they stand for.', [
    comment('The head makes no box, and what is in it has none but for these, which are out of the flow.'),
    rule('html:root > head', ['display: contents;']),
    comment('What the page says of an ID that was an element’s is not to be said of these.'),
    rule(`html:root meta[${PIECE}="anchor"]`, ['all: unset !important;', 'display: block !important;', 'position: absolute !important;']),
    ...[...numbers].map((n) => rule(`[${ANCHOR}="${n}"]`, [`anchor-name: --wb-${n};`])),
    ...there.map(({ id, placed, section }) =>
      rule(`html:root meta[${PIECE}="anchor"]${idSelector(id)}`, [
        `position-anchor: --wb-${placed.number} !important;`,
        `top: ${placed.shift ? `calc(anchor(top) + ${px(placed.shift)})` : 'anchor(top)'} !important;`,
        'left: anchor(left) !important;',
        ...(section.toTop ? ['scroll-margin-top: 100vh !important;'] : []),
      ]),
    ),
    ...there
      .filter(({ section }) => section.adjust && !section.toTop && !isOwn)
      .flatMap(({ id, section }) =>
        byScreen(
          ranges,
          ranges.map(({ screen }) => roomText(page, section, screen)),
          (room) => rule(`html:root meta[${PIECE}="anchor"]${idSelector(id)}`, [`scroll-margin-top: ${room} !important;`]),
        ),
      ),
  ])
}
