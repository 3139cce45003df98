/** Every command by name, with its shortcut. */
import { dropPage, FAR, faultOfScreen, defaultScreens, sizeText } from '@waybell/core'
import { Dialog } from 'radix-ui'
import { useEffect, useState } from 'react'
import { useLocation, useNavigate } from 'react-router'
import { tasks } from '../tasks/index.ts'
import { setUpEverything } from '../tasks/sections/steps.ts'
import type { Action } from '../work/action.ts'
import { Finder } from '../ui/Finder.tsx'
import { Button } from '../ui/index.tsx'
import { Sheet } from '../ui/Sheet.tsx'
import { redoName, undoName } from '../work/session.ts'
import { useMeasured, useSessionState, useView, useWork } from '../work/context.ts'

function useActions(): Action[] {
  const work = useWork()
  const measured = useMeasured()
  const view = useView()
  const { page, site, run, session } = work
  const { surveys } = measured
  const { live, showScreen } = view
  const { stacks } = useSessionState()
  const navigate = useNavigate()
  const { pathname } = useLocation()
  const at = (task: string) => () => void navigate(pathname.replace(/[^/]*$/, task))
  const task = tasks.find((t) => pathname.endsWith(`/${t.key}`))
  const actions = tasks.map(({ key, name }): Action => ({ name: `Go to ${name}`, run: at(key) }))
  for (const p of site.pages)
    if (p !== page)
      actions.push({ name: `Open the page ${p.file}`, run: () => void navigate(pathname.replace(/[^/]*\/[^/]*$/, `${p.key}/sections`)) })
  if (site.pages.length > 1) actions.push({ name: `Remove the page ${page.file} from the site`, run: () => run(dropPage(site, page)) })
  for (const screen of defaultScreens)
    if (!faultOfScreen(screen, site.screens) && !site.screens.some((s) => s.key === screen.key))
      actions.push({
        name: `Add the screen ${screen.name} ${sizeText(screen)}`,
        run: () => run({ type: 'screen/add', screen, index: site.screens.length }) && showScreen(screen.key),
      })
  const [undo, redo] = [undoName(stacks), redoName(stacks)]
  if (undo) actions.push({ name: `Undo: ${undo}`, keys: 'Ctrl+Z', run: () => session.undo() })
  if (redo) actions.push({ name: `Redo: ${redo}`, keys: 'Ctrl+Shift+Z', run: () => session.redo() })
  if (site.screens.every((s) => surveys[s.key]))
    actions.push({
      name: page.sections.length ? 'Set everything up again' : 'Set everything up',
      run: () => setUpEverything(work, measured),
    })
  actions.push(
    { name: 'Scroll the live page to its top', run: () => live.scrollTo(0) },
    { name: 'Scroll the live page to its end', run: () => live.scrollTo(FAR) },
  )
  return [...actions, ...(task?.actions?.(work, measured, view) ?? [])]
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
      <Sheet title="Actions" description="Type part of a name. Arrow keys choose, Enter runs it.">
        {isOpen && <Choices close={() => setOpen(false)} />}
      </Sheet>
    </Dialog.Root>
  )
}

function Choices({ close }: { close: () => void }) {
  const actions = useActions()
  const choices = actions.map((action) => ({
    key: action.name,
    name: action.name,
    run: action.run,
    aside: action.keys && <kbd className="flex-none font-mono text-xs text-faint">{action.keys}</kbd>,
  }))
  return (
    <Finder
      choices={choices}
      label="Find an action"
      list="Actions"
      none="No match."
      onTake={({ run }) => {
        close()
        // After the dialog returned the focus.
        setTimeout(run, 50)
      }}
    />
  )
}
