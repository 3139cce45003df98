/** Sections and IDs: the sheet, its tools, and other candidates. */
import { builtOf, filesBeside, leftAsItIs, looksOf, nestSection, proposeSetUp, type Section } from '@waybell/core'
import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react'
import { useLocation } from 'react-router'
import { Button, tint } from '../../ui/index.tsx'
import { List, type ListHandle } from '../../ui/List.tsx'
import { useMeasured, useView, useWork } from '../../work/context.ts'
import { setUpAllPages, setUpEverything, untouched } from './steps.ts'
import { Missing } from './Missing.tsx'
import { NewVersion } from './NewVersion.tsx'
import { NamingDialog } from './NamingDialog.tsx'
import { ColumnDialog, CopyTable } from './ColumnDialog.tsx'
import { PickButton, PickPanel } from './Pick.tsx'
import { Removing, removeSections } from './Removing.tsx'
import { buildRows, type Filter, type Row, type Sort } from './rows.ts'
import { Fold, PartRow, SectionRow } from './SectionRow.tsx'

/** Opens a row's “…” menu. */
function openMore(row: Element): void {
  const more = row.querySelector<HTMLElement>('[data-more]')
  more?.focus()
  more?.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', bubbles: true }))
}

export function SectionsTask() {
  const work = useWork()
  const measuredNow = useMeasured()
  const { surveys, findings } = measuredNow
  const { isStopped } = useView()
  const { page, reading, site, missing } = work
  // Headings by look are known after the first measurement.
  const isReadWhole = !reading.lacksHeadings || reading.isByLook || !looksOf(Object.values(surveys)).length
  const measured = isReadWhole && site.screens.every((s) => surveys[s.key])
  const faulty = useMemo(() => new Set(findings.flatMap((f) => f.where.at ?? [])), [findings])
  const isEmpty = page.sections.length === 0
  // The sheet renders after the press, so that the press responds at once.
  const isNew = useDeferredValue(isEmpty) || isEmpty
  const offered = reading.candidates.filter((c) => c.offered).length
  const title = useRef<HTMLHeadingElement>(null)
  const isBroughtIn = (useLocation().state as { isNew?: boolean } | null)?.isNew === true
  // After bringing a page in, the focus is here.
  useEffect(() => {
    if (isBroughtIn) title.current?.focus()
  }, [isBroughtIn])
  const [isPressed, setPressed] = useState(false)
  const others = untouched(work).length
  return (
    <div className="flex h-full min-h-0 flex-col">
      <div className="mb-2">
        <div className="flex flex-wrap items-start gap-x-2">
          <h1 ref={title} tabIndex={-1} className="min-w-0 flex-1 text-lg font-bold wrap-anywhere">
            {page.title || page.file}
          </h1>
          {!isNew && <NewVersion />}
        </div>
        <p className="text-sm text-faint">
          {page.file}, {(reading.bytes / 1024).toFixed(0)} kB, {reading.encoding}
          {reading.headerLine !== null && `, header on line ${reading.headerLine}`}
          {reading.footerLine !== null && `, footer on line ${reading.footerLine}`}.
        </p>
        {isNew && offered === 0 ? (
          <p className="mt-3 border-l-4 border-brass bg-wash p-3">
            {reading.candidates.length
              ? 'No part of this page looks like a section by itself. Add those that are to be sections from the list below.'
              : 'This file contains no sections. If scripts build them, save the page from a browser and bring that in.'}
          </p>
        ) : (
          isNew && (
            <div className="mt-3 border-l-4 border-teal bg-wash p-3">
              <p className="mb-2">One press sets IDs, the header menu, offsets and marking. You can change everything later.</p>
              <Button
                kind="main"
                disabled={!measured}
                onClick={() => {
                  setPressed(true)
                  setUpEverything(work, measuredNow)
                }}
              >
                {measured ? 'Set everything up' : isStopped ? 'The page is stopped' : 'Measuring the page…'}
              </Button>
              {measured && others > 0 && (
                <Button
                  title="Other pages are measured once opened"
                  className="ml-2"
                  onClick={() => {
                    setPressed(true)
                    void setUpAllPages(work, measuredNow)
                  }}
                >
                  Set up all {others + 1} pages
                </Button>
              )}
            </div>
          )
        )}
      </div>
      {!isNew && leftAsItIs(page) && <p className="mb-2 border-l-4 border-teal bg-wash p-2 text-sm">{leftAsItIs(page)}</p>}
      {missing.length > 0 && <Missing />}
      <PickPanel />
      {isNew ? <Before measured={measured} /> : <Sheet faulty={faulty} measured={measured} takesFocus={isPressed} />}
      <BuiltHeadings />
      <Removing />
    </div>
  )
}

