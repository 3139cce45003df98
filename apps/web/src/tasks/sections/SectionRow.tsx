/** A row of the Sections sheet. */
import { mergeWithNext, renameSection, typedName, wrapName, type Section } from '@waybell/core'
import { ChevronDown, ChevronRight, MoreHorizontal } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { memo, type ReactNode } from 'react'
import { toast } from 'sonner'
import { FixButton } from '../../findings/FixButton.tsx'
import { Button, Field, PointMark, tint } from '../../ui/index.tsx'
import { NumberField } from '../../ui/NumberField.tsx'
import { useMeasured, usePointed, useView, useWork } from '../../work/context.ts'
import { removeSections } from './Removing.tsx'
import { addPoint, addSection, idProblem } from './steps.ts'
import { addressesOf, partsBySection, type Row } from './rows.ts'

interface Props {
  row: Row
  isOpen: boolean
  isChosen: boolean
  onToggle: (key: string) => void
  onChoose: (row: Row, on: boolean) => void
  onNest: (section: Section, by: 1 | -1) => void
}

/** Renders only for its own changes. */
export const SectionRow = memo(function SectionRow({ row, ...rest }: Props) {
  if (row.kind === 'part') return <PartRow candidate={row.candidate} depth={row.depth} />
  if (row.kind === 'fold')
    return (
      <div className="border-b border-hair py-1 pl-2">
        <Fold count={row.parts} where="before the first section" isOpen={rest.isOpen} onToggle={() => rest.onToggle(row.key)} />
      </div>
    )
  return <ChosenRow row={row} {...rest} />
})

export function PartRow({ candidate: c, depth }: { candidate: Extract<Row, { kind: 'part' }>['candidate']; depth: number }) {
  const work = useWork()
  return (
    <div className="flex items-center gap-2 border-b border-hair py-0.5 pl-9 text-faint">
      <span className="min-w-0 flex-1 truncate" style={{ paddingLeft: depth * 12 }}>
        {c.title}{' '}
        <span className="font-mono text-xs">
          {c.id === null ? `<${c.tag}>` : '#' + c.id} line {c.line}
        </span>
      </span>
      <Button kind="quiet" tabIndex={-1} aria-label={`Add section ${c.title}`} onClick={() => addSection(work, c)}>
        Add
      </Button>
    </div>
  )
}

interface FoldProps {
  count: number
  where: string
  isOpen: boolean
  onToggle: () => void
  /** In tab order; in the tree, its row opens it by arrow keys. */
  isInOrder?: boolean
}

export function Fold({ count, where, isOpen, onToggle, isInOrder = false }: FoldProps) {
  const Icon = isOpen ? ChevronDown : ChevronRight
  return (
    <button
      type="button"
      tabIndex={isInOrder ? 0 : -1}
      aria-expanded={isOpen}
      onClick={onToggle}
      className="flex min-h-6 items-center gap-0.5 rounded-sm pr-1 text-xs text-faint hover:bg-wash"
    >
      <Icon size={13} aria-hidden /> {count === 1 ? '1 part' : `${count} parts`} {where}
    </button>
  )
}

