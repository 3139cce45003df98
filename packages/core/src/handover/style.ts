/** The style that a handover writes: offsets, motion, the made menu's bar, and how the current item is marked. */
import { BAR_HEIGHT, coverOf, type Survey } from '../arrival/index.ts'
import { ANCHOR } from '../page/index.ts'
import { backingFor } from '../proposal/index.ts'
import type { Anchor } from './anchors.ts'
import { boundary, type HandoverInput } from './input.ts'

const px = (n: number) => `${Math.round(n * 100) / 100}px`

/** An ID as a CSS selector. @see CSSOM, "serialize an identifier" */
export function idSelector(id: string): string {
  let out = ''
  for (let i = 0; i < id.length; i++) {
    const c = id.charCodeAt(i)
    const digitFirst = c >= 48 && c <= 57 && (i === 0 || (i === 1 && id[0] === '-'))
    if (c === 0) out += '\ufffd'
    else if (c < 32 || c === 127 || digitFirst) out += `\\${c.toString(16)} `
    else if (c >= 128 || /[\w-]/.test(id[i]!)) out += id === '-' ? '\\-' : id[i]
    else out += `\\${id[i]}`
  }
  return `#${out}`
}

export function pageStyle(input: HandoverInput, anchors: readonly Anchor[]): string {
  const { page, screens, surveys } = input
  const rules: string[] = []
  const wide = [...screens].sort((a, b) => b.width - a.width)
  const made = page.menus.some((m) => m.at === null)
  const marked = page.menus.some((m) => m.at !== null)
  wide.forEach((screen, i) => {
    // At rest: without script no header shrinks. The script takes what it measures.
    const cover = coverOf(page, surveys[screen.key] ?? null)
    const variables = [
      `--wb-header: ${px(cover.ownRest + cover.bar)};`,
      ...(made && page.bar !== 'top' ? [`--wb-own: ${px(cover.ownRest)};`] : []),
    ]
    if (i === 0)
      rules.push(`html:root { ${variables.join(' ')} scroll-padding-top: calc(var(--wb-header) + ${px(page.travel.breathing)}); }`)
    else rules.push(`@media (max-width: ${boundary(screen, wide[i - 1])}px) { html:root { ${variables.join(' ')} } }`)
  })
  if (page.travel.smooth) {
    rules.push('html:root { scroll-behavior: auto; }')
    rules.push('@media (prefers-reduced-motion: no-preference) { html:root { scroll-behavior: smooth; } }')
  } else rules.push('html:root { scroll-behavior: auto; }')
  const toTop = page.sections.filter((s) => s.toTop && !s.point).map((s) => `:root ${idSelector(s.id)}`)
  if (toTop.length) rules.push(`${toTop.join(', ')} { scroll-margin-top: 100vh; }`)
  // Those that have one of the page's own.
  const ofPage = new Set(Object.values(surveys).flatMap((s) => s.parts.flatMap((p) => (p.margin !== 0 ? p.at : []))))
  const margins = page.sections.filter((s) => !s.toTop && !s.point && ofPage.has(s.at)).map((s) => `:root ${idSelector(s.id)}`)
  if (margins.length) rules.push(`${margins.join(',\n')} { scroll-margin-top: 0; }`)
  if (anchors.length) rules.push(...anchorRules(anchors))
  if (page.header?.keep) {
    const backing = page.header.backing ? ` background-color: ${page.header.backing};` : ''
    rules.push(
      `[data-wb-header="${page.header.keep}"] { position: ${page.header.keep} !important; top: 0 !important; z-index: 1000;${backing} }`,
    )
  }
  if (marked)
    rules.push(
      '[data-wb-menu] a[aria-current="true"] { text-decoration: underline; text-decoration-thickness: 2px; text-underline-offset: 0.3em; }',
    )
  if (made) rules.push(...barRules(input))
  return `\n${rules.join('\n')}\n`
}

function anchorRules(anchors: readonly Anchor[]): string[] {
  const places = new Map(anchors.map((a) => [a.number, a]))
  return [
    // The head makes no box, and what is in it has none but for these, which are out of the flow.
    'html:root > head { display: contents; }',
    // What the page says of an ID that was an element's is not to be said of these.
    'html:root [data-wb="anchor"] { all: unset !important; display: block !important; position: absolute !important; }',
    ...[...places.keys()].map((n) => `[${ANCHOR}="${n}"] { anchor-name: --wb-${n}; }`),
    ...anchors.map(({ id, number, shift, section }) => {
      const top = shift ? `calc(anchor(top) + ${px(shift)})` : 'anchor(top)'
      return `html:root [data-wb="anchor"]${idSelector(id)} { position-anchor: --wb-${number} !important; top: ${top} !important; left: anchor(left) !important;${section.toTop ? ' scroll-margin-top: 100vh !important;' : ''} }`
    }),
  ]
}

function barRules({ page, surveys }: HandoverInput): string[] {
  const survey: Survey | undefined = Object.values(surveys)[0]
  const color = survey?.color ?? 'rgb(0, 0, 0)'
  const backing = backingFor(color, survey?.background ?? 'rgb(255, 255, 255)')
  const bar = '[data-wb="menu"]'
  const where =
    page.bar === 'top'
      ? 'position: fixed; top: 0; left: 0; right: 0;'
      : page.bar === 'after-header'
        ? 'position: sticky; top: var(--wb-own);'
        : 'position: fixed; top: var(--wb-own); left: 0; right: 0;'
  return [
    // `all: unset` keeps what the page says of its own menus and links away from this one; font and colour are inherited.
    `html:root ${bar} { all: unset; display: flex; ${where} box-sizing: border-box; height: ${BAR_HEIGHT}px; padding: 0 8px; overflow-x: auto; overflow-y: hidden; scrollbar-width: none; z-index: 1000; background: ${backing}; color: ${color}; font-size: 16px; line-height: 1.25; box-shadow: inset 0 -1px currentColor; }`,
    `html:root ${bar} a { all: unset; flex: none; display: flex; align-items: center; box-sizing: border-box; height: ${BAR_HEIGHT}px; padding: 0 12px; white-space: nowrap; cursor: pointer; }`,
    `html:root ${bar} a:hover { text-decoration: underline; }`,
    `html:root ${bar} a:focus-visible { outline: 2px solid currentColor; outline-offset: -4px; }`,
    `html:root ${bar} a[aria-current="true"] { box-shadow: inset 0 -4px currentColor; }`,
    ...(page.bar === 'top' ? [`html:root { padding-top: ${BAR_HEIGHT}px; }`] : []),
  ]
}