/** The sections that the press would make, with other candidates folded away. */
function Before({ measured }: { measured: boolean }) {
  const work = useWork()
  const { surveys } = useMeasured()
  const { page, reading, site } = work
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set())
  const setUp = useMemo(
    () => proposeSetUp(reading, measured ? Object.values(surveys) : [], site.rule, filesBeside(site, page)),
    [reading, measured, surveys, site, page],
  )
  const rows = useMemo(
    () => buildRows({ page: { ...page, ...setUp }, reading, query: '', filter: 'all', sort: 'page', open, faulty: NONE }),
    [page, setUp, reading, open],
  )
  const toggle = (key: string) => setOpen((now) => new Set(now.has(key) ? [...now].filter((k) => k !== key) : [...now, key]))
  return (
    <List count={rows.length} estimate={40} label="Parts found">
      {(i) => {
        const row = rows[i]!
        if (row.kind === 'part') return <PartRow candidate={row.candidate} depth={row.depth} />
        const fold = (where: string) => (
          <Fold count={row.parts} where={where} isOpen={open.has(row.key)} onToggle={() => toggle(row.key)} isInOrder />
        )
        if (row.kind === 'fold') return <div className="border-b border-hair py-1 pl-2">{fold('before the first section')}</div>
        return (
          <div
            className="flex gap-2 border-b border-hair py-1.5 pl-3"
            style={{ boxShadow: `inset 4px 0 ${tint(row.index)}`, marginLeft: row.depth * 14 }}
          >
            <span className="w-6 flex-none text-right font-bold">{row.index + 1}</span>
            <span className="min-w-0 flex-1">
              <span className="block wrap-anywhere">{row.section.title}</span>
              <span className="block font-mono text-xs wrap-anywhere text-faint">
                #{row.section.id}
                {row.section.sourceId === null && ' (new)'}
              </span>
              {row.parts > 0 && fold('also found here')}
            </span>
          </div>
        )
      }}
    </List>
  )
}

const NONE: ReadonlySet<number> = new Set()

