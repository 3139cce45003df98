/** The site's naming rule, its results for this page's titles, and applying it. */
import { idFromTitle, renameSections, typedName, type NamingRule, type Section } from '@waybell/core'
import { Dialog } from 'radix-ui'
import { useId, useState, type ReactNode } from 'react'
import { Button } from '../../ui/index.tsx'
import { Sheet } from '../../ui/Sheet.tsx'
import { useWork } from '../../work/context.ts'
import { renaming } from './steps.ts'

type Scope = 'all' | 'new' | 'chosen'

export function NamingDialog({ chosen }: { chosen: Section[] }) {
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <Button>Naming rule</Button>
      </Dialog.Trigger>
      <Sheet title="Naming rule" description="Makes IDs from titles, on this site.">
        <Rule chosen={chosen} />
      </Sheet>
    </Dialog.Root>
  )
}

/** Resets whenever it's opened. */
function Rule({ chosen }: { chosen: Section[] }) {
  const work = useWork()
  const { page, site, run, known } = work
  const [rule, setRule] = useState<NamingRule>(site.rule)
  const [scope, setScope] = useState<Scope>(chosen.length ? 'chosen' : 'new')
  const scopes: Record<Scope, Section[]> = { all: page.sections, new: page.sections.filter((s) => s.sourceId === null), chosen }
  const changes = renaming({ ...work, site: { ...site, rule } }, scopes[scope])
  const set = (patch: Partial<NamingRule>) => setRule({ ...rule, ...patch })
  const stored = JSON.stringify(rule) === JSON.stringify(site.rule)
  const sample = page.sections.find((s) => /\s/.test(s.title))?.title ?? page.sections[0]?.title ?? 'Our work'
  const keep = () => !stored && run({ type: 'site/rule', rule })
  return (
    <>
      <p className="mb-3 border-l-4 border-teal bg-wash px-3 py-2" data-testid="example">
        “{sample}” becomes <code className="font-mono">{idFromTitle(sample, rule) || '(nothing)'}</code>
      </p>
      <div className="mb-3 grid grid-cols-2 gap-x-4 gap-y-2">
        <Choose
          label="Letters"
          value={rule.letters}
          onChange={(letters) => set({ letters })}
          options={{ lower: 'lower case', 'as-typed': 'as typed' }}
        />
        <Choose
          label="Between words"
          value={rule.separator}
          onChange={(separator) => set({ separator })}
          options={{ '-': 'hyphen', _: 'underscore', '': 'nothing (camel)' }}
        />
        <Text label="Prefix" value={rule.prefix} onChange={(prefix) => set({ prefix })} />
        <Text label="Suffix" value={rule.suffix} onChange={(suffix) => set({ suffix })} />
        <Choose
          label="Accents"
          value={rule.accents}
          onChange={(accents) => set({ accents })}
          options={{ folded: 'folded (é to e)', kept: 'kept' }}
        />
        <Choose
          label="Other scripts"
          value={rule.scripts}
          onChange={(scripts) => set({ scripts })}
          options={{ transliterated: 'in Latin letters', kept: 'kept' }}
        />
        <Text label="Before a leading digit" value={rule.beforeDigit} onChange={(beforeDigit) => set({ beforeDigit })} />
        <Text
          label="Max length"
          value={String(rule.longest)}
          onChange={(t) => set({ longest: Math.min(200, Math.max(4, Math.round(Number(t)) || 4)) })}
          numeric
        />
        <Text
          label="Omitted words"
          value={rule.dropped.join(' ')}
          onChange={(t) =>
            set({
              dropped: t
                .toLowerCase()
                .split(/[\s,]+/)
                .filter(Boolean),
            })
          }
          live={false}
        />
        <label className="flex items-center gap-2 self-end pb-1">
          <input type="checkbox" className="size-4" checked={rule.wraps} onChange={(e) => set({ wraps: e.target.checked })} />
          Host system adds prefix and suffix
        </label>
      </div>
      <fieldset className="mb-2 flex flex-wrap gap-x-4 gap-y-1 text-sm">
        <legend className="mb-1 font-semibold">Give new IDs to</legend>
        {(Object.keys(scopes) as Scope[]).map((s) => (
          <label key={s} className="flex items-center gap-1.5">
            <input type="radio" name="scope" checked={scope === s} disabled={!scopes[s].length} onChange={() => setScope(s)} />
            {{ all: 'all sections', new: 'sections without an ID', chosen: 'chosen sections' }[s]} ({scopes[s].length})
          </label>
        ))}
      </fieldset>
      <div className="mb-3 max-h-52 overflow-auto border-y border-hair" tabIndex={0} aria-label="Before and after" role="region">
        {changes.length === 0 ? (
          <p className="py-2 text-sm text-faint">Already named by the rule.</p>
        ) : (
          <table className="w-full text-left font-mono text-xs">
            <thead className="font-sans">
              <tr>
                <th className="py-1 pr-3 font-semibold">Before</th>
                <th className="py-1 pr-3 font-semibold">{rule.wraps ? 'The page carries' : 'After'}</th>
                {rule.wraps && <th className="py-1 font-semibold">Type this there</th>}
              </tr>
            </thead>
            <tbody>
              {changes.slice(0, 200).map(({ section, id }) => (
                <tr key={section.key} className="border-t border-hair">
                  <td className="py-0.5 pr-3 break-all">{section.id}</td>
                  <td className="py-0.5 pr-3 break-all">{id}</td>
                  {rule.wraps && <td className="py-0.5 break-all">{typedName(id, rule)}</td>}
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </div>
      <div className="flex flex-wrap gap-2">
        <Dialog.Close asChild>
          <Button
            kind="main"
            disabled={!changes.length}
            onClick={() => {
              const renames = renameSections(page.key, changes, 'Give IDs by the rule', known)
              run(stored ? renames : { type: 'batch', label: 'Apply a naming rule', commands: [{ type: 'site/rule', rule }, renames] })
            }}
          >
            Keep the rule and give {changes.length === 1 ? '1 ID' : `${changes.length} IDs`}
          </Button>
        </Dialog.Close>
        <Dialog.Close asChild>
          <Button disabled={stored} onClick={keep}>
            Keep the rule only
          </Button>
        </Dialog.Close>
        <Dialog.Close asChild>
          <Button kind="quiet">Cancel</Button>
        </Dialog.Close>
      </div>
    </>
  )
}

function Labelled({ label, children }: { label: string; children: (id: string) => ReactNode }) {
  const id = useId()
  return (
    <span className="block">
      <label htmlFor={id} className="block text-xs text-faint">
        {label}
      </label>
      {children(id)}
    </span>
  )
}

function Choose<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: T
  options: Record<T, string>
  onChange: (value: T) => void
}) {
  return (
    <Labelled label={label}>
      {(id) => (
        <select
          id={id}
          value={value}
          onChange={(e) => onChange(e.target.value as T)}
          className="min-h-7 w-full rounded-sm border border-hair bg-sheet px-1"
        >
          {(Object.keys(options) as T[]).map((o) => (
            <option key={o} value={o}>
              {options[o]}
            </option>
          ))}
        </select>
      )}
    </Labelled>
  )
}

/** `live` false: taken when the field is left. */
function Text({
  label,
  value,
  onChange,
  numeric = false,
  live = true,
}: {
  label: string
  value: string
  onChange: (value: string) => void
  numeric?: boolean
  live?: boolean
}) {
  const shared = {
    className: 'min-h-7 w-full rounded-sm border border-hair bg-sheet px-2 font-mono text-[13px]',
    type: numeric ? 'number' : 'text',
  }
  return (
    <Labelled label={label}>
      {(id) =>
        live ? (
          <input id={id} {...shared} value={value} maxLength={60} onChange={(e) => onChange(e.target.value)} />
        ) : (
          <input id={id} {...shared} defaultValue={value} onBlur={(e) => onChange(e.target.value)} />
        )
      }
    </Labelled>
  )
}
