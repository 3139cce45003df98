/** The skip link, offered if the page has none. */
import { ownSkipLink, skipWords } from '@waybell/core'
import { useState } from 'react'
import { Group } from '../../ui/Group.tsx'
import { useWork } from '../../work/context.ts'

export function SkipLink() {
  const { page, reading, run } = useWork()
  const { skip } = page.travel
  const [typed, setTyped] = useState<string | null>(null)
  const own = ownSkipLink(reading)
  const set = (label: string | undefined) => run({ type: 'travel/skip', page: page.key, ...(label !== undefined && { label }) })
  const commit = () => {
    const label = typed?.trim()
    if (label && label !== skip) set(label)
    setTyped(null)
  }
  return (
    <Group title="Skip link" value={skip !== undefined ? `“${skip}”` : own ? 'the page’s own' : 'none'}>
      {own && skip === undefined ? (
        <p className="text-sm text-faint">The page has one of its own: “{own.label}”.</p>
      ) : (
        <>
          <label className="flex min-h-7 items-center gap-1.5 text-sm">
            <input type="checkbox" checked={skip !== undefined} onChange={(e) => set(e.target.checked ? skipWords(reading) : undefined)} />
            The first Tab offers a link past the menu
          </label>
          {skip !== undefined && (
            <label className="flex min-h-7 items-center gap-2 pl-5 text-sm">
              It says
              <input
                value={typed ?? skip}
                maxLength={120}
                onChange={(e) => setTyped(e.target.value)}
                onBlur={commit}
                onKeyDown={(e) => {
                  if (e.key === 'Enter') commit()
                  if (e.key === 'Escape') setTyped(null)
                }}
                className="min-h-7 flex-1 rounded-sm border border-hair bg-sheet px-1"
              />
            </label>
          )}
        </>
      )}
    </Group>
  )
}
