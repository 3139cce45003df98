/**
 * A menu's look: a made one as a whole, and an item in all states side by side, as the page draws it. For a found one, only the changed
 * states.
 */
import {
  backingFor,
  contrastsOf,
  FOUND_STATES,
  inScreenOrder,
  isFound,
  isMade,
  laidOver,
  leastOpacity,
  marksByLook,
  nearestInk,
  LOOK_FIELDS,
  READABLE,
  STATE_FIELDS,
  stateDeclarations,
  STATES,
  withOpacity,
  type Field,
  type ItemState,
  type Menu,
  type MenuLook as Look,
  type StateLook,
} from '@waybell/core'
import { X } from 'lucide-react'
import { RadioGroup } from 'radix-ui'
import { useEffect, useId, useMemo, useState, type CSSProperties } from 'react'
import { Button } from '../../ui/index.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { useMeasured, useView, useWork } from '../../work/context.ts'
import { ContrastStrip } from './ContrastStrip.tsx'

const stateNames: Record<ItemState, string> = {
  rest: 'Normal',
  visited: 'Visited',
  within: 'Above current',
  current: 'Current',
  hover: 'Hovered',
  focus: 'Focused',
  pressed: 'Pressed',
  held: 'Disabled',
}

const fieldNames: Record<string, string> = {
  ink: 'Text',
  ground: 'Background',
  opacity: 'Opacity',
  size: 'Size',
  letters: 'Letters',
  spacing: 'Padding',
  corner: 'Corner',
  shadow: 'Shadow',
  weight: 'Weight',
  line: 'Line',
  mark: 'Mark',
  backing: 'Background',
}

const words: Record<string, string> = {
  'as-typed': 'As typed',
  upper: 'Capitals',
  none: 'None',
  soft: 'Soft',
  normal: 'Normal',
  bold: 'Bold',
  under: 'Under the text',
  over: 'Over the text',
  bar: 'Bar',
  dot: 'Dot',
  dome: 'Half dome',
}

/** CSS declarations as React styles. */
const styleOf = (declarations: readonly string[]): CSSProperties =>
  Object.fromEntries(
    declarations.map((d) => {
      const [, name, value] = /^([\w-]+): (.*);$/.exec(d)!
      return [name!.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase()), value!]
    }),
  )

const hexOf = (rgb: string): string =>
  `#${(rgb.match(/\d+/g) ?? ['0', '0', '0'])
    .slice(0, 3)
    .map((n) => Number(n).toString(16).padStart(2, '0'))
    .join('')}`

type Values = Record<string, string | number | undefined>

/** Unset fields show the form's or the normal state's. */
function Fields({
  of,
  fields,
  values,
  onChange,
}: {
  of: string
  fields: Record<string, Field>
  values: Values
  onChange: (name: string, value: string | number | undefined) => void
}) {
  const id = useId()
  return (
    <div className="grid grid-cols-2 gap-x-3 gap-y-1">
      {Object.entries(fields).map(([name, field]) => {
        const label = `${fieldNames[name]} ${of}`
        const value = values[name]
        return (
          <span key={name} className="flex min-h-7 min-w-0 items-center gap-1.5">
            {'options' in field ? (
              <>
                <label htmlFor={id + name} className="text-faint">
                  {fieldNames[name]}
                </label>
                <select
                  id={id + name}
                  aria-label={label}
                  value={value ?? ''}
                  onChange={(e) => onChange(name, e.target.value || undefined)}
                  className="min-h-7 min-w-0 flex-1 rounded-sm border border-hair bg-sheet px-1"
                >
                  <option value="">–</option>
                  {field.options.map((o) => (
                    <option key={o} value={o}>
                      {words[o]}
                    </option>
                  ))}
                </select>
              </>
            ) : 'colour' in field ? (
              <>
                <label htmlFor={id + name} className="text-faint">
                  {fieldNames[name]}
                </label>
                <input
                  id={id + name}
                  type="color"
                  aria-label={label}
                  value={String(value ?? '#888888')}
                  onChange={(e) => onChange(name, e.target.value)}
                  className={`h-7 w-10 ${value === undefined ? 'opacity-40' : ''}`}
                />
                {value === undefined ? (
                  <span className="text-xs text-faint">–</span>
                ) : (
                  <Button kind="quiet" aria-label={`No ${label}`} onClick={() => onChange(name, undefined)}>
                    <X size={12} aria-hidden />
                  </Button>
                )}
              </>
            ) : 'least' in field ? (
              <NumberField
                label={fieldNames[name]!}
                unit={name === 'opacity' ? '%' : 'px'}
                value={Number(value ?? field.usual)}
                min={field.least}
                max={field.most}
                onCommit={(next) => onChange(name, Math.round(next))}
              />
            ) : null}
          </span>
        )
      })}
    </div>
  )
}

