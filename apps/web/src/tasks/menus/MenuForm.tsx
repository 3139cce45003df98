/** The form of a made menu: its place, where and on which screens it's visible, and small screens. */
import {
  fieldsOf,
  formKinds,
  formOf,
  inScreenOrder,
  newForm,
  smallOf,
  type FormKind,
  type Holds,
  type MadeMenu,
  type MadeMenuForm,
  type Section,
  type Shown,
  type Small,
} from '@waybell/core'
import { Fragment, useId, type ReactNode } from 'react'
import { Field } from '../../ui/index.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { useMeasured, useWork } from '../../work/context.ts'
import { OnScreens } from '../OnScreens.tsx'
import { TakeToPages } from './TakeToPages.tsx'

export const formNames: Record<FormKind, string> = {
  bar: 'Bar at the top',
  rail: 'Rail at a side',
  marks: 'Marks at a side',
  footer: 'Footer',
  floating: 'Floating list',
  contents: 'Contents in the text',
  corner: 'Pinned in a corner',
  steps: 'Steps under sections',
}

const fieldNames: Record<string, string> = {
  place: 'Place',
  side: 'Side',
  stands: 'Stands',
  layout: 'Layout',
  labels: 'Labels',
  width: 'Width',
  edge: 'Distance',
  text: 'Each says',
}

const words: Record<string, string> = {
  top: 'At the page’s top',
  'after-header': 'After the page’s header',
  'under-fixed': 'Below its fixed header',
  'in-header': 'In the page’s header',
  left: 'Left',
  right: 'Right',
  beside: 'Beside the page',
  over: 'Over the page',
  row: 'In a row',
  columns: 'In columns',
  list: 'One below the other',
  current: 'The current one',
  all: 'All, on hover or focus',
  end: 'At the section’s end',
  foot: 'At the viewport’s bottom',
}

const smallWords: Record<Small, string> = {
  same: 'Unchanged',
  scrolls: 'Scrolls sideways',
  folds: 'Folds behind a button',
  away: 'Hidden',
}

interface SelectProps {
  label: string
  value: string
  options: readonly { value: string; name: string; disabled?: boolean }[]
  onChange: (value: string) => void
}

function Select({ label, value, options, onChange }: SelectProps) {
  const id = useId()
  return (
    <>
      <label htmlFor={id} className="text-faint">
        {label}
      </label>
      <select
        id={id}
        value={value}
        onChange={(e) => onChange(e.target.value)}
        className="min-h-7 min-w-0 rounded-sm border border-hair bg-sheet px-1"
      >
        {options.map((o) => (
          <option key={o.value} value={o.value} disabled={o.disabled}>
            {o.name}
          </option>
        ))}
      </select>
    </>
  )
}

const Row = ({ children }: { children: ReactNode }) => <span className="col-span-2">{children}</span>

