/** Every action by name, with its shortcut. */
import { FAR } from '@waybell/core'
import { Dialog } from 'radix-ui'
import { useEffect, useId, useState, type KeyboardEvent } from 'react'
import { useLocation, useNavigate } from 'react-router'
import { tasks } from '../tasks/index.ts'
import { setUpEverything } from '../tasks/sections/steps.ts'
import type { Action } from '../work/action.ts'
import { Button } from '../ui/index.tsx'
import { Sheet } from '../ui/Sheet.tsx'
import { redoName, undoName } from '../work/session.ts'
import { useSessionState, useWork } from '../work/context.ts'

function useActions(): Action[] {
  const work = useWork()
  const { page, site, surveys, run, session, live } = work
  const { stacks } = useSessionState()
  const navigate = useNavigate()
  const { pathname } = useLocation()
  const at = (task: string) => () => void navigate(pathname.replace(/[^/]*$/, task))
  const task = tasks.find((t) => pathname.endsWith(`/${t.key}`))
  const actions = tasks.map(({ key, name }): Action => ({ name: `Go to ${name}`, run: at(key) }))
  for (const p of site.pages)
    if (p !== page)
      actions.push({ name: `Open the page ${p.file}`, run: () => void navigate(pathname.replace(/[^/]*\/[^/]*$/, `${p.key}/sections`)) })
  if (site.pages.length > 1)
    actions.push({ name: `Remove the page ${page.file} from the site`, run: () => run({ type: 'page/drop', page: page.key }) })
  const [undo, redo] = [undoName(stacks), redoName(stacks)]
  if (undo) actions.push({ name: `Undo: ${undo}`, keys: 'Ctrl+Z', run: () => session.undo() })
  if (redo) actions.push({ name: `Redo: ${redo}`, keys: 'Ctrl+Shift+Z', run: () => session.redo() })
  if (site.screens.every((s) => surveys[s.key]))
    actions.push({ name: page.sections.length ? 'Set everything up again' : 'Set everything up', run: () => setUpEverything(work) })
  actions.push(
    { name: 'Scroll the live page to its top', run: () => live.scrollTo(0) },
    { name: 'Scroll the live page to its end', run: () => live.scrollTo(FAR) },
  )
  return [...actions, ...(task?.actions?.(work) ?? [])]
}

export function Palette() {
  const [isOpen, setOpen] = useState(false)
  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent) => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'k') return
      event.preventDefault()
      setOpen(true)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  return (
    <Dialog.Root open={isOpen} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button kind="quiet" title="All actions (Ctrl+K)">
          Actions
        </Button>
      </Dialog.Trigger>
      <Sheet title="Actions" description="Type a part of the name; the arrow keys choose, Enter does it.">
        {isOpen && <Choices close={() => setOpen(false)} />}
      </Sheet>
    </Dialog.Root>
  )
}

function Choices({ close }: { close: () => void }) {
  const actions = useActions()
  const [query, setQuery] = useState('')
  const [active, setActive] = useState(0)
  const list = useId()
  const wanted = query.toLowerCase().split(/\s+/).filter(Boolean)
  const shown = actions.filter((a) => wanted.every((w) => a.name.toLowerCase().includes(w)))
  const at = Math.min(active, shown.length - 1)
  const act = (action: Action | undefined) => {
    if (!action) return
    close()
    // When the dialog has given the focus back.
    setTimeout(action.run, 50)
  }
  const onKey = (event: KeyboardEvent) => {
    if (event.key === 'ArrowDown') setActive(Math.min(at + 1, shown.length - 1))
    else if (event.key === 'ArrowUp') setActive(Math.max(at - 1, 0))
    else if (event.key === 'Enter') act(shown[at])
    else return
    event.preventDefault()
  }
  return (
    <>
      <input
        autoFocus
        role="combobox"
        aria-expanded
        aria-controls={list}
        aria-activedescendant={shown.length ? `${list}-${at}` : undefined}
        aria-label="Find an action"
        value={query}
        onChange={(e) => {
          setQuery(e.target.value)
          setActive(0)
        }}
        onKeyDown={onKey}
        className="mb-2 min-h-8 w-full rounded-sm border border-hair bg-paper px-2"
      />
      <ul id={list} role="listbox" aria-label="Actions" className="max-h-[46vh] overflow-auto">
        {shown.map((a, i) => (
          <li
            key={a.name}
            id={`${list}-${i}`}
            role="option"
            aria-selected={i === at}
            ref={i === at ? (el) => el?.scrollIntoView({ block: 'nearest' }) : undefined}
            onPointerMove={() => setActive(i)}
            onClick={() => act(a)}
            className={`flex min-h-7 cursor-pointer items-center justify-between gap-3 px-2 ${i === at ? 'bg-wash' : ''}`}
          >
            <span className="truncate">{a.name}</span>
            {a.keys && <kbd className="flex-none font-mono text-xs text-faint">{a.keys}</kbd>}
          </li>
        ))}
      </ul>
      {shown.length === 0 && <p className="py-2 text-faint">No action is called that.</p>}
    </>
  )
}
