/** Sections and their IDs. */
import { useVirtualizer } from '@tanstack/react-virtual'
import { useRef } from 'react'
import { useQueryClient } from '@tanstack/react-query'
import { X } from 'lucide-react'
import { api } from '../api.ts'
import { filesFromPicker } from '../sites/files.ts'
import { Button, Field, Heading, tint } from '../ui/index.tsx'
import { useWork } from '../workspace/work.ts'
import { addSection, dropSection, idProblem, setUpEverything } from './edits.ts'

export function SectionsTask() {
  const work = useWork()
  const { page, reading, site, surveys, run, pointed, point, missing } = work
  const measured = site.screens.every((s) => surveys[s.key])
  const chosen = new Set(page.sections.map((s) => s.at))
  const also = reading.candidates.filter((c) => !chosen.has(c.at))
  const isNew = page.sections.length === 0
  return (
    <>
      <div className="mb-3">
        <h1 className="text-lg font-bold">{page.title || page.file}</h1>
        <p className="text-sm text-faint">
          {page.file}, {(reading.bytes / 1024).toFixed(0)} kB, {reading.encoding}. {reading.candidates.filter((c) => c.offered).length} parts found.
        </p>
        {isNew && !reading.candidates.some((c) => c.offered) ? (
          <p className="mt-3 border-l-4 border-brass bg-wash p-3">No part of this page looks like a section by itself. Add those that are to be sections from the list below.</p>
        ) : isNew ? (
          <div className="mt-3 border-l-4 border-teal bg-wash p-3">
            <p className="mb-2">One press gives every section an ID, makes or completes the header menu, and sets header, offsets and marking from what was measured. Everything can be changed afterwards.</p>
            <Button kind="main" disabled={!measured} onClick={() => setUpEverything(work)}>
              {measured ? 'Set everything up' : 'Measuring the page…'}
            </Button>
          </div>
        ) : (
          <Button className="mt-2" disabled={!measured} onClick={() => setUpEverything(work)}>
            Set everything up again
          </Button>
        )}
      </div>
      {missing.length > 0 && <Missing />}
      {!isNew && (
        <>
          <Heading aside={<span className="text-xs text-faint">{page.sections.length}</span>}>Sections</Heading>
          <Rows count={page.sections.length} estimate={56} label="Sections">
            {(i) => {
              const section = page.sections[i]!
              return (
                <div
                  data-section-row={section.key}
                  onPointerEnter={() => point(section.key)}
                  onPointerLeave={() => point(null)}
                  className={`flex gap-2 border-b border-hair py-1 pl-2 ${pointed === section.key ? 'bg-wash' : ''}`}
                  style={{ boxShadow: `inset 4px 0 ${tint(i)}` }}
                >
                  <span className="w-6 flex-none pt-1 text-right text-sm font-bold">{i + 1}</span>
                  <span className="min-w-0 flex-1">
                    <Field label={`Title of section ${i + 1}`} value={section.title} onCommit={(title) => run({ type: 'section/title', page: page.key, section: section.key, title })} />
                    <Field
                      label={`ID of section ${i + 1}`}
                      prefix="#"
                      mono
                      value={section.id}
                      check={(id) => idProblem(work, section, id)}
                      onCommit={(id) => {
                        if (idProblem(work, section, id) === null) run({ type: 'section/id', page: page.key, section: section.key, id })
                      }}
                    />
                  </span>
                  <Button kind="quiet" aria-label={`Drop section ${section.title}`} title="Drop this section" onClick={() => dropSection(work, section)}>
                    <X size={14} aria-hidden />
                  </Button>
                </div>
              )
            }}
          </Rows>
        </>
      )}
      <Heading aside={<span className="text-xs text-faint">{also.length}</span>}>{isNew ? 'Parts found' : 'Also found'}</Heading>
      {also.length === 0 && <p className="text-sm text-faint">Every part of the page that could be a section is one.</p>}
      <Rows count={also.length} estimate={36} label={isNew ? 'Parts found' : 'Also found'}>
        {(i) => {
          const c = also[i]!
          return (
            <div className={`flex items-center gap-2 border-b border-hair py-1 ${isNew && !c.offered ? 'text-faint' : ''}`}>
              <span className="min-w-0 flex-1 truncate" style={{ paddingLeft: c.depth * 12 }}>
                {c.title} <span className="font-mono text-xs text-faint">{c.id === null ? `<${c.tag}>` : '#' + c.id} line {c.line}</span>
              </span>
              <Button kind="quiet" aria-label={`Add section ${c.title}`} onClick={() => addSection(work, c)}>
                Add
              </Button>
            </div>
          )
        }}
      </Rows>
    </>
  )
}

/** Only the rows in view are made, once there are many. */
function Rows({ count, estimate, label, children }: { count: number; estimate: number; label: string; children: (index: number) => React.ReactNode }) {
  const list = useRef<HTMLDivElement>(null)
  const many = count > 60
  const rows = useVirtualizer({ count, getScrollElement: () => list.current, estimateSize: () => estimate, overscan: 8, enabled: many })
  if (!many)
    return (
      <div role="list" aria-label={label}>
        {Array.from({ length: count }, (_, i) => (
          <div role="listitem" key={i}>
            {children(i)}
          </div>
        ))}
      </div>
    )
  return (
    <div ref={list} className="max-h-[60vh] overflow-auto" tabIndex={0} aria-label={label} role="list">
      <div style={{ height: rows.getTotalSize(), position: 'relative' }}>
        {rows.getVirtualItems().map((row) => (
          <div role="listitem" key={row.key} ref={rows.measureElement} data-index={row.index} className="absolute inset-x-0 top-0" style={{ transform: `translateY(${row.start}px)` }}>
            {children(row.index)}
          </div>
        ))}
      </div>
    </div>
  )
}

function Missing() {
  const { missing, siteKey, page } = useWork()
  const picker = useRef<HTMLInputElement>(null)
  const client = useQueryClient()
  return (
    <div className="mb-3 border-l-4 border-brick bg-wash p-3">
      <p className="font-semibold">{missing.length === 1 ? 'A file that the page needs is missing' : `${missing.length} files that the page needs are missing`}</p>
      <ul className="my-1 max-h-28 overflow-auto font-mono text-xs">
        {missing.map((path) => (
          <li key={path}>{path}</li>
        ))}
      </ul>
      <input
        ref={picker}
        type="file"
        multiple
        hidden
        data-testid="missing-files"
        onChange={(e) => {
          if (!e.target.files) return
          void api.addFiles(siteKey, page.key, filesFromPicker(e.target.files)).then(async () => {
            await client.invalidateQueries({ queryKey: ['page', siteKey, page.key] })
            // The live page has to load them.
            location.reload()
          })
        }}
      />
      <Button onClick={() => picker.current?.click()}>Add files</Button>
    </div>
  )
}
