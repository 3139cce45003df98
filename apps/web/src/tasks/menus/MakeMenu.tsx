/** Makes a menu: of all sections, synced with another, or empty; in one of the forms. */
import { Popover } from 'radix-ui'
import { Plus } from 'lucide-react'
import {
  formKinds,
  formOf,
  freshName,
  inScreenOrder,
  makeMenu,
  newForm,
  type FormKind,
  type Item,
  type Menu,
  type SitePage,
} from '@waybell/core'
import { useId, useState, type ReactNode } from 'react'
import { Button } from '../../ui/index.tsx'
import { useMeasured, useWork } from '../../work/context.ts'
import { formNames, levelsOf } from './MenuForm.tsx'

/** A page, and the menu's place on it. */
const sketches: Record<FormKind, ReactNode> = {
  bar: <path d="M1 1h38v6H1z" />,
  rail: <path d="M3 4h9v20H3z" />,
  marks: <path d="M34 7h3v3h-3zM34 13h3v3h-3zM34 19h3v3h-3z" />,
  footer: <path d="M1 21h38v6H1z" />,
  floating: <path d="M26 10h11v10H26zM32 22h5v3h-5z" />,
  contents: <path d="M10 8h20v9H10z" />,
  corner: <path d="M29 21h8v4h-8z" />,
  steps: <path d="M16 6h8v3h-8zM16 14h8v3h-8zM16 22h8v3h-8z" />,
}

const ALL = 'all'
const NONE = 'none'

/** A corner menu usually has one link, not needed in the first section. */
function backToTop({ key }: Menu, { sections }: SitePage): Pick<Menu, 'items' | 'shown' | 'grows'> {
  const from = sections.filter((s) => !s.point)[1]
  const items: Item[] = [{ key: `${key}-0`, label: 'Back to top', target: { kind: 'top' }, links: [] }]
  return { items, grows: false, ...(from && { shown: { from: from.key } }) }
}

export function MakeMenu() {
  const { page, run } = useWork()
  const { surveys } = useMeasured()
  const [isOpen, setOpen] = useState(false)
  const [of, setOf] = useState(ALL)
  const [levels, setLevels] = useState(1)
  const id = useId()
  const deepest = levelsOf(page.sections)
  const followed = page.menus.filter((m) => !m.syncedWith)
  // The chosen one may be removed meanwhile.
  const source = followed.some((m) => m.key === of) || of === NONE ? of : ALL
  const hasBar = page.menus.some((m) => m.form.kind === 'bar')
  const make = (kind: FormKind) => {
    const form = newForm(kind, page.sections, inScreenOrder(Object.values(surveys)))
    const all = makeMenu(page, form, { levels: Math.min(levels, formOf(form).levels) })
    if (kind === 'corner' && source === ALL) return add({ ...all, name: freshName('Back to top', page.menus), ...backToTop(all, page) })
    const menu: Menu =
      source === ALL ? all : { ...all, items: [], ...(source !== NONE && { syncedWith: { page: page.key, menu: source, labels: [] } }) }
    add(menu)
  }
  const add = (menu: Menu) => {
    setOpen(false)
    run({ type: 'menu/add', page: page.key, index: page.menus.length, menu })
  }
  return (
    <Popover.Root
      open={isOpen}
      onOpenChange={(open) => {
        setOf(ALL)
        setOpen(open)
      }}
    >
      <Popover.Trigger asChild>
        <Button kind={page.menus.length ? 'plain' : 'main'}>
          <Plus size={14} aria-hidden /> Make a menu
        </Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          collisionPadding={8}
          aria-label="Make a menu"
          className="z-20 w-[31rem] max-w-[90vw] border border-hair bg-sheet p-3 text-sm shadow-lg"
        >
          <p className="mb-2 flex flex-wrap items-center gap-2">
            <label htmlFor={`${id}of`}>Items</label>
            <select
              id={`${id}of`}
              value={source}
              onChange={(e) => setOf(e.target.value)}
              className="min-h-7 min-w-0 flex-1 rounded-sm border border-hair bg-sheet px-1"
            >
              <option value={ALL}>One for each section</option>
              {followed.map((m) => (
                <option key={m.key} value={m.key}>
                  Synced with “{m.name}”
                </option>
              ))}
              <option value={NONE}>None yet</option>
            </select>
            {source === ALL && deepest > 1 && (
              <>
                <label htmlFor={`${id}levels`}>Levels</label>
                <select
                  id={`${id}levels`}
                  value={levels}
                  onChange={(e) => setLevels(Number(e.target.value))}
                  className="min-h-7 rounded-sm border border-hair bg-sheet px-1"
                >
                  {Array.from({ length: deepest }, (_, n) => (
                    <option key={n} value={n + 1}>
                      {n + 1}
                    </option>
                  ))}
                </select>
              </>
            )}
          </p>
          <div className="grid grid-cols-4 gap-2">
            {formKinds.map((kind) => (
              <button
                key={kind}
                type="button"
                disabled={kind === 'bar' && hasBar}
                title={kind === 'bar' && hasBar ? 'The page already has a made bar' : undefined}
                onClick={() => make(kind)}
                className="flex flex-col items-center gap-1 rounded-sm border border-hair p-2 text-center text-xs hover:border-faint disabled:opacity-60"
              >
                <svg aria-hidden width="60" height="42" viewBox="0 0 40 28" className="bg-wash">
                  <path d="M14 5h12M14 9h12M14 13h12M14 17h12M14 21h8" stroke="var(--color-hair)" strokeWidth="1" />
                  <g fill="var(--color-teal)">{sketches[kind]}</g>
                  <path d="M.5.5h39v27H.5z" fill="none" stroke="var(--color-faint)" />
                </svg>
                {formNames[kind]}
              </button>
            ))}
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
