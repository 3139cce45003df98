/** The sites: those that are there, and making one from files or pasted HTML. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { Dialog } from 'radix-ui'
import { useRef, useState, type DragEvent } from 'react'
import { Link, useNavigate } from 'react-router'
import { api, type GivenFile, type SiteSummary } from '../api.ts'
import { Button } from '../ui/index.tsx'
import { Sheet } from '../ui/Sheet.tsx'
import { filesFromDrop, filesFromPicker } from './files.ts'
import { TransferState, useTransfer } from './Transfer.tsx'

interface Given {
  files: GivenFile[]
  html?: string
  outline?: string
}

export function SitesView() {
  const sites = useQuery({ queryKey: ['sites'], queryFn: api.sites })
  const storage = useQuery({ queryKey: ['storage'], queryFn: api.storage, staleTime: 0 })
  const client = useQueryClient()
  const navigate = useNavigate()
  const [over, setOver] = useState(false)
  const [scripts, setScripts] = useState(true)
  const picker = useRef<HTMLInputElement>(null)
  const transfer = useTransfer()
  const make = async ({ files, ...fields }: Given) => {
    const made = await transfer.run((tell, signal) => api.create(files, { ...fields, scripts: scripts ? 'on' : 'off' }, tell, signal))
    if (!made) return
    await client.invalidateQueries({ queryKey: ['sites'] })
    await navigate(`/site/${made.key}/p1/sections`, { state: { isNew: true } })
  }
  const drop = async (event: DragEvent) => {
    event.preventDefault()
    setOver(false)
    void make({ files: await filesFromDrop(event.dataTransfer) })
  }
  return (
    <div
      className="flex h-full flex-col overflow-auto"
      onDragOver={(e) => {
        e.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => void drop(e)}
    >
      <header className="flex items-center gap-2 border-b border-hair px-6 py-3">
        <img src="/bell.svg" alt="" width="22" height="22" />
        <span className="text-base font-bold">Way Bell</span>
      </header>
      <main className="mx-auto grid w-full max-w-5xl gap-10 px-6 py-8 md:grid-cols-[1fr_330px]">
        <section aria-labelledby="sites">
          <h1 id="sites" className="mb-3 text-2xl font-bold">
            Sites
          </h1>
          {sites.isError && (
            <p role="alert" className="text-brick">
              {sites.error.message}
            </p>
          )}
          {sites.data?.length === 0 && <p className="text-faint">No site yet. Bring in a page to make the first one.</p>}
          <ul className="border-t border-hair">
            {sites.data?.map((site) => (
              <SiteRow key={site.key} site={site} />
            ))}
          </ul>
          {storage.data && (
            <p className="mt-3 text-xs text-faint">
              Everything is in {storage.data.folder}: {(storage.data.bytes / 1e6).toFixed(1)} MB
            </p>
          )}
        </section>
        <section aria-labelledby="bring" className={`self-start border-l-4 pl-5 ${over ? 'border-teal bg-wash' : 'border-hair'}`}>
          <h2 id="bring" className="mb-2 text-lg font-bold">
            Bring in a page
          </h2>
          <p className="mb-4 text-faint">
            Choose HTML files with their styles and pictures, or a ZIP, or drop them here. Everything stays on this machine.
          </p>
          <label className="mb-4 flex items-start gap-2">
            <input type="checkbox" className="mt-1 size-4" checked={scripts} onChange={(e) => setScripts(e.target.checked)} />
            <span>
              Run the pages’ scripts
              <span className="block text-sm text-faint">As for a visitor, cut off from everything else. You can switch this later.</span>
            </span>
          </label>
          <input
            ref={picker}
            type="file"
            multiple
            hidden
            data-testid="files"
            onChange={(e) => {
              if (e.target.files?.length) void make({ files: filesFromPicker(e.target.files) })
              e.target.value = ''
            }}
          />
          <div className="flex flex-wrap gap-2">
            <Button kind="main" onClick={() => picker.current?.click()} disabled={transfer.isRunning}>
              Choose files
            </Button>
            <Paste
              button="Paste HTML"
              title="Paste HTML"
              description="The whole page, as it is written in its file."
              label="HTML of the page"
              action="Make a site of it"
              onPaste={(html) => void make({ files: [], html })}
            />
            <Paste
              button="Write an outline"
              title="Write an outline"
              description="Headings, each with a line or a list below. A plain page is made from it, to begin with."
              label="The outline"
              action="Make a page of it"
              sample={
                '# Name of the page\nWhat it is about, in a line.\n\n## First part\nA line of text.\n\n## Second part\n- one thing\n- another\n'
              }
              onPaste={(outline) => void make({ files: [], outline })}
            />
          </div>
          <TransferState transfer={transfer} />
        </section>
      </main>
    </div>
  )
}

function SiteRow({ site }: { site: SiteSummary }) {
  const client = useQueryClient()
  const remove = useMutation({
    mutationFn: () => api.remove(site.key),
    onSuccess: () => Promise.all(['sites', 'storage'].map((name) => client.invalidateQueries({ queryKey: [name] }))),
  })
  return (
    <li className="flex items-center gap-4 border-b border-hair py-3">
      <Link to={`/site/${site.key}/p1/sections`} className="min-w-0 flex-1 hover:underline">
        <span className="block truncate text-base font-semibold">{site.name}</span>
        <span className="block text-sm text-faint">
          {site.pages > 1 && `${site.pages} pages · `}
          {site.sections ? `${site.sections} sections, ${site.items} menu items` : 'Not set up yet'} · changed{' '}
          {new Date(site.changedAt).toLocaleDateString(undefined, { dateStyle: 'medium' })}
        </span>
      </Link>
      <Dialog.Root>
        <Dialog.Trigger asChild>
          <Button kind="quiet" aria-label={`Remove ${site.name}`}>
            Remove
          </Button>
        </Dialog.Trigger>
        <Sheet
          title={`Remove “${site.name}”?`}
          description="The site and everything set up in it goes, and cannot be brought back. The page’s own file on your disk stays."
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

interface PasteProps {
  button: string
  title: string
  description: string
  label: string
  action: string
  sample?: string
  onPaste: (text: string) => void
}

function Paste({ button, title, description, label, action, sample = '', onPaste }: PasteProps) {
  const [text, setText] = useState(sample)
  return (
    <Dialog.Root>
      <Dialog.Trigger asChild>
        <Button>{button}</Button>
      </Dialog.Trigger>
      <Sheet title={title} description={description}>
        <textarea
          aria-label={label}
          value={text}
          onChange={(e) => setText(e.target.value)}
          rows={12}
          className="mb-3 w-full rounded-sm border border-hair bg-paper p-2 font-mono text-xs"
        />
        <Dialog.Close asChild>
          <Button kind="main" onClick={() => onPaste(text)}>
            {action}
          </Button>
        </Dialog.Close>
        <Dialog.Close asChild>
          <Button kind="quiet">Cancel</Button>
        </Dialog.Close>
      </Sheet>
    </Dialog.Root>
  )
}