export function MenuLook({ menu }: { menu: Menu }) {
  const { page, run } = useWork()
  const { surveys } = useMeasured()
  const { survey, live } = useView()
  const [state, setState] = useState<ItemState>('current')
  const look = menu.look ?? {}
  const measured = inScreenOrder(Object.values(surveys))
  const seen = measured[0]
  const color = seen?.color ?? 'rgb(0, 0, 0)'
  const backing = backingFor(color, seen?.background ?? 'rgb(255, 255, 255)')
  const set = (next: Look) => run({ type: 'menu/look', page: page.key, menu: menu.key, look: Object.keys(next).length ? next : undefined })
  const change = (name: string, value: string | number | undefined) => {
    const next = { ...look, [name]: value } as Look & Values
    if (value === undefined) delete next[name]
    set(next)
  }
  const changeState = (name: string, value: string | number | undefined) => {
    const own = { ...look.states?.[state], [name]: value } as StateLook & Values
    if (value === undefined) delete own[name]
    const states = { ...look.states, [state]: own }
    if (!Object.keys(own).length) delete states[state]
    const next: Look = { ...look, states }
    if (!Object.keys(states).length) delete next.states
    set(next)
  }
  const own = isFound(menu) ? (survey?.menus ?? []).find((m) => m.isDrawn && menu.form.elements.includes(m.at)) : undefined
  const ground = own
    ? (own.grounds ?? []).reduce((under, over) => laidOver(over, under), laidOver(survey!.background, 'rgb(255, 255, 255)'))
    : look.ground === undefined
      ? backing
      : withOpacity(look.ground, look.opacity)
  const ink = look.ink ? withOpacity(look.ink) : (own?.ink ?? color)
  const states = isMade(menu) ? STATES : (['rest', ...FOUND_STATES] as const)
  /** A state with the form's style, or our mark's. */
  const declarationsOf = (s: ItemState): string[] => [
    ...stateDeclarations('rest', look.states?.rest ?? {}, menu.form),
    ...(s === 'current' && !look.states?.current?.mark && isMade(menu) ? ['box-shadow: inset 0 -4px currentColor;'] : []),
    ...(s === 'current' && isFound(menu) && !marksByLook(menu) ? ['text-decoration: underline;'] : []),
    ...(s === 'hover' && !look.states?.hover?.line && isMade(menu) ? ['text-decoration: underline;'] : []),
    ...(s === 'held' ? ['opacity: 0.5;'] : []),
    ...(s !== 'rest' && look.states?.[s] ? stateDeclarations(s, look.states[s], menu.form) : []),
  ]
  const [isShown, setShown] = useState(false)
  const held = JSON.stringify(isShown ? declarationsOf(state) : [])
  const number = page.menus.filter(isMade).findIndex((m) => m.key === menu.key) + 1
  const places = JSON.stringify(isFound(menu) ? menu.form.elements : [])
  useEffect(() => {
    const declarations = JSON.parse(held) as string[]
    if (!declarations.length) return
    // Once the live page has the change.
    const wait = setTimeout(() => live.showState({ elements: JSON.parse(places) as number[], made: number }, declarations), 60)
    return () => {
      clearTimeout(wait)
      live.showState(null, [])
    }
  }, [held, number, places, live, page.menus])
  const label = menu.items.find((i) => i.label)?.label ?? 'Item'
  const contrasts = new Map(contrastsOf(menu, page, measured).map((c) => [c.state, c]))
  const starts: [string, Look][] = isFound(menu)
    ? foundStarts(hexOf(ink))
    : [
        ['As the page', {}],
        ['Reversed', { ink: hexOf(backing), ground: hexOf(color) }],
        ['Backed', { states: { current: { backing: hexOf(color), opacity: 15, corner: 6, mark: 'none', weight: 'bold' } } }],
        ['Domed', { states: { current: { mark: 'dome' }, hover: { line: 'none', mark: 'dot' } } }],
      ]
  const current = contrasts.get(state)
  return (
    <div role="group" aria-label={`Look of ${menu.name}`} className="mb-2 bg-wash p-2 text-sm">
      <p className="mb-2 flex flex-wrap items-center gap-1.5">
        <span className="text-faint">Start from</span>
        {starts.map(([name, start]) => (
          <Button key={name} kind="quiet" onClick={() => set(start)}>
            {name}
          </Button>
        ))}
      </p>
      {isMade(menu) && <Fields of={`of ${menu.name}`} fields={LOOK_FIELDS} values={look as Values} onChange={change} />}
      <RadioGroup.Root
        aria-label="States of an item"
        value={state}
        onValueChange={(next) => setState(next as ItemState)}
        className="my-2 grid grid-cols-4 gap-px border border-hair bg-hair"
      >
        {states.map((s) => {
          const declarations = [`color: ${ink};`, ...declarationsOf(s)]
          const ratio = contrasts.get(s)?.ratio
          return (
            <RadioGroup.Item
              key={s}
              value={s}
              // Arrow keys move the focus, and with it the choice.
              onFocus={() => setState(s)}
              aria-label={`${stateNames[s]}${ratio === undefined ? '' : `, contrast ${ratio.toFixed(1)} to 1`}`}
              className="flex flex-col items-stretch bg-sheet text-center text-xs"
            >
              <span aria-hidden style={{ background: ground }} className="flex min-h-10 items-center justify-center overflow-hidden">
                <span
                  style={{
                    fontSize: Math.min(look.size ?? 16, 20),
                    textTransform: look.letters === 'upper' ? 'uppercase' : 'none',
                    ...styleOf(declarations),
                  }}
                  className="max-w-full truncate px-2 py-1.5"
                >
                  {label}
                </span>
              </span>
              <span className={`border-t-4 px-1 py-0.5 ${state === s ? 'border-teal font-bold' : 'border-transparent'}`}>
                {stateNames[s]}
                {ratio !== undefined && (
                  <span
                    className={`ml-1 tabular-nums ${ratio < READABLE && s !== 'held' ? 'font-bold text-brick' : 'font-normal text-faint'}`}
                  >
                    {ratio.toFixed(1)}
                  </span>
                )}
              </span>
            </RadioGroup.Item>
          )
        })}
      </RadioGroup.Root>
      <p className="mb-1 flex flex-wrap items-center gap-x-3 font-semibold">
        {stateNames[state]}
        <label className="flex items-center gap-1.5 text-xs font-normal">
          <input type="checkbox" checked={isShown} onChange={(e) => setShown(e.target.checked)} />
          show in live page
        </label>
      </p>
      {isFound(menu) && state === 'rest' ? (
        <p className="text-xs text-faint">Normally items look as on the page.</p>
      ) : (
        <Fields
          of={`of an item ${stateNames[state].toLowerCase()}`}
          fields={state === 'visited' ? { ink: STATE_FIELDS.ink } : STATE_FIELDS}
          values={(look.states?.[state] ?? {}) as Values}
          onChange={changeState}
        />
      )}
      {state === 'visited' && <p className="text-xs text-faint">Browsers show only the colour of visited links.</p>}
      <ContrastStrip menu={menu} state={state} named={`an item ${stateNames[state].toLowerCase()}`} />
      {current && current.ratio < READABLE && state !== 'held' && (
        <Remedies
          menu={menu}
          state={state}
          onInk={(next) => changeState('ink', next)}
          onOpacity={isMade(menu) ? (next) => change('opacity', next) : null}
        />
      )}
    </div>
  )
}

