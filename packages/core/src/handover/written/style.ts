/** The style that a handover writes: offsets, motion, the made menu's bar, and how the current item is marked. */
import escapeIdentifier from 'css.escape'
import { coverOf, isKept, isOwnTravel } from '../../arrival/index.ts'
import { backingFor } from '../../colour/index.ts'
import { ANCHOR, COVER, HEADER, MARK_STYLES, markRule, markText, MENU, OWN_COVER, PIECE, WITHIN } from '../../contract/index.ts'
import { builtMenusOf, formOf } from '../../menus/index.ts'
import { isFound, madeMenu, type FoundForm, type Section, type Screen, type SitePage } from '../../site/index.ts'
import { inScreenOrder } from '../../survey/index.ts'
import type { PageReading } from '../../page/index.ts'
import type { Anchor } from '../anchors.ts'
import type { PlannedEdit } from '../edit.ts'
import { boundary, type HandoverInput, type WritingInput } from '../input.ts'

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
      // What of it moves anything is told with the header and the menu that is made.
      layout: null,
    },
  ]
}

export function pageStyle(input: HandoverInput, anchors: readonly Anchor[]): string {
  const { page, screens, surveys } = input
  const rules: string[] = []
  const wide = [...screens].sort((a, b) => b.width - a.width)
  const made = madeMenu(page)
  const isOwn = isOwnTravel(page)
  if (!isOwn)
    wide.forEach((screen, i) => {
      // At rest: without script no header shrinks. The script takes what it measures.
      const cover = coverOf(page, surveys[screen.key] ?? null)
      const variables = [
        `${COVER}: ${px(cover.ownRest + cover.bar)};`,
        ...(made && formOf(made.form).isBelowHeader(made.form) ? [`${OWN_COVER}: ${px(cover.ownRest)};`] : []),
      ]
      if (i === 0)
        rules.push(`html:root { ${variables.join(' ')} scroll-padding-top: calc(var(${COVER}) + ${px(page.travel.breathing)}); }`)
      else rules.push(`@media (max-width: ${boundary(screen, wide[i - 1])}px) { html:root { ${variables.join(' ')} } }`)
    })
  const isMotionOwn = isOwn && Object.values(surveys).every((s) => s.smooth === page.travel.smooth)
  if (isMotionOwn) {
    // As it is.
  } else if (page.travel.smooth) {
    rules.push('html:root { scroll-behavior: auto; }')
    rules.push('@media (prefers-reduced-motion: no-preference) { html:root { scroll-behavior: smooth; } }')
  } else rules.push('html:root { scroll-behavior: auto; }')
  const toTop = page.sections.filter((s) => s.toTop && !s.point).map((s) => `:root ${selectorOf(s, input.reading)}`)
  if (toTop.length) rules.push(`${toTop.join(', ')} { scroll-margin-top: 100vh; }`)
  // Those that have one of the page's own.
  const ofPage = new Set(Object.values(surveys).flatMap((s) => s.parts.flatMap((p) => (p.margin !== 0 ? p.at : []))))
  if (!isOwn) {
    const margins = page.sections
      .filter((s) => !s.toTop && !s.point && ofPage.has(s.at))
      .map((s) => `:root ${selectorOf(s, input.reading)}`)
    if (margins.length) rules.push(`${margins.join(',\n')} { scroll-margin-top: 0; }`)
    rules.push(...shiftRules(input, wide))
  }
  if (anchors.length) rules.push(...anchorRules(anchors))
  rules.push(...keepRules(page, wide, surveys))
  if (!page.highlight.own) rules.push(...markRules(page, surveys))
  if (made) {
    const seen = inScreenOrder(Object.values(surveys))[0]
    const color = seen?.color ?? 'rgb(0, 0, 0)'
    rules.push(...formOf(made.form).style(made.form, { color, backing: backingFor(color, seen?.background ?? 'rgb(255, 255, 255)') }))
  }
  return `\n${rules.join('\n')}\n`
}

/** Targets that the page moved up, away from what they are about, are reached where that begins. */
function shiftRules({ page, reading, surveys }: HandoverInput, wide: readonly Screen[]): string[] {
  const shifts = wide.map((screen) => new Map(surveys[screen.key]?.parts.map((p) => [p.at, p.shift])))
  const moved = page.sections.filter((s) => !s.toTop && !s.point && shifts.some((of) => of.get(s.at)))
  return moved.flatMap((section) => {
    const rule = (by: number | undefined) => `:root ${selectorOf(section, reading)} { scroll-margin-top: ${px(-(by ?? 0))}; }`
    const by = shifts.map((of) => of.get(section.at))
    return wide.flatMap((screen, i) => {
      if (i === 0) return rule(by[0])
      return by[i] === by[i - 1] ? [] : `@media (max-width: ${boundary(screen, wide[i - 1])}px) { ${rule(by[i])} }`
    })
  })
}

/** Looks of the current item in menus that the page has; one that the page marks by a class has that class's. */
function markRules(page: SitePage, surveys: HandoverInput['surveys']): string[] {
  const found = page.menus.filter(isFound).map((m) => (m.form as FoundForm).mark ?? 'line')
  const marks = new Map([...found, ...builtMenusOf(page, Object.values(surveys)).map((m) => m.mark)].map((m) => [markText(m), m])).values()
  return [...marks].flatMap((mark) => {
    const menu = `[${MENU}="${markText(mark)}"]`
    const style = typeof mark === 'string' && MARK_STYLES[mark] ? mark : null
    // What opens a list has no look of the page's own for it.
    return [...(style ? [markRule(style, menu, 'a[aria-current="true"]')] : []), markRule(style ?? 'line', menu, `[${WITHIN}]`)]
  })
}

/** The header that is made to stay, on the screens where it leaves room to read. */
function keepRules({ header }: SitePage, wide: readonly Screen[], surveys: HandoverInput['surveys']): string[] {
  if (!header?.keep) return []
  const backing = header.backing ? ` background-color: ${header.backing};` : ''
  const rule = `[${HEADER}="${header.keep}"] { position: ${header.keep} !important; top: 0 !important; z-index: 1000;${backing} }`
  const kept = wide.map((screen) => isKept({ header }, surveys[screen.key] ?? null))
  if (kept.every(Boolean)) return [rule]
  return wide.flatMap((screen, i) => {
    if (!kept[i]) return []
    const most = i > 0 ? `(max-width: ${boundary(screen, wide[i - 1])}px)` : ''
    const next = wide[i + 1]
    const least = next ? `(min-width: ${boundary(next, screen) + 0.02}px)` : ''
    return `@media ${[most, least].filter(Boolean).join(' and ')} { ${rule} }`
  })
}

function anchorRules(anchors: readonly Anchor[]): string[] {
  const places = new Map(anchors.map((a) => [a.number, a]))
  return [
    // The head makes no box, and what is in it has none but for these, which are out of the flow.
    'html:root > head { display: contents; }',
    // What the page says of an ID that was an element's is not to be said of these.
    `html:root meta[${PIECE}="anchor"] { all: unset !important; display: block !important; position: absolute !important; }`,
    ...[...places.keys()].map((n) => `[${ANCHOR}="${n}"] { anchor-name: --wb-${n}; }`),
    ...anchors.map(({ id, number, shift, section }) => {
      const top = shift ? `calc(anchor(top) + ${px(shift)})` : 'anchor(top)'
      return `html:root meta[${PIECE}="anchor"]${idSelector(id)} { position-anchor: --wb-${number} !important; top: ${top} !important; left: anchor(left) !important;${section.toTop ? ' scroll-margin-top: 100vh !important;' : ''} }`
    }),
  ]
}