function ChosenRow({ row, isOpen, isChosen, onToggle, onChoose, onNest }: Props & { row: Extract<Row, { kind: 'section' }> }) {
  const work = useWork()
  const { page, site, run, known } = work
  const { findings } = useMeasured()
  const { point } = useView()
  const { section, index, depth, parts } = row
  const isPointed = usePointed(section.key)
  const rename = (id: string) => {
    if (id !== section.id) run(renameSection(page.key, section, id, known))
  }
  // Problems of the ID are shown under its field.
  const own = section.point ? [] : findings.filter((f) => f.where.at === section.at && !f.code.startsWith('id-'))
  return (
    <div
      data-section-row={section.key}
      onPointerEnter={() => point(section.key)}
      onPointerLeave={() => point(null)}
      className={`flex gap-1 border-b border-hair py-1 pl-2 ${isPointed || isChosen ? 'bg-wash' : ''}`}
      style={{
        boxShadow: `inset 4px 0 ${tint(index)}${own.some((f) => f.severity === 'error') ? ', inset -3px 0 var(--color-brick)' : ''}`,
        marginLeft: depth * 14,
      }}
    >
      <span className="flex w-8 flex-none flex-col items-end gap-1 pt-1">
        <span className="text-sm font-bold">{index + 1}</span>
        <input
          type="checkbox"
          tabIndex={-1}
          className="size-4"
          aria-label={`Choose section ${section.title}`}
          checked={isChosen}
          onChange={(e) => onChoose(row, e.target.checked)}
        />
      </span>
      <span className="min-w-0 flex-1">
        <span data-field="title" className="flex items-center">
          {section.point && <PointMark />}
          <Field
            label={`Title of section ${index + 1}`}
            value={section.title}
            onCommit={(title) => run({ type: 'section/title', page: page.key, section: section.key, title })}
            className="flex-1"
          />
        </span>
        <span data-field="id" className="block">
          {site.rule.wraps && (
            <Field
              label={`What to type for section ${index + 1}`}
              prefix="type"
              mono
              value={typedName(section.id, site.rule) ?? ''}
              placeholder="doesn’t match the rule"
              check={(name) => (name === '' ? null : idProblem(work, section, wrapName(name, site.rule)))}
              onCommit={(name) => rename(wrapName(name, site.rule))}
            />
          )}
          <Field
            label={`ID of section ${index + 1}`}
            prefix="#"
            mono
            value={section.id}
            check={(id) => idProblem(work, section, id)}
            onCommit={rename}
          />
        </span>
        {section.point && (
          <NumberField
            label="Below the element’s top"
            unit="px"
            value={section.point.shift}
            min={-2000}
            max={20000}
            onCommit={(shift) => run({ type: 'section/point', page: page.key, section: section.key, at: section.at, shift })}
          />
        )}
        {section.former.length > 0 && <Former section={section} />}
        {own.map((f, i) => (
          <span key={i} className="block pl-1 text-xs text-brick">
            {f.message} <FixButton fix={f.fix} />
          </span>
        ))}
        {parts > 0 && <Fold count={parts} where="also found here" isOpen={isOpen} onToggle={() => onToggle(row.key)} />}
      </span>
      <More section={section} onNest={onNest} />
    </div>
  )
}

function Former({ section }: { section: Section }) {
  const { page, run } = useWork()
  return (
    <span className="flex flex-wrap items-center gap-1 pl-1 text-xs text-faint">
      before:
      {section.former.map((id) => (
        <button
          key={id}
          type="button"
          title={`Links to #${id} still arrive here; press to forget it`}
          aria-label={`Forget the former ID ${id}`}
          onClick={() =>
            run({
              type: 'section/id',
              page: page.key,
              section: section.key,
              id: section.id,
              former: section.former.filter((f) => f !== id),
            })
          }
          className="min-h-6 rounded-sm border border-hair px-1 font-mono hover:border-faint"
        >
          #{id} <span aria-hidden>×</span>
        </button>
      ))}
    </span>
  )
}

function More({ section, onNest }: { section: Section; onNest: Props['onNest'] }) {
  const work = useWork()
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>
        <Button kind="quiet" className="self-start px-1!" data-more aria-label={`More for section ${section.title}`}>
          <MoreHorizontal size={15} aria-hidden />
        </Button>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" className="z-10 max-h-[70vh] max-w-80 overflow-auto border border-hair bg-sheet py-1">
          {addressesOf(work.page, section, work.site.address?.url ?? null).map((address) => (
            <Choice key={address} onSelect={() => copy(address)}>
              Copy {address}
            </Choice>
          ))}
          <Choice onSelect={() => removeSections(work, [section])}>Remove section {section.title}</Choice>
          <Merge section={section} />
          <Choice onSelect={() => onNest(section, 1)}>Nest in the section before (Alt+Right)</Choice>
          <Choice onSelect={() => onNest(section, -1)}>Lift one level (Alt+Left)</Choice>
          {!section.point && <Choice onSelect={() => addPoint(work, section)}>Put a point before this element</Choice>}
          <Splits section={section} />
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}

const copy = (text: string) =>
  void navigator.clipboard.writeText(text).then(
    () => toast(`${text} is on the clipboard.`),
    () => toast.error('The browser blocked the clipboard. Allow it for this address and try again.'),
  )

/** Computed when the list opens, like splits. */
function Merge({ section }: { section: Section }) {
  const { site, page, run } = useWork()
  const merged = mergeWithNext(site, page, section)
  return merged && <Choice onSelect={() => run(merged)}>Merge with the next section</Choice>
}

/** Where the section can be split; computed when the list opens. */
function Splits({ section }: { section: Section }) {
  const work = useWork()
  const headings = (partsBySection(work.page, work.reading).get(section.key) ?? []).filter((c) => /^h[1-6]$/.test(c.tag))
  return headings.slice(0, 40).map((c) => (
    <Choice key={c.at} onSelect={() => addSection(work, c)}>
      Split at “{c.title}”
    </Choice>
  ))
}

const Choice = ({ onSelect, children }: { onSelect: () => void; children: ReactNode }) => (
  <DropdownMenu.Item onSelect={onSelect} className="cursor-pointer truncate px-3 py-1 text-sm outline-none data-[highlighted]:bg-wash">
    {children}
  </DropdownMenu.Item>
)
