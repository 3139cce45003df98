/** All open findings, at the bottom. */
import { allArrive, outcomeOf, outcomeText, type Command, type Finding, type Fix, type Outcome, type Site, type Tried } from '@waybell/core'
import { useEffect, useRef, useState } from 'react'
import { MOST_TRIED } from '../live/surveyor.ts'
import { Button } from '../ui/index.tsx'
import { List } from '../ui/List.tsx'
import { FixButton } from './FixButton.tsx'
import { useMeasured, useView, useWork } from '../work/context.ts'

const order = { error: 0, warning: 1, note: 2 }

/** The quick walk's outcome in a line; empty for untried links. */
function saidOf(
  site: Site,
  tried: Readonly<Record<string, readonly Tried[]>>,
  outcome: Outcome,
  hasMenus: boolean,
): { said: string; triedAll: boolean } {
  const screens = site.screens.filter((s) => tried[s.key])
  const links = Math.max(0, ...screens.map((s) => tried[s.key]!.length))
  if (!hasMenus) return { said: '', triedAll: true }
  if (screens.length < site.screens.length) return { said: 'Links not tried yet', triedAll: false }
  const on = screens.length === 1 ? 'on 1 screen' : `on ${screens.length} screens`
  const count = links === 1 ? '1 link' : links === MOST_TRIED ? `the first ${links} links` : `${links} links`
  return { said: `${count} tried ${on}${links || !allArrive(outcome) ? `, ${outcomeText(outcome)}` : ''}`, triedAll: true }
}

export function FindingsDrawer() {
  const { page, site } = useWork()
  const { findings, surveys, tried } = useMeasured()
  const { said, triedAll } = saidOf(
    site,
    tried,
    outcomeOf({ site, page, surveys, tried }, findings),
    page.menus.length > 0 || Object.values(surveys).some((s) => s.built.menus.length > 0),
  )
  const [open, setOpen] = useState(false)
  const [triedAt, setTriedAt] = useState<Date | null>(null)
  useEffect(() => setTriedAt(new Date()), [tried])
  // Of equally bad findings, those seen to fail come first.
  const seen = (f: Finding) => Number(f.code !== 'link-tried')
  const sorted = [...findings].sort((a, b) => order[a.severity] - order[b.severity] || seen(a) - seen(b) || a.line - b.line)
  const alike = open ? alikeOf(sorted) : new Map<Finding, Fix[]>()
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
            <span className="flex-none font-semibold text-brick">
              {findings.length === 1 ? '1 finding' : `${findings.length} findings`}
            </span>
            <span className="line-clamp-1 min-w-0 text-left text-faint">{open ? '' : sorted[0]!.message}</span>
          </>
        ) : (
          <span className="text-faint">{triedAll ? 'No findings' : 'No findings yet'}</span>
        )}
        <span className="ml-auto flex-none text-faint">
          <span data-testid="tried">{said}</span>
          {said && triedAll && triedAt && ` · ${triedAt.toLocaleTimeString(undefined, { timeStyle: 'short' })}`}
        </span>
      </button>
      {open && (
        <div className="border-t border-hair px-3 py-1">
          <List count={sorted.length} estimate={32} label="All findings" height="max-h-56">
            {(i) => <Row finding={sorted[i]!} alike={alike.get(sorted[i]!)} />}
          </List>
        </div>
      )}
    </section>
  )
}

/** True for a command that only sets a link's target; many of those can be done at once. */
const leads = (command: Command): boolean =>
  command.type === 'batch' ? command.commands.every(leads) : command.type === 'item/target' || command.type === 'link/target'

/** For the first finding of each kind: all fixes of that kind, if each only sets a target. */
function alikeOf(sorted: readonly Finding[]): Map<Finding, Fix[]> {
  const byCode = new Map<string, Finding[]>()
  for (const f of sorted) if (f.fix && leads(f.fix.command)) byCode.set(f.code, [...(byCode.get(f.code) ?? []), f])
  return new Map([...byCode.values()].flatMap((all) => (all.length > 1 ? [[all[0]!, all.map((f) => f.fix!)]] : [])))
}

/** A finding's cost, in a word. */
const COST = { error: 'Broken', warning: 'Risky', note: 'Note' }

/** Hover time before the page shows a finding, in ms. */
const RESTS = 150

function Row({ finding: f, alike }: { finding: Finding; alike: Fix[] | undefined }) {
  const { page, run } = useWork()
  const { live } = useView()
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const { at } = f.where
  const point = (to: number | null) => {
    clearTimeout(timer.current)
    if (at !== undefined) timer.current = setTimeout(() => live.show(to), to === null ? 0 : RESTS)
  }
  return (
    <div
      className="flex gap-3 border-b border-hair py-1 text-sm hover:bg-wash"
      data-finding={f.code}
      onPointerEnter={() => point(at ?? null)}
      onPointerLeave={() => point(null)}
    >
      <span className={`w-16 flex-none font-semibold ${f.severity === 'error' ? 'text-brick' : 'text-faint'}`}>{COST[f.severity]}</span>
      <span className="min-w-0 flex-1">
        {f.message}{' '}
        {at !== undefined && (
          <span className="text-xs text-faint" title={`Line ${f.line}, column ${f.column} of ${page.file} (${f.code})`}>
            line {f.line}
          </span>
        )}{' '}
        <FixButton fix={f.fix} />
        {alike && (
          <Button
            kind="quiet"
            className="py-0!"
            title={alike.map((fix) => fix.label).join('\n')}
            onClick={() => run({ type: 'batch', label: `Lead ${alike.length} links`, commands: alike.map((fix) => fix.command) })}
          >
            All {alike.length} of this kind
          </Button>
        )}
      </span>
      <span className="flex flex-none items-start gap-1">
        {at !== undefined && (
          <Button kind="quiet" className="py-0!" onClick={() => live.show(at)} aria-label={`Show on the page: ${f.message}`}>
            Show
          </Button>
        )}
      </span>
    </div>
  )
}