/** Script-built headings, which can't be edited. */
function BuiltHeadings() {
  const { surveys } = useMeasured()
  const { headings } = builtOf(Object.values(surveys))
  if (!headings.length) return null
  return (
    <details className="border-t border-hair py-1 text-sm text-faint">
      <summary className="cursor-pointer">
        {headings.length === 1 ? '1 heading' : `${headings.length} headings`} built by page scripts, not in the file
      </summary>
      <ul className="pl-4">
        {headings.map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
    </details>
  )
}

function Sheet({ faulty, measured, takesFocus }: { faulty: ReadonlySet<number>; measured: boolean; takesFocus: boolean }) {
  const work = useWork()
  const measuredNow = useMeasured()
  const { setCurrent } = useView()
  const { page, reading, run } = work
  const [query, setQuery] = useState('')
  const [filter, setFilter] = useState<Filter>('all')
  const [sort, setSort] = useState<Sort>('page')
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set())
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const [active, setActive] = useState(0)
  const anchor = useRef(0)
  const list = useRef<ListHandle>(null)
  // Typing shows at once, results after it.
  const wanted = useDeferredValue(query)
  const rows = useMemo(
    () => buildRows({ page, reading, query: wanted, filter, sort, open, faulty }),
    [page, reading, wanted, filter, sort, open, faulty],
  )
  const sections = page.sections.filter((s) => chosen.has(s.key))
  const at = Math.min(active, Math.max(0, rows.length - 1))

  // After the press the focus is on its result.
  useEffect(() => {
    if (takesFocus) list.current?.focus(0)
  }, [takesFocus])
  // Removed rows are no longer chosen.
  useEffect(() => setChosen((now) => new Set([...now].filter((key) => page.sections.some((s) => s.key === key)))), [page.sections])

  const toggle = useCallback(
    (key: string) => setOpen((now) => new Set(now.has(key) ? [...now].filter((k) => k !== key) : [...now, key])),
    [],
  )
  const choose = useCallback(
    (row: Row, on: boolean) =>
      setChosen((now) => (row.kind !== 'section' ? now : new Set(on ? [...now, row.key] : [...now].filter((k) => k !== row.key)))),
    [],
  )
  const range = (from: number, to: number) =>
    setChosen(new Set(rows.slice(Math.min(from, to), Math.max(from, to) + 1).flatMap((r) => (r.kind === 'section' ? r.key : []))))
  const go = (to: number, extend: boolean) => {
    const next = Math.min(Math.max(0, to), rows.length - 1)
    if (extend) range(anchor.current, next)
    else anchor.current = next
    setActive(next)
    list.current?.focus(next)
  }
  const nest = useCallback(
    (section: Section, by: 1 | -1) => {
      const command = nestSection(page, section, by)
      if (command) run(command)
    },
    [page, run],
  )
  const onKey = (event: KeyboardEvent, index: number) => {
    const row = rows[index]
    if (!row || event.target !== event.currentTarget) {
      // Escape leaves a field for its row.
      if (event.key === 'Escape') list.current?.focus(index)
      return
    }
    const act = {
      ArrowDown: () => !event.altKey && go(index + 1, event.shiftKey),
      ArrowUp: () => !event.altKey && go(index - 1, event.shiftKey),
      Home: () => go(0, event.shiftKey),
      End: () => go(rows.length - 1, event.shiftKey),
      ArrowRight: () =>
        row.kind === 'section' && event.altKey
          ? nest(row.section, 1)
          : row.kind !== 'part' && row.parts && !open.has(row.key) && toggle(row.key),
      ArrowLeft: () => (row.kind === 'section' && event.altKey ? nest(row.section, -1) : open.has(row.key) && toggle(row.key)),
      ' ': () => {
        anchor.current = index
        choose(row, !chosen.has(row.key))
      },
      F2: () => event.currentTarget.querySelector<HTMLInputElement>('[data-field="id"] input')?.select(),
      Enter: () => event.currentTarget.querySelector<HTMLInputElement>('[data-field="title"] input')?.select(),
      Delete: () => {
        if (row.kind !== 'section') return
        // The focus moves to the row in its place.
        removeSections(work, chosen.has(row.key) ? sections : [row.section], () =>
          setTimeout(() => list.current?.focus(Math.max(0, Math.min(index, list.current.count - 1)))),
        )
      },
      ContextMenu: () => openMore(event.currentTarget),
      F10: () => event.shiftKey && openMore(event.currentTarget),
      a: () => (event.ctrlKey || event.metaKey) && range(0, rows.length - 1),
    }[event.key]
    if (!act) return
    event.preventDefault()
    act()
  }
  return (
    <>
      <div className="mb-1 flex flex-wrap items-center gap-1.5">
        <input
          type="search"
          aria-label="Find a section"
          placeholder="Find"
          value={query}
          onChange={(e) => setQuery(e.target.value)}
          className="min-h-7 w-24 flex-1 rounded-sm border border-hair bg-sheet px-2"
        />
        <select
          aria-label="Show"
          value={filter}
          onChange={(e) => setFilter(e.target.value as Filter)}
          className="min-h-7 rounded-sm border border-hair bg-sheet px-1"
        >
          <option value="all">All</option>
          <option value="sections">Sections</option>
          <option value="parts">Also found</option>
          <option value="findings">With findings</option>
        </select>
        <select
          aria-label="Sort"
          value={sort}
          onChange={(e) => setSort(e.target.value as Sort)}
          className="min-h-7 rounded-sm border border-hair bg-sheet px-1"
        >
          <option value="page">Page order</option>
          <option value="title">By title</option>
          <option value="id">By ID</option>
        </select>
      </div>
      <div className="flex flex-wrap items-center gap-1.5">
        <PickButton />
        <NamingDialog chosen={sections} />
        <ColumnDialog from={sections[0] ?? page.sections[0]!} />
        <CopyTable sections={sections.length ? sections : page.sections} />
      </div>
      <p className="flex min-h-6 items-center gap-2 border-b border-hair text-xs text-faint" role="status">
        {sections.length ? `${sections.length} of ${page.sections.length} sections chosen` : `${page.sections.length} sections`}
        {sections.length > 0 && (
          <>
            <Button kind="quiet" onClick={() => removeSections(work, sections)}>
              Remove {sections.length === 1 ? 'it' : 'them'}
            </Button>
            <Button kind="quiet" onClick={() => setChosen(new Set())}>
              Choose none
            </Button>
          </>
        )}
        <span className="flex-1" />
        <Button
          kind="quiet"
          disabled={!measured}
          onClick={() => setUpEverything(work, measuredNow)}
          title="Starts over; your changes are lost, but you can undo it"
        >
          Set everything up again
        </Button>
      </p>
      {rows.length === 0 && <p className="py-3 text-sm text-faint">No match.</p>}
      <List ref={list} count={rows.length} estimate={60} label="Sections" role="tree" grows keyOf={(i) => rows[i]!.key}>
        {(i) => {
          const row = rows[i]!
          return (
            <div
              role="treeitem"
              aria-level={row.depth + 1}
              aria-selected={row.kind === 'section' ? chosen.has(row.key) : undefined}
              aria-expanded={row.kind !== 'part' && row.parts ? open.has(row.key) : undefined}
              aria-label={
                row.kind === 'section'
                  ? `${row.index + 1} ${row.section.title}`
                  : row.kind === 'part'
                    ? `also found: ${row.candidate.title}`
                    : `${row.parts} parts before the first section`
              }
              data-row={i}
              tabIndex={i === at ? 0 : -1}
              onFocus={() => {
                setActive(i)
                if (row.kind === 'section') setCurrent(row.key)
              }}
              onKeyDown={(e) => onKey(e, i)}
            >
              <SectionRow
                row={row}
                isOpen={open.has(row.key)}
                isChosen={chosen.has(row.key)}
                onToggle={toggle}
                onChoose={choose}
                onNest={nest}
              />
            </div>
          )
        }}
      </List>
    </>
  )
}
