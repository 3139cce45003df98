/** Brings in a new version: sections side by side, and decisions for uncertain ones. */
import { isMade, leadersTo, type Decisions, type Offer, type Otherwise, type RevisionRow, type Section } from '@waybell/core'
import { Dialog } from 'radix-ui'
import { useRef, useState } from 'react'
import { api, type Review } from '../../api.ts'
import { filesFromPicker } from '../../sites/files.ts'
import { TransferState, useTransfer } from '../../sites/Transfer.tsx'
import { Button } from '../../ui/index.tsx'
import { Sheet } from '../../ui/Sheet.tsx'
import { useWork } from '../../work/context.ts'

const words: Record<RevisionRow['state'], string> = { matched: 'as it was', changed: 'changed', moved: 'moved', lost: 'lost' }
const order = { lost: 1, moved: 2, changed: 3, matched: 4 }
const sortOf = (row: RevisionRow) => (row.doubtful ? 0 : order[row.state])
const nameOf = (f: Offer) => `${f.title} (${f.id === null ? f.tag : '#' + f.id}, line ${f.line})`

export function NewVersion() {
  const { siteKey, page } = useWork()
  const picker = useRef<HTMLInputElement>(null)
  const [review, setReview] = useState<Review | null>(null)
  const transfer = useTransfer()
  const read = async (files: FileList) => {
    // The list is emptied with the field.
    const given = filesFromPicker(files)
    setReview((await transfer.run((tell, signal) => api.review(siteKey, page.key, given, tell, signal))) ?? null)
  }
  return (
    <>
      <input
        ref={picker}
        type="file"
        accept=".html,.htm,.xhtml"
        hidden
        data-testid="new-version"
        onChange={(e) => {
          if (e.target.files?.length) void read(e.target.files)
          e.target.value = ''
        }}
      />
      <Button onClick={() => picker.current?.click()} disabled={transfer.isRunning}>
        Bring in a new version
      </Button>
      <TransferState transfer={transfer} />
      <Dialog.Root open={review !== null} onOpenChange={(open) => !open && setReview(null)}>
        {review && <Compared review={review} close={() => setReview(null)} />}
      </Dialog.Root>
    </>
  )
}

