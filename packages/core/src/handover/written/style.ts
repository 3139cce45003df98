/** The style of a handover: offsets, motion, the made menu, and marks. */
import { isOwnTravel, partsByAt, endSpaceHolder, standsAbove } from '../../arrival/index.ts'
import { backingFor } from '../../colour/index.ts'
import { ANCHOR, COVER, MARK_STYLES, markRule, markText, MENU, PIECE, ROOM, SIZED_RULE, WAS, WITHIN } from '../../contract/index.ts'
import { builtMenusOf, foundLookRules } from '../../menus/index.ts'
import type { PageReading } from '../../page/index.ts'
import { adjustOn, breathingOn, fillsOn, isFound, isMade, type Screen, type Section, type SitePage } from '../../site/index.ts'
import { inScreenOrder } from '../../survey/index.ts'
import type { Anchor } from '../anchors.ts'
import type { PlannedEdit } from '../edit.ts'
import type { HandoverInput } from '../input.ts'
import { rangesOf, type Range } from '../ranges.ts'
import { needsScript, type WritingInput } from '../writing.ts'
import { byScreen, comment, forScreens, group, media, px, rule } from './css.ts'
import { estimateRules } from './estimate.ts'
import { markOf } from './found-menu.ts'
import { coverRules, growthRules, keepRules, letGoRules, movesRules, steadyRules, underRules } from './header-style.ts'
import { opensLists } from './lists.ts'
import { madeRules } from './made-style.ts'
import { motionRules } from './motion-style.ts'
import { idSelector, selectorOf } from './selectors.ts'

export function planStyle(input: WritingInput): PlannedEdit[] {
  const text = pageStyle(input, input.anchors)
  if (!text.trim()) return []
  return [
    {
      edit: { kind: 'piece', role: 'style', place: 'head', text },
      why: 'Offsets, motion and the mark of the current item.',
      for: {},
      // Other rules that affect layout are reported with header and made menu.
      layout: input.page.endSpace ? `room ${JSON.stringify(input.page.endSpace)}` : null,
    },
  ]
}

