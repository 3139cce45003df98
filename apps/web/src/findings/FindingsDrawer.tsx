/** All open findings, from the bottom edge. */
import type { Finding, Site, SitePage, Tried } from '@waybell/core'
import { useState } from 'react'
import { MOST_TRIED } from '../live/Measuring.tsx'
import { List } from '../ui/List.tsx'
import { FixButton } from './FixButton.tsx'
import { useWork } from '../work/context.ts'

const order = { error: 0, warning: 1, note: 2 }

/** What the quick walk came to, in a line; nothing stands for links that nobody tried. */
function saidOf(
  page: SitePage,
  site: Site,
  tried: Readonly<Record<string, readonly Tried[]>>,
  wrong: number,
): { said: string; triedAll: boolean } {
  const screens = site.screens.filter((s) => tried[s.key])
  const links = Math.max(0, ...screens.map((s) => tried[s.key]!.length))
  if (!page.menus.length) return { said: '', triedAll: true }
  if (screens.length < site.screens.length) return { said: 'The links are not tried yet', triedAll: false }
  const on = screens.length === 1 ? 'on 1 screen' : `on ${screens.length} screens`
  const outcome = wrong ? `${wrong} not right` : 'all arrive'
  return {
    said: `${links === 1 ? '1 link' : links === MOST_TRIED ? `the first ${links} links` : `${links} links`} tried ${on}${links ? `, ${outcome}` : ''}`,
    triedAll: true,
  }
}

export function FindingsDrawer() {
  const { findings, page, site, tried } = useWork()
  const wrong = findings.filter((f) => f.code === 'link-tried').length
  const { said, triedAll } = saidOf(page, site, tried, wrong)
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
          <span className="text-faint">{triedAll ? 'No findings' : 'No findings yet'}</span>
        )}
        <span className="ml-auto flex-none text-faint" data-testid="tried">
          {said}
        </span>
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
