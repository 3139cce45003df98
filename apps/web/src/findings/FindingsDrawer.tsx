/** All open findings, from the bottom edge. */
import type { Finding } from '@waybell/core'
import { useState } from 'react'
import { List } from '../ui/List.tsx'
import { FixButton } from './FixButton.tsx'
import { useWork } from '../work/context.ts'

const order = { error: 0, warning: 1, note: 2 }

export function FindingsDrawer() {
  const { findings } = useWork()
  const [open, setOpen] = useState(false)
  const sorted = [...findings].sort((a, b) => order[a.severity] - order[b.severity] || a.line - b.line)
  return (
    <section aria-label="Findings" className="border-t border-hair bg-sheet">
      <button
        type="button"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        className="flex min-h-8 w-full items-center gap-2 px-3 text-left text-sm hover:bg-wash"
      >
        {findings.length ? (
          <>
            <span className="font-semibold text-brick">{findings.length === 1 ? '1 finding' : `${findings.length} findings`}</span>
            <span className="truncate text-faint">{open ? '' : sorted[0]!.message}</span>
          </>
        ) : (
          <span className="text-faint">No findings</span>
        )}
      </button>
      {open && (
        <div className="border-t border-hair px-3 py-1">
          <List count={sorted.length} estimate={32} label="All findings" height="max-h-56">
            {(i) => <Row finding={sorted[i]!} />}
          </List>
        </div>
      )}
    </section>
  )
}

function Row({ finding: f }: { finding: Finding }) {
  const { live } = useWork()
  return (
    <div className="flex gap-3 border-b border-hair py-1 text-sm">
      <span className={`w-16 flex-none font-semibold ${f.severity === 'error' ? 'text-brick' : 'text-faint'}`}>{f.severity}</span>
      <span className="flex-1">
        {f.message} <FixButton fix={f.fix} />
      </span>
      <span className="flex-none font-mono text-xs text-faint">
        {f.code}{' '}
        {f.where.at === undefined ? (
          `${f.line}:${f.column}`
        ) : (
          <button
            type="button"
            title="Show it on the page"
            aria-label={`Show line ${f.line}, column ${f.column} on the page`}
            onClick={() => live.show(f.where.at!)}
            className="min-h-6 rounded-sm underline hover:bg-wash"
          >
            {f.line}:{f.column}
          </button>
        )}
      </span>
    </div>
  )
}