export function MenuForm({ menu }: { menu: MadeMenu }) {
  const { page, run } = useWork()
  const { surveys } = useMeasured()
  const { form, shown = {} } = menu
  const at = { page: page.key, menu: menu.key }
  const small = smallOf(menu)
  const setForm = (next: MadeMenuForm) => run({ type: 'menu/form', ...at, form: next })
  const setField = (name: string, value: string | number) => setForm({ ...form, [name]: value } as MadeMenuForm)
  const setShown = (next: Shown) => run({ type: 'menu/shown', ...at, shown: Object.keys(next).length ? next : undefined })
  /** Defaults aren't stored. */
  const change = <K extends keyof Shown>(name: K, value: Shown[K] | undefined) => {
    const next = { ...shown, [name]: value }
    if (value === undefined) delete next[name]
    setShown(next)
  }
  const numbered = page.sections.map((s, i) => ({ value: s.key, name: `${i + 1} ${s.title}` }))
  const kinds = formKinds.map((kind) => ({
    value: kind,
    name: formNames[kind],
    disabled: kind === 'bar' && form.kind !== 'bar' && page.menus.some((m) => m.form.kind === 'bar'),
  }))
  return (
    <div
      role="group"
      aria-label={`Form of ${menu.name}`}
      className="mb-2 grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-1 bg-wash p-2 text-sm"
    >
      <span className="text-faint">Name</span>
      <Field label={`Name of menu ${menu.name}`} value={menu.name} onCommit={(name) => run({ type: 'menu/name', ...at, name })} />
      <Select
        label="Form"
        value={form.kind}
        options={kinds}
        onChange={(kind) => setForm(newForm(kind as FormKind, page.sections, inScreenOrder(Object.values(surveys))))}
      />
      {Object.entries(fieldsOf(form.kind)).map(([name, field]) =>
        'options' in field ? (
          <Select
            key={name}
            label={fieldNames[name]!}
            value={String(form[name as keyof MadeMenuForm])}
            options={field.options.map((value) => ({
              value,
              name: words[value]!,
              disabled: (value === 'in-header' || value === 'after-header') && !page.header,
            }))}
            onChange={(value) => setField(name, value)}
          />
        ) : !('least' in field) ? (
          <Fragment key={name}>
            <span className="text-faint">{fieldNames[name]}</span>
            <Field
              label={`${fieldNames[name]} of ${menu.name}`}
              value={String(form[name as keyof MadeMenuForm])}
              placeholder="its target’s label"
              mayBeEmpty
              onCommit={(value) => setField(name, value)}
            />
          </Fragment>
        ) : (
          <Row key={name}>
            <NumberField
              label={fieldNames[name]!}
              unit="px"
              value={Number(form[name as keyof MadeMenuForm])}
              min={field.least}
              max={field.most}
              onCommit={(value) => setField(name, Math.round(value))}
            />
          </Row>
        ),
      )}
      {form.kind !== 'steps' && (
        <>
          <Select
            label="Visible from"
            value={shown.from ?? ''}
            options={[{ value: '', name: 'Top of the page' }, ...numbered]}
            onChange={(key) => change('from', key || undefined)}
          />
          <Select
            label="Visible until"
            value={shown.until ?? ''}
            options={[{ value: '', name: 'The page’s end' }, ...numbered]}
            onChange={(key) => change('until', key || undefined)}
          />
          <Row>
            <NumberField
              label="Visible after scrolling"
              unit="px"
              value={shown.after ?? 0}
              min={0}
              max={100000}
              onCommit={(after) => change('after', Math.round(after) || undefined)}
            />
          </Row>
        </>
      )}
      {form.kind !== 'steps' && (
        <Select
          label="Items not reached"
          value={shown.holds ?? ''}
          options={[
            { value: '', name: 'Enabled' },
            { value: 'visit', name: 'Disabled until reached, per visit' },
            { value: 'browser', name: 'Disabled until reached, remembered' },
          ]}
          onChange={(holds) => change('holds', (holds as Holds) || undefined)}
        />
      )}
      <OnScreens of={menu.name} off={shown.off} onChange={(off) => change('off', off)} />
      <Select
        label="Small screens"
        value={small.as}
        options={formOf(form).small.map((value) => ({ value, name: smallWords[value] }))}
        onChange={(as) => change('small', { ...small, as: as as Small })}
      />
      {small.as !== 'same' && (
        <Row>
          <NumberField
            label="Up to"
            unit="px"
            value={small.upTo}
            min={1}
            max={20000}
            onCommit={(upTo) => change('small', { ...small, upTo: Math.round(upTo) })}
          />
        </Row>
      )}
      {!menu.syncedWith && (
        <label className="col-span-2 flex min-h-7 items-center gap-1.5">
          <input
            type="checkbox"
            checked={menu.grows !== false}
            onChange={(e) => run({ type: 'menu/grows', ...at, grows: e.target.checked ? undefined : false })}
          />
          Includes new sections
        </label>
      )}
      <Row>
        <TakeToPages menu={menu} />
      </Row>
    </div>
  )
}

/** Max nesting depth of the page's sections. */
export const levelsOf = (sections: readonly Section[]): number => Math.max(1, ...sections.map((s) => s.depth + 1))
