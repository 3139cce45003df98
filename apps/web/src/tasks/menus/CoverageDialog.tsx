/** Coverage: which section is reached from where, as a table with links to rows, and as a file. */
import { csvFormatRows } from 'd3-dsv'
import { useQuery } from '@tanstack/react-query'
import { coverage, foldedOn, hiddenOn, unreached, type Coverage, type Leader, type Section } from '@waybell/core'
import { Dialog } from 'radix-ui'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api } from '../../api.ts'
import { Button } from '../../ui/index.tsx'
import { save } from '../../ui/save.ts'
import { Sheet } from '../../ui/Sheet.tsx'
import { useMeasured, useWork } from '../../work/context.ts'
import { goToRow, type Row } from './goToRow.ts'

export function CoverageDialog() {
  const [isOpen, setOpen] = useState(false)
  return (
    <Dialog.Root open={isOpen} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button>Coverage</Button>
      </Dialog.Trigger>
      <Sheet title="Coverage" description="Number of links to each section, from all pages of the site." wide>
        {isOpen && <Matrix close={() => setOpen(false)} />}
      </Sheet>
    </Dialog.Root>
  )
}

const TOP = 'Top of the page'

const titles = (sections: readonly Section[]): string =>
  sections
    .slice(0, 6)
    .map((s) => s.title)
    .join(', ') + (sections.length > 6 ? ` and ${sections.length - 6} more` : '')

/** Spreadsheets would read it as a formula. */
const cell = (text: string) => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text)

const asCsv = ({ columns, rows, nowhere }: Coverage): string =>
  csvFormatRows(
    [
      ['number', 'section', 'ID', ...columns.map((c) => c.name), 'all'],
      ...rows.map(({ section, leaders }, n) => [
        n ? String(n) : '',
        section?.title ?? TOP,
        section?.id ?? '',
        ...leaders.map((l) => String(l.length)),
        String(leaders.flat().length),
      ]),
      ['', 'leads nowhere', '', ...nowhere.map((l) => String(l.length)), String(nowhere.flat().length)],
    ].map((row) => row.map(cell)),
  )

function Matrix({ close }: { close: () => void }) {
  const { siteKey, site, page, reading } = useWork()
  const { surveys } = useMeasured()
  const navigate = useNavigate()
  const isOnly = site.pages.length === 1
  const from = useQuery({
    queryKey: ['leaders', siteKey, page.key],
    queryFn: () => api.leaders(siteKey, page.key),
    enabled: !isOnly,
    staleTime: 0,
    gcTime: 0,
  })
  const seen = coverage(site, page, reading, from.data)
  const { columns, rows, nowhere } = seen
  const alone = unreached(seen)
  const lost = nowhere.flat().length
  // Screens without some items may have more.
  const besides = site.screens.flatMap((screen) => {
    const hidden = hiddenOn(page, screen)
    const more = unreached(seen, hidden).filter((s) => !alone.includes(s))
    const survey = surveys[screen.key]
    const folded = survey ? foldedOn(page, survey) : []
    for (const { items } of folded) for (const { key } of items) hidden.add(key)
    const opened = unreached(seen, hidden).filter((s) => !alone.includes(s) && !more.includes(s))
    return [
      ...(more.length ? [`On “${screen.name}” nothing leads to ${titles(more)}.`] : []),
      ...(opened.length
        ? [
            `On “${screen.name}” only ${folded.map((m) => `“${m.name}”`).join(' and ')}, which is closed at first, leads to ${titles(opened)}.`,
          ]
        : []),
    ]
  })
  const go = (n: number, [first]: Leader[]) => {
    close()
    const there = columns[n]!.page
    const row: Row = first!.item === null ? { link: first!.at! } : { item: first!.item }
    if (there) return void navigate(`/site/${siteKey}/${there.key}/menus`, { state: { row } })
    goToRow(row)
  }
  const download = () => save(new Blob([asCsv(seen)], { type: 'text/csv' }), `coverage ${page.file.replace(/\//g, ' ')}.csv`)
  const count = (leaders: Leader[], n: number, name: string, isWrong: boolean) => (
    <td key={columns[n]!.key} className="border-b border-hair px-2 text-right tabular-nums">
      {leaders.length > 0 && (
        <button
          type="button"
          title={leaders.map((l) => l.label || 'a link without words').join(', ')}
          aria-label={`${leaders.length} from ${columns[n]!.name} to ${name}: go to ${leaders.length === 1 ? 'it' : 'the first'}`}
          onClick={() => go(n, leaders)}
          className={`min-h-6 min-w-6 rounded-sm border border-transparent hover:border-faint ${isWrong ? 'font-bold text-brick' : ''}`}
        >
          {leaders.length}
        </button>
      )}
    </td>
  )
  return (
    <>
      <p className="mb-2 flex items-center gap-2 text-sm">
        {from.isError && (
          <span role="alert" className="text-brick">
            Links from other pages aren’t counted: {from.error.message}
          </span>
        )}
        {from.isLoading && <span role="status">Reading the other pages…</span>}
        <span className={`flex-1 ${from.isLoading ? 'invisible' : ''}`}>
          {alone.length === 0
            ? `Every section is linked${lost ? `, but ${lost === 1 ? '1 item leads' : `${lost} items lead`} nowhere` : ''}.`
            : `${alone.length === 1 ? '1 section is' : `${alone.length} sections are`} not linked from anywhere: ${titles(alone)}.`}{' '}
          {besides.join(' ')}
        </span>
        <Button disabled={!isOnly && !from.data} onClick={download}>
          Download as CSV
        </Button>
      </p>
      <div className="max-h-[62vh] overflow-auto" tabIndex={0} role="group" aria-label="Links by section and menu">
        <table className="w-full text-sm">
          <thead>
            <tr className="sticky top-0 bg-sheet text-left">
              <th scope="col" className="border-b border-ink px-2 py-1">
                Section
              </th>
              {columns.map((c) => (
                <th key={c.key} scope="col" className="max-w-40 border-b border-ink px-2 py-1 text-right break-words">
                  {c.name}
                </th>
              ))}
              <th scope="col" className="border-b border-ink px-2 py-1 text-right">
                All
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ section, leaders }, n) => {
              const all = leaders.flat().length
              const name = section?.title ?? TOP
              return (
                <tr key={section?.key ?? ''}>
                  <th scope="row" className="border-b border-hair px-2 py-0.5 text-left font-normal">
                    {n > 0 && <span className="mr-1.5 font-semibold">{n}</span>}
                    {name}
                  </th>
                  {leaders.map((l, i) => count(l, i, name, false))}
                  <td className={`border-b border-hair px-2 text-right tabular-nums ${section && all === 0 ? 'font-bold text-brick' : ''}`}>
                    {section && all === 0 ? 'nowhere' : all}
                  </td>
                </tr>
              )
            })}
            {nowhere.some((l) => l.length) && (
              <tr>
                <th scope="row" className="px-2 py-0.5 text-left font-normal text-brick">
                  Leads nowhere
                </th>
                {nowhere.map((l, i) => count(l, i, 'nothing', true))}
                <td className="px-2 text-right tabular-nums">{nowhere.flat().length}</td>
              </tr>
            )}
          </tbody>
        </table>
      </div>
    </>
  )
}