/** For a found menu, starting from its text colour. */
const foundStarts = (ink: string): [string, Look][] => [
  ['As the page', {}],
  ['Backed', { states: { current: { backing: ink, opacity: 18, corner: 6, weight: 'bold' } } }],
  ['Domed', { states: { current: { mark: 'dome', line: 'none' }, hover: { mark: 'dot', line: 'none' } } }],
]

/** Fixes for contrast; says so if there is none. */
function Remedies({
  menu,
  state,
  onInk,
  onOpacity,
}: {
  menu: Menu
  state: ItemState
  onInk: (ink: string) => void
  onOpacity: ((opacity: number) => void) | null
}) {
  const { page } = useWork()
  const { surveys } = useMeasured()
  const measured = useMemo(() => inScreenOrder(Object.values(surveys)), [surveys])
  const ink = useMemo(() => nearestInk(menu, state, page, measured), [menu, state, page, measured])
  const opacity = useMemo(() => leastOpacity(menu, page, measured), [menu, page, measured])
  return (
    <p className="mt-1 flex flex-wrap items-center gap-2 text-xs">
      {ink !== null && <Button onClick={() => onInk(ink)}>Set text to {ink}</Button>}
      {opacity !== null && <Button onClick={() => onOpacity?.(opacity)}>Make background {opacity} % opaque</Button>}
      {ink === null && opacity === null && (
        <span>No single text colour works over everything behind it. Give {onOpacity ? 'the menu' : 'the item'} a background.</span>
      )}
    </p>
  )
}