export function pageStyle(input: HandoverInput, anchors: readonly Anchor[]): string {
  const { page, reading, screens, surveys } = input
  const ranges = rangesOf(screens)
  const toTop = page.sections.filter((s) => s.toTop && !s.point).map((s) => `:root ${selectorOf(s, reading)}`)
  // Screens with a header of the page's own.
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
    ...motionRules(input),
    ...group(
      'The link to the first section goes to the top of the page.',
      toTop.length ? [rule(toTop.join(',\n'), ['scroll-margin-top: 100vh !important;'])] : [],
    ),
    ...(isOwn
      ? []
      : [
          ...group(
            'Resets the page’s offsets for single sections; the one above is for all.',
            reset.length ? [rule(reset.join(',\n'), ['scroll-margin-top: 0 !important;'])] : [],
          ),
          ...group('Targets that the page moved up: links arrive at their content.', marginRules(input, ranges, true)),
          ...group('Extra offset of single sections.', marginRules(input, ranges, false)),
        ]),
    ...group('Space at the page’s end, so its last sections can arrive; added to the section’s own.', endSpaceRules(input, ranges)),
    ...hostRules(page, anchors, ranges, isOwn),
    ...placedRules(page, anchors, ranges, isOwn),
    ...group(`Keeps the header in view where it takes at most a sixth of the screen’s height.`, keepRules(page, ranges, surveys)),
    ...group('Screens on which the header scrolls away.', letGoRules(page, ranges, surveys)),
    ...group('The first section starts under the header and fills the screen.', underRules(page, reading, ranges, surveys)),
    ...group('What the header does after scrolling; without the script it stays, with its background.', movesRules(page, ranges, surveys)),
    ...steadyRules(input, ranges),
    ...group('Measured heights of content that is laid out only when near.', estimateRules(page, ranges, surveys)),
    ...group('Pictures with sizes in the markup keep the height from the page’s styles.', page.pictures ? [SIZED_RULE] : []),
    ...group('The skip link shows when focused.', page.travel.skip === undefined || !page.sections.length ? [] : SKIP_RULES),
    ...group('A link that was a button looks like one unless the page styles it.', buttonRules(page, reading)),
    ...(page.highlight.pageMark ? [] : markRules(input)),
    ...group(
      'Look of the states of items in the page’s own menus.',
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
    ? `\n${[comment('Way Bell: section navigation for this page. Figures were measured in a browser.'), ...groups].join('\n\n')}\n`
    : ''
}

/**
 * Margins of single sections on each screen.
 * @param isShifted for targets that the page moved up; otherwise for sections with an extra offset
 */
function marginRules({ page, reading, surveys }: HandoverInput, ranges: readonly Range[], isShifted: boolean): string[] {
  const parts = ranges.map(({ screen }) => surveys[screen.key] && partsByAt(surveys[screen.key]!))
  const shiftOn = (section: Section, i: number): number => {
    const part = parts[i]?.get(section.at)
    return part && standsAbove(section, part) ? part.shift : 0
  }
  const some = page.sections.filter(
    (s) => !s.toTop && !s.point && parts.some((_, i) => shiftOn(s, i)) === isShifted && (isShifted || s.adjust),
  )
  return some.flatMap((section) =>
    byScreen(
      ranges,
      ranges.map(({ screen }, i) => roomText(page, section, screen, -shiftOn(section, i))),
      (room) => rule(`:root ${selectorOf(section, reading)}`, [`scroll-margin-top: ${room} !important;`]),
    ),
  )
}

/** A section's margin; negative for one that fills the window. @param more its extra offset in px */
function roomText(page: SitePage, section: Section, { key }: Screen, more = 0): string {
  if (!fillsOn(section, key)) return px(adjustOn(section, key) + more)
  return `calc(${px(more - breathingOn(page, key))} - var(${COVER}))`
}

function endSpaceRules({ page: { endSpace, sections }, reading }: HandoverInput, ranges: readonly Range[]): string[] {
  const section = sections.find((s) => s.key === endSpace?.section)
  if (!endSpace || !section) return []
  const holder = endSpaceHolder(section, reading)
  const figures = ranges.map(({ screen }) => {
    const on = endSpace.on.find((o) => o.screen === screen.key)
    if (!on) return null
    const more = `max(0px, 100vh - ${px(on.fits)})`
    return holder === null ? `calc(${px(on.base)} + ${more})` : more
  })
  const name = endSpace.as === 'padding' ? 'padding-bottom' : 'min-height'
  // In or under a heading, it would separate the heading from its text.
  const make = (figure: string): string =>
    holder === null
      ? rule(`:root ${selectorOf(section, reading)}`, [`${name}: ${figure} !important;`])
      : rule(`:root ${holder === 'body' ? 'body' : `[${ROOM}]`}::after`, [
          'content: "" !important;',
          'display: block !important;',
          'clear: both;',
          `height: ${figure} !important;`,
        ])
  // Unknown for screens added later.
  return forScreens(
    ranges,
    figures.map((figure) => (figure === null ? null : make(figure))),
  )
}

/** Elements whose IDs stand for a point or former ID: their distance from the target. */
function hostRules(page: SitePage, anchors: readonly Anchor[], ranges: readonly Range[], isOwn: boolean): string[] {
  return anchors.flatMap(({ id, host, below, section, isFormer }) => {
    if (host === null) return []
    const selector = `:root ${idSelector(id)}`
    const why = isFormer
      ? `“${id}” was the ID of “${section.id}” before. Its heading has it now; links to it arrive at the section’s top.`
      : `The point “${id}”.`
    if (section.toTop) return group(why, [rule(selector, ['scroll-margin-top: 100vh !important;'])])
    const figures = ranges.map(({ screen }) => {
      const more = -Math.round((below[screen.key] ?? 0) * 100) / 100
      return isOwn ? px(more) : roomText(page, section, screen, more)
    })
    return group(
      why,
      byScreen(ranges, figures, (room) => rule(selector, [`scroll-margin-top: ${room} !important;`])),
    )
  })
}

/** Marks of found menus; menus with a class of their own keep its look. */
function markRules(input: HandoverInput): string[] {
  const { page, surveys } = input
  const found = page.menus.filter(isFound).map(markOf)
  const built = builtMenusOf(page, Object.values(surveys)).map((m) => m.mark)
  const marks = [...new Map([...found, ...built].map((m) => [markText(m), m])).values()]
  const opens = opensLists(input)
  const looks = marks.flatMap((mark) => {
    const menu = `[${MENU}="${markText(mark)}"]`
    const style = typeof mark === 'string' && MARK_STYLES[mark] ? mark : null
    // Openers of lists have no such look in the page.
    const marked = [...(style ? ['a[aria-current="true"]'] : []), ...(opens ? [`[${WITHIN}]`] : [])]
    return marked.length ? [markRule(style ?? 'line', menu, ...marked)] : []
  })
  const isLine = marks.every((mark) => mark === 'line' || mark === 'strong') && !page.menus.some(isMade)
  const shown = [`[${MENU}] a[aria-current="true"]`, ...(opens ? [`[${MENU}] [${WITHIN}]`] : [])]
  return [
    ...group(opens ? 'The current item of a menu, and the item above it.' : 'The current item of a menu.', looks),
    ...group('With forced colours, backgrounds and shadows don’t show.', [
      isLine
        ? ''
        : media('(forced-colors: active)', [
            rule(shown.join(',\n'), ['outline: 2px solid !important;', 'outline-offset: -2px !important;']),
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

/** Browser defaults of buttons; the page's styles override them. */
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

/** Targets in the head, for points and former IDs without an element. */
function placedRules(page: SitePage, anchors: readonly Anchor[], ranges: readonly Range[], isOwn: boolean): string[] {
  const there = anchors.flatMap((a) => (a.placed ? [{ ...a, placed: a.placed }] : []))
  if (!there.length) return []
  const numbers = new Set(there.map((a) => a.placed.number))
  return group('Targets without an element of their own: they sit in the head and are placed at what they mean.', [
    comment('The head takes no space; only these targets are displayed, out of the flow.'),
    rule('html:root > head', ['display: contents;']),
    comment('The page’s rules for such an ID don’t apply here.'),
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
