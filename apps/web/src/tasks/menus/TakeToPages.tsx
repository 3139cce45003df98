/** Puts a menu on other pages, synced with this one. */
import { Popover } from 'radix-ui'
import { takeToPages, type MadeMenu, type SitePage } from '@waybell/core'
import { useState } from 'react'
import { Button } from '../../ui/index.tsx'
import { useWork } from '../../work/context.ts'

export function TakeToPages({ menu }: { menu: MadeMenu }) {
  const { page, site, run } = useWork()
  const [isOpen, setOpen] = useState(false)
  const [chosen, setChosen] = useState<readonly string[]>([])
  const others = site.pages.filter((p) => p !== page)
  if (!others.length) return null
  /** Why a page can't have it; null if it can. */
  const kept = ({ sections, menus }: SitePage): string | null =>
    !sections.length ? 'not set up yet' : menu.form.kind === 'bar' && menus.some((m) => m.form.kind === 'bar') ? 'has a bar' : null
  return (
    <Popover.Root open={isOpen} onOpenChange={setOpen}>
      <Popover.Trigger asChild>
        <Button>Take it to other pages</Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          collisionPadding={8}
          aria-label="Pages for the menu"
          className="z-20 w-72 border border-hair bg-sheet p-2 text-sm shadow-lg"
        >
          {others.map((other) => (
            <label key={other.key} className="flex min-h-7 items-center gap-1.5">
              <input
                type="checkbox"
                disabled={kept(other) !== null}
                checked={chosen.includes(other.key)}
                onChange={(e) => setChosen(e.target.checked ? [...chosen, other.key] : chosen.filter((k) => k !== other.key))}
              />
              <span className="min-w-0 truncate font-mono text-xs">{other.file}</span>
              {kept(other) && <span className="flex-none text-xs text-faint">{kept(other)}</span>}
            </label>
          ))}
          <p className="mt-2 flex justify-between">
            <Button kind="quiet" onClick={() => setChosen(others.flatMap((p) => (kept(p) === null ? p.key : [])))}>
              All
            </Button>
            <Button
              kind="main"
              disabled={!chosen.length}
              onClick={() => {
                setOpen(false)
                run(
                  takeToPages(
                    page,
                    menu,
                    others.filter((p) => chosen.includes(p.key)),
                  ),
                )
              }}
            >
              Take it there
            </Button>
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
