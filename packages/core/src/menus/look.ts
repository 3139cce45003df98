/** How a made menu looks if it differs from its form: as a whole and for each item state. */
import type { MadeMenuForm, Menu, MenuForm, MenuLook, StateLook } from '../site/index.ts'
import { LOOK } from '../contract/index.ts'
import { FOUND_STATES, LOOK_FIELDS, readField, STATE_FIELDS, STATES, type Field, type ItemState } from './forms/form.ts'

const selectors: Record<ItemState, string> = {
  rest: ':is(a, summary, .wb-words)',
  visited: 'a:visited',
  within: '[data-wb-within]',
  current: 'a[aria-current="true"]',
  hover: ':is(a, summary):hover',
  focus: ':is(a, summary):focus-visible',
  pressed: ':is(a, summary):active',
  held: 'a[aria-disabled="true"]',
}

/** A colour with opacity in %, as CSS. */
export function withOpacity(hex: string, opacity = 100): string {
  const [r, g, b] = [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16))
  return opacity >= 100 ? `rgb(${r}, ${g}, ${b})` : `rgba(${r}, ${g}, ${b}, ${opacity / 100})`
}

/** A mark at the bottom of items in a row, or at the edge in a column. */
function markOf(mark: NonNullable<StateLook['mark']>, form: MenuForm): string[] {
  const isUpright = form.kind === 'rail' || form.kind === 'floating' || form.kind === 'contents'
  const atRight = 'side' in form && form.side === 'right'
  const edge = atRight ? 'right' : 'left'
  const drawn = (shape: string, place: string, size: string) => [
    'box-shadow: none;',
    `background-image: radial-gradient(${shape});`,
    `background-position: ${place};`,
    `background-size: ${size};`,
    'background-repeat: no-repeat;',
  ]
  if (mark === 'none') return ['box-shadow: none;', 'background-image: none;']
  if (mark === 'bar')
    return [`box-shadow: inset ${isUpright ? `${atRight ? -4 : 4}px 0` : '0 -4px'} currentColor;`, 'background-image: none;']
  if (mark === 'dot')
    return drawn('circle, currentColor 0 3px, transparent 3.5px', isUpright ? `${edge} 2px center` : 'center bottom 3px', '8px 8px')
  // On the item's bottom or edge.
  const round = 'currentColor 0 6px, transparent 6.5px'
  return isUpright
    ? drawn(`circle at ${atRight ? '100%' : '0'} 50%, ${round}`, `${edge} center`, '7px 14px')
    : drawn(`circle at 50% 100%, ${round}`, 'center bottom', '14px 7px')
}

/** CSS declarations for a state; for visited links browsers only accept colours. */
export function stateDeclarations(state: ItemState, look: StateLook, form: MenuForm): string[] {
  const { ink, weight, line, mark, backing, opacity, corner } = look
  const colour = ink === undefined ? [] : [`color: ${withOpacity(ink)};`]
  if (state === 'visited') return colour
  return [
    ...colour,
    ...(weight === undefined ? [] : [`font-weight: ${weight};`]),
    ...(line === undefined ? [] : [`text-decoration: ${{ none: 'none', under: 'underline', over: 'overline' }[line]};`]),
    ...(backing === undefined ? [] : [`background-color: ${withOpacity(backing, opacity)};`]),
    ...(corner === undefined ? [] : [`border-radius: ${corner}px;`]),
    ...(mark === undefined || form.kind === 'marks' ? [] : markOf(mark, form)),
  ]
}

/** Selectors and declarations. @param nav selects the menu */
export function lookRules(
  nav: string,
  { states = {}, ...look }: MenuLook,
  form: MadeMenuForm,
): [selector: string, declarations: string[]][] {
  const { size, letters, spacing, corner, shadow } = look
  const ofMenu = [
    ...(size === undefined ? [] : [`font-size: ${size}px;`]),
    ...(letters === undefined ? [] : [`text-transform: ${letters === 'upper' ? 'uppercase' : 'none'};`]),
    ...(corner === undefined ? [] : [`border-radius: ${corner}px;`]),
    ...(shadow === undefined ? [] : [`box-shadow: ${shadow === 'soft' ? '0 2px 10px rgba(0, 0, 0, 0.25)' : 'none'};`]),
  ]
  const ofItems = spacing === undefined ? [] : [`padding-left: ${spacing}px;`, `padding-right: ${spacing}px;`]
  return [
    [nav, ofMenu] as const,
    [`${nav} :is(a, summary, .wb-words)`, ofItems] as const,
    ...STATES.map((state) => [`${nav} ${selectors[state]}`, stateDeclarations(state, states[state] ?? {}, form)] as const),
  ].flatMap(([selector, declarations]) => (declarations.length ? [[selector, [...declarations]]] : []))
}

/** Rules for item states of a found menu, with the weight of two IDs, more than most page styles. */
export const foundLookRules = (number: number, { look, form }: Menu): [selector: string, declarations: string[]][] =>
  FOUND_STATES.flatMap((state) => {
    const declarations = stateDeclarations(state, look?.states?.[state] ?? {}, form)
    return declarations.length ? [[`[${LOOK}^="${number} "]:not(#_1):not(#_2) ${selectors[state]}`, declarations]] : []
  })

/** True when its current item is styled, so that it needs no mark. */
export const marksByLook = ({ look }: Menu): boolean => {
  const { line, mark, backing } = look?.states?.current ?? {}
  return line !== undefined || mark !== undefined || backing !== undefined
}

/** `ink:#001122;weight:bold` */
const packed = (fields: object): string =>
  Object.entries(fields)
    .map(([name, value]) => `${name}:${value}`)
    .join(';')

function unpacked(word: string | undefined, fields: Readonly<Record<string, Field>>): Record<string, string | number> | null {
  const out: Record<string, string | number> = {}
  for (const part of (word ?? '').split(';')) {
    const [, name, value] = /^(\w+):(.*)$/.exec(part) ?? []
    const read = name !== undefined && Object.hasOwn(fields, name) ? readField(fields[name]!, value!) : undefined
    if (read !== undefined) out[name!] = read
  }
  return Object.keys(out).length ? out : null
}

export function lookWords({ states = {}, ...look }: MenuLook): Record<string, string> {
  const ofStates = STATES.flatMap((s) => (Object.keys(states[s] ?? {}).length ? [[s, packed(states[s]!)] as const] : []))
  return { ...(Object.keys(look).length && { look: packed(look) }), ...Object.fromEntries(ofStates) }
}

/** The look that an earlier handover wrote; null for none. */
export function readLook(words: Readonly<Record<string, string>>): MenuLook | null {
  const states = STATES.flatMap((s) => {
    const read = unpacked(words[s], STATE_FIELDS)
    return read ? [[s, read] as const] : []
  })
  const look = unpacked(words.look, LOOK_FIELDS)
  return look || states.length ? ({ ...look, ...(states.length && { states: Object.fromEntries(states) }) } as MenuLook) : null
}
