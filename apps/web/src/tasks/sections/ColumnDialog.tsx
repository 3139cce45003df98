/** Pastes a spreadsheet column into the rows, and copies the rows as a table. */
import { checkId, idContext, renameSections, typedName, wrapName, type Command, type Section } from '@waybell/core'
import { Dialog } from 'radix-ui'
import { useState } from 'react'
import { toast } from 'sonner'
import { Button } from '../../ui/index.tsx'
import { Sheet } from '../../ui/Sheet.tsx'
import { useWork, type Work } from '../../work/context.ts'
import { asTable, fromColumn } from './rows.ts'

type What = 'id' | 'title' | 'typed'

interface Change {
  section: Section
  before: string
  after: string
  problem: string | null
}

/** Changes of a column from a row on; empty lines skip rows. */
function changesOf(work: Work, from: Section, what: What, text: string): Change[] {
  const { page, site } = work
  const start = page.sections.indexOf(from)
  const given = fromColumn(text).slice(0, page.sections.length - start)
  const changes = given.flatMap((value, i): Change[] => {
    const section = page.sections[start + i]!
    const after = what === 'typed' && value ? wrapName(value, site.rule) : what === 'title' ? value : value.replace(/^#/, '')
    const before = what === 'title' ? section.title : section.id
    return after === '' || after === before ? [] : [{ section, before, after, problem: null }]
  })
  if (what === 'title') return changes
  // Checked against the result: a column may swap IDs.
  const next = new Map(changes.map((c) => [c.section.key, c.after]))
  const page2 = {
    ...page,
    sections: page.sections.map((s) => ({
      ...s,
      id: next.get(s.key) ?? s.id,
      former: s.former.filter((f) => ![...next.values()].includes(f)),
    })),
  }
  return changes.map((c) => {
    const problem = checkId(c.after, idContext({ ...work, page: page2 }, c.section))
    return { ...c, problem: problem?.severity === 'error' ? problem.message : null }
  })
}

export function ColumnDialog({ from }: { from: Section }) {
  const { page } = useWork()
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <Button aria-label="Paste a column" title="Paste a column">
          Paste
        </Button>
      </Dialog.Trigger>
      <Sheet
        title="Paste a column"
        description={`One value per line, starting at section ${page.sections.indexOf(from) + 1}, “${from.title}”. Empty lines skip a section.`}
      >
        <Column from={from} />
      </Sheet>
    </Dialog.Root>
  )
}

function Column({ from }: { from: Section }) {
  const work = useWork()
  const { page, site, run, known } = work
  const [text, setText] = useState('')
  const [what, setWhat] = useState<What>('id')
  const changes = changesOf(work, from, what, text)
  const broken = changes.filter((c) => c.problem)
  const apply = () => {
    const command: Command =
      what === 'title'
        ? {
            type: 'batch',
            label: 'Paste titles',
            commands: changes.map(({ section, after }): Command => ({
              type: 'section/title',
              page: page.key,
              section: section.key,
              title: after,
            })),
          }
        : renameSections(
            page.key,
            changes.map(({ section, after }) => ({ section, id: after })),
            'Paste IDs',
            known,
          )
    run(command)
  }
  return (
    <>
      <fieldset className="mb-2 flex gap-4 text-sm">
        <legend className="sr-only">What the column holds</legend>
        {(['id', 'title', ...(site.rule.wraps ? (['typed'] as const) : [])] as const).map((w) => (
          <label key={w} className="flex items-center gap-1.5">
            <input type="radio" name="what" checked={what === w} onChange={() => setWhat(w)} />
            {{ id: 'IDs', title: 'Titles', typed: 'What is typed there' }[w]}
          </label>
        ))}
      </fieldset>
      <textarea
        aria-label="The column"
        rows={7}
        value={text}
        onChange={(e) => setText(e.target.value)}
        className="mb-2 w-full rounded-sm border border-hair bg-paper p-2 font-mono text-xs"
      />
      {changes.length > 0 && (
        <div className="mb-3 max-h-44 overflow-auto border-y border-hair" tabIndex={0} role="region" aria-label="Before and after">
          <table className="w-full text-left text-xs">
            <tbody>
              {changes.map(({ section, before, after, problem }) => (
                <tr key={section.key} className="border-t border-hair first:border-0">
                  <td className="py-0.5 pr-3">{page.sections.indexOf(section) + 1}</td>
                  <td className="py-0.5 pr-3 break-all">{before}</td>
                  <td className="py-0.5 break-all">
                    {after} {problem && <span className="block text-brick">{problem}</span>}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <Dialog.Close asChild>
        <Button kind="main" disabled={!changes.length || broken.length > 0} onClick={apply}>
          Change {changes.length === 1 ? '1 section' : `${changes.length} sections`}
        </Button>
      </Dialog.Close>
      <Dialog.Close asChild>
        <Button kind="quiet">Cancel</Button>
      </Dialog.Close>
    </>
  )
}

export function CopyTable({ sections }: { sections: Section[] }) {
  const { site, page } = useWork()
  const copy = () =>
    navigator.clipboard.writeText(asTable(page, sections, (id) => typedName(id, site.rule), site.address?.url)).then(
      () => toast(sections.length === 1 ? '1 section is on the clipboard.' : `${sections.length} sections are on the clipboard.`),
      () => toast.error('The browser blocked the clipboard. Allow it for this address and try again.'),
    )
  return (
    <Button onClick={() => void copy()} aria-label="Copy as a table" title="Copy the sections as a table">
      Copy
    </Button>
  )
}
