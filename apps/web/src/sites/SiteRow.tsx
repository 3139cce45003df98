/** A site in the list: its first page as a small picture, and its details. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Dialog } from 'radix-ui'
import { useEffect, useRef, useState } from 'react'
import { Link } from 'react-router'
import { api, type SiteSummary } from '../api.ts'
import { frameAddress } from '../live/frame.ts'
import { Button } from '../ui/index.tsx'
import { Sheet } from '../ui/Sheet.tsx'

/** The picture's size, in px. */
const [WIDTH, HEIGHT] = [144, 90]

const when = (ms: number) => new Date(ms).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
const count = (n: number, one: string, many: string) => (n === 1 ? `1 ${one}` : `${n} ${many}`)

export function SiteRow({ site }: { site: SiteSummary }) {
  const { key, name, file, pages, sections, items, changedAt } = site
  const client = useQueryClient()
  const row = useRef<HTMLLIElement>(null)
  const isSeen = useSeen(row)
  const overview = useQuery({ queryKey: ['overview', key, changedAt], queryFn: () => api.overview(key), enabled: isSeen, staleTime: 0 })
  const remove = useMutation({
    mutationFn: () => api.remove(key),
    onSuccess: () => Promise.all(['sites', 'storage'].map((of) => client.invalidateQueries({ queryKey: [of] }))),
  })
  const findings = overview.data?.findings ?? 0
  const handedOverAt = overview.data?.handedOverAt
  return (
    <li ref={row} className="relative flex items-center gap-4 border-b border-hair py-3 hover:bg-wash">
      <Small site={site} isSeen={isSeen} />
      <div className="min-w-0 flex-1">
        {/* The whole row is a link. */}
        <Link
          to={`/site/${key}/p1/sections`}
          title={name}
          className="block truncate text-base font-semibold after:absolute after:inset-0 hover:underline"
        >
          {name}
        </Link>
        <span className="block truncate text-sm text-faint" title={file}>
          {file}
          {pages > 1 && ` and ${count(pages - 1, 'more page', 'more pages')}`} ·{' '}
          {sections ? `${count(sections, 'section', 'sections')}, ${count(items, 'menu item', 'menu items')}` : 'not set up yet'}
        </span>
        <span className="block truncate text-sm text-faint">
          {overview.data && sections > 0 && (
            <span className={findings ? 'font-semibold text-brick' : ''} title="As last measured, links not tried">
              {findings ? count(findings, 'finding', 'findings') : 'no findings'}
            </span>
          )}
          {overview.data && sections > 0 && ' · '}
          {overview.data && (handedOverAt ? `handed over ${when(handedOverAt)} · ` : sections ? 'not handed over yet · ' : '')}
          changed {when(changedAt)}
        </span>
      </div>
      <Dialog.Root>
        <Dialog.Trigger asChild>
          <Button kind="quiet" aria-label={`Remove ${name}`} className="relative">
            Remove
          </Button>
        </Dialog.Trigger>
        <Sheet
          title={`Remove “${name}”?`}
          description={`The site from ${file}, changed ${when(changedAt)}, and its setup are deleted for good. The page’s file on your disk stays.`}
        >
          <Dialog.Close asChild>
            <Button onClick={() => remove.mutate()}>Remove the site</Button>
          </Dialog.Close>
          <Dialog.Close asChild>
            <Button kind="quiet">Keep it</Button>
          </Dialog.Close>
        </Sheet>
      </Dialog.Root>
    </li>
  )
}

/** The page as it came, without scripts. */
function Small({ site: { key, name, file, screen }, isSeen }: { site: SiteSummary; isSeen: boolean }) {
  return (
    <div aria-hidden className="flex-none overflow-hidden border border-hair bg-white" style={{ width: WIDTH, height: HEIGHT }}>
      {isSeen && (
        <iframe
          title={name}
          inert
          tabIndex={-1}
          src={frameAddress(key, file, false)}
          sandbox="allow-same-origin"
          className="pointer-events-none border-0"
          style={{
            width: screen.width,
            height: (screen.width * HEIGHT) / WIDTH,
            transform: `scale(${WIDTH / screen.width})`,
            transformOrigin: '0 0',
          }}
        />
      )}
    </div>
  )
}

/** Whether it has been in view. */
function useSeen(of: React.RefObject<HTMLElement | null>): boolean {
  const [isSeen, setSeen] = useState(false)
  useEffect(() => {
    const observer = new IntersectionObserver(([entry]) => entry!.isIntersecting && setSeen(true), { rootMargin: '200px' })
    observer.observe(of.current!)
    return () => observer.disconnect()
  }, [of])
  return isSeen
}