function Compared({ review, close }: { review: Review; close: () => void }) {
  const { page, session } = useWork()
  const [chosen, setChosen] = useState<Decisions['sections']>(() =>
    Object.fromEntries(review.rows.map((r) => [r.section, r.to?.at ?? null])),
  )
  const [added, setAdded] = useState<ReadonlySet<number>>(() => new Set(review.added.map((f) => f.at)))
  const [otherwise, setOtherwise] = useState<Record<string, Otherwise>>({})
  const [settled, setSettled] = useState<ReadonlySet<string>>(new Set())
  const rows = [...review.rows].sort((a, b) => sortOf(a) - sortOf(b))
  const sections = new Map(page.sections.map((s, i) => [s.key, { ...s, number: i + 1 }]))
  const growing = page.menus.filter((m) => isMade(m) && !m.syncedWith && m.grows !== false)
  // Drops choices for sections that stay, and ways to sections that go.
  const led = Object.fromEntries(
    Object.entries(otherwise).filter(([key, to]) => chosen[key] === null && (typeof to === 'string' || chosen[to.section] !== null)),
  )
  const open = rows.filter((r) => r.doubtful && !settled.has(r.section)).length
  const settle = (key: string) => setSettled(new Set([...settled, key]))
  const count = (state: RevisionRow['state']) => rows.filter((r) => r.state === state).length
  return (
    <Sheet
      title="New page version"
      description={`${count('matched')} sections as they were, ${count('changed')} changed, ${count('moved')} moved, ${count('lost')} lost, ${review.added.length} new. You can undo taking it over.`}
      wide
    >
      <div className="mb-3 max-h-[56vh] overflow-auto border-y border-hair" tabIndex={0} role="region" aria-label="Sections before and now">
        <table className="w-full text-left text-sm">
          <thead>
            <tr>
              <th className="py-1 pr-3 font-semibold">Before</th>
              <th className="py-1 pr-3 font-semibold">In the new version</th>
              <th className="py-1 font-semibold">State</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => {
              const section = sections.get(row.section)!
              const isOpen = row.doubtful && !settled.has(row.section)
              return (
                <tr key={row.section} className={`border-t border-hair align-top ${isOpen ? 'bg-wash' : ''}`}>
                  <td className="py-1.5 pr-3">
                    <b>{section.number}</b> {section.title} <code className="font-mono text-xs text-faint">#{section.id}</code>
                  </td>
                  <td className="py-1.5 pr-3">
                    <select
                      aria-label={`What ${section.title} is now`}
                      value={chosen[row.section] ?? ''}
                      onChange={(e) => {
                        setChosen({ ...chosen, [row.section]: e.target.value === '' ? null : Number(e.target.value) })
                        settle(row.section)
                      }}
                      className="min-h-7 w-full max-w-96 rounded-sm border border-hair bg-sheet px-1"
                    >
                      <option value="">nothing: remove it</option>
                      {review.choices.map((f) => (
                        <option key={f.at} value={f.at}>
                          {nameOf(f)}
                        </option>
                      ))}
                    </select>
                    {chosen[row.section] === null && (
                      <Leaders
                        section={section}
                        left={page.sections.filter((s) => chosen[s.key] !== null)}
                        value={otherwise[row.section] ?? 'as-is'}
                        onChange={(to) => setOtherwise({ ...otherwise, [row.section]: to })}
                      />
                    )}
                  </td>
                  <td className="py-1.5">
                    {isOpen ? (
                      <span className="flex items-center gap-2">
                        <span className="text-brick">not sure</span>
                        <Button onClick={() => settle(row.section)} aria-label={`${section.title} is the same`}>
                          It is the same
                        </Button>
                      </span>
                    ) : (
                      <span className={row.state === 'lost' ? 'text-brick' : 'text-faint'}>{words[row.state]}</span>
                    )}
                  </td>
                </tr>
              )
            })}
            {review.added.map((f) => (
              <tr key={f.at} className="border-t border-hair">
                <td className="py-1.5 pr-3 text-faint">–</td>
                <td className="py-1.5 pr-3">
                  <label className="flex items-center gap-2">
                    <input
                      type="checkbox"
                      className="size-4"
                      checked={added.has(f.at)}
                      onChange={(e) => setAdded(new Set(e.target.checked ? [...added, f.at] : [...added].filter((at) => at !== f.at)))}
                    />
                    {nameOf(f)}
                  </label>
                  {added.has(f.at) && growing.length > 0 && (
                    <span className="block pl-6 text-xs text-faint">with an item in {growing.map((m) => `“${m.name}”`).join(' and ')}</span>
                  )}
                </td>
                <td className="py-1.5 text-teal">new</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Button
        kind="main"
        disabled={open > 0}
        onClick={() => {
          close()
          session.revise(page.key, review.source, { sections: chosen, added: [...added], otherwise: led })
        }}
      >
        {open > 0 ? `${open} still to decide` : 'Take the new version over'}
      </Button>
      <Dialog.Close asChild>
        <Button kind="quiet">Keep the current version</Button>
      </Dialog.Close>
    </Sheet>
  )
}

/** Links to a section that goes, and what happens to them. */
function Leaders({
  section,
  left,
  value,
  onChange,
}: {
  section: Section
  left: readonly Section[]
  value: Otherwise
  onChange: (to: Otherwise) => void
}) {
  const { site, page } = useWork()
  const leaders = leadersTo(site, page, [section])
  if (!leaders.length) return null
  const names = leaders.map(({ from, label }) => `${label === null ? 'a link' : `“${label}”`}${from === page ? '' : ` on ${from.file}`}`)
  return (
    <label className="mt-1 block text-xs">
      <span className="block text-faint">
        {leaders.length === 1 ? '1 link leads' : `${leaders.length} links lead`} there: {names.slice(0, 4).join(', ')}
        {names.length > 4 && ` and ${names.length - 4} more`}
      </span>
      <select
        aria-label={`Links to ${section.title}`}
        value={typeof value === 'string' ? value : `s ${value.section}`}
        onChange={(e) => onChange(e.target.value.startsWith('s ') ? { section: e.target.value.slice(2) } : (e.target.value as Otherwise))}
        className="min-h-7 w-full max-w-96 rounded-sm border border-hair bg-sheet px-1 text-sm"
      >
        <option value="as-is">keep the page’s own links, remove others</option>
        <option value="out">remove all from their menus</option>
        <option value="top">lead to the page’s top</option>
        {left.map((s) => (
          <option key={s.key} value={`s ${s.key}`}>
            lead to {page.sections.indexOf(s) + 1} {s.title}
          </option>
        ))}
      </select>
    </label>
  )
}
