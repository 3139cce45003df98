/** The bar: site and page, tasks with their findings, undo and redo, and what is stored. */
import { Redo2, Undo2, type LucideIcon } from 'lucide-react'
import { taskOf } from '@waybell/core'
import { useEffect } from 'react'
import { Link, NavLink, useNavigate } from 'react-router'
import { tasks } from '../tasks/index.ts'
import { Button, Field } from '../ui/index.tsx'
import { useMeasured, useSessionState, useWork } from '../work/context.ts'
import { redoName, undoName } from '../work/session.ts'
import { History } from './History.tsx'
import { Palette } from './Palette.tsx'

export function Bar({ task }: { task: string }) {
  const { siteKey, site, page, session, run } = useWork()
  const { findings } = useMeasured()
  const { stacks, storing, reason } = useSessionState()
  const navigate = useNavigate()
  useEffect(() => {
    if (storing === 'stored') return
    // The browser asks before closing the tab.
    const stay = (event: BeforeUnloadEvent) => event.preventDefault()
    addEventListener('beforeunload', stay)
    return () => removeEventListener('beforeunload', stay)
  }, [storing])
  return (
    <>
      <header className="flex min-h-11 flex-wrap items-center gap-x-3 border-b border-hair px-3">
        <Link to="/" className="flex flex-none items-center gap-1.5 font-bold" aria-label="All sites">
          <img src="/bell.svg" alt="" width="20" height="20" />
        </Link>
        <Field
          label="Name of the site"
          value={site.name}
          onCommit={(name) => run({ type: 'site/rename', name })}
          className="w-44 min-w-24 flex-initial font-semibold"
        />
        {site.pages.length > 1 && (
          <select
            aria-label="Page"
            value={page.key}
            onChange={(e) => void navigate(`/site/${siteKey}/${e.target.value}/${task}`)}
            className="min-h-7 w-32 flex-none rounded-sm border border-hair bg-sheet px-1"
          >
            {site.pages.map((p) => (
              <option key={p.key} value={p.key}>
                {p.file}
              </option>
            ))}
          </select>
        )}
        <nav aria-label="Tasks" className="flex min-h-9 flex-wrap self-stretch">
          {tasks.map(({ key, name }) => {
            const open = findings.filter((f) => taskOf(f.code) === key).length
            return (
              <NavLink
                key={key}
                to={`/site/${siteKey}/${page.key}/${key}`}
                className={({ isActive }) =>
                  `flex min-h-9 items-center gap-1 border-b-3 px-2.5 pt-[3px] ${isActive ? 'border-teal font-semibold' : 'border-transparent hover:bg-wash'}`
                }
              >
                {name}
                {open > 0 && (
                  <span className="text-xs text-brick" aria-label={open === 1 ? '1 finding' : `${open} findings`}>
                    {open}
                  </span>
                )}
              </NavLink>
            )
          })}
        </nav>
        <span className="ml-auto" />
        <Palette />
        <History />
        <Step what="Undo" name={undoName(stacks)} Icon={Undo2} onPress={() => session.undo()} />
        <Step what="Redo" name={redoName(stacks)} Icon={Redo2} onPress={() => session.redo()} />
        <span role="status" data-testid="storing" className="w-16 flex-none text-right text-xs text-faint">
          {storing === 'stored' ? 'stored' : storing === 'storing' ? 'storing…' : 'not stored'}
        </span>
      </header>
      {reason !== null && (
        <p role="alert" className="border-b border-hair bg-wash px-3 py-1.5 text-sm text-brick">
          {storing === 'gone'
            ? 'This site can’t be read any more, so nothing is stored.'
            : 'Your last change isn’t stored yet. It is sent again until it is; keep this tab open.'}{' '}
          {reason}
        </p>
      )}
    </>
  )
}

/** @param name of the change to undo or redo; null for none */
function Step({ what, name, Icon, onPress }: { what: 'Undo' | 'Redo'; name: string | null; Icon: LucideIcon; onPress: () => void }) {
  return (
    <Button
      kind="quiet"
      disabled={name === null}
      onClick={onPress}
      title={name === null ? `Nothing to ${what.toLowerCase()}` : `${what}: ${name}`}
      aria-label={name === null ? what : `${what}: ${name}`}
    >
      <Icon size={16} aria-hidden />
    </Button>
  )
}
