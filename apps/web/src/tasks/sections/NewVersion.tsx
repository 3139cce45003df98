/** Bringing in a new version of the page: what became of each section, side by side, and what is not plain to be decided. */
import type { Decisions, Offer, RevisionRow } from '@waybell/core'
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
    // The list goes when the field is emptied.
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
  const [settled, setSettled] = useState<ReadonlySet<string>>(new Set())
  const rows = [...review.rows].sort((a, b) => sortOf(a) - sortOf(b))
  const sections = new Map(page.sections.map((s, i) => [s.key, { ...s, number: i + 1 }]))
  const open = rows.filter((r) => r.doubtful && !settled.has(r.section)).length
  const settle = (key: string) => setSettled(new Set([...settled, key]))
  const count = (state: RevisionRow['state']) => rows.filter((r) => r.state === state).length
  return (
    <Sheet
      title="A new version of the page"
      description={`${count('matched')} sections as they were, ${count('changed')} changed, ${count('moved')} moved, ${count('lost')} lost, ${review.added.length} new. Taking it over is one step that can be undone.`}
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
          void session.revise(page.key, review.source, { sections: chosen, added: [...added] })
        }}
      >
        {open > 0 ? `${open} still to decide` : 'Take the new version over'}
      </Button>
      <Dialog.Close asChild>
        <Button kind="quiet">Keep the present one</Button>
      </Dialog.Close>
    </Sheet>
  )
}
