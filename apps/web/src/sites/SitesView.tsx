/** The list of sites, and making one from files or pasted HTML. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { Dialog } from 'radix-ui'
import { useEffect, useRef, useState, type DragEvent } from 'react'
import { useNavigate } from 'react-router'
import { api, type GivenFile } from '../api.ts'
import { Button } from '../ui/index.tsx'
import { Sheet } from '../ui/Sheet.tsx'
import { useKept } from '../ui/useKept.ts'
import { SiteRow } from './SiteRow.tsx'
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
  const [isWelcomed, setWelcomed] = useKept<boolean>('welcomed', false)
  const [, openHints] = useKept<boolean>('hints', false)
  // At the first run there is only the demo: no other site has sections before its first change.
  const only = sites.data?.length === 1 ? sites.data[0]! : null
  const demo = only?.isNew && only.sections ? only.key : null
  useEffect(() => {
    if (isWelcomed || demo === null) return
    setWelcomed(true)
    openHints(true)
    void navigate(`/site/${demo}/p1/sections`)
  })
  const make = async ({ files, ...fields }: Given) => {
    const made = await transfer.run((tell, signal) => api.create(files, { ...fields, scripts: scripts ? 'on' : 'off' }, tell, signal))
    if (!made) return
    setWelcomed(true)
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
      <main className="mx-auto w-full max-w-5xl px-6 py-6">
        <section aria-labelledby="bring" className={`mb-8 border-l-4 py-1 pl-5 ${over ? 'border-teal bg-wash' : 'border-hair'}`}>
          <h1 id="bring" className="mb-1 text-lg font-bold">
            Bring in a page
          </h1>
          <p className="mb-3 text-faint">
            Choose HTML files with their styles and pictures, or a ZIP, or drop them here. Everything stays on this machine.
          </p>
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
              description="The page’s complete HTML."
              label="HTML of the page"
              action="Make a site of it"
              onPaste={(html) => void make({ files: [], html })}
            />
            <Paste
              button="Write an outline"
              title="Write an outline"
              description="Headings, each with text or a list. They become a plain page."
              label="The outline"
              action="Make a page of it"
              sample={
                '# Name of the page\nWhat it is about, in a line.\n\n## First part\nA line of text.\n\n## Second part\n- one thing\n- another\n'
              }
              onPaste={(outline) => void make({ files: [], outline })}
            />
          </div>
          <label
            className="mt-3 flex items-center gap-2 text-sm"
            title="As for a visitor, cut off from everything else. You can switch this later."
          >
            <input type="checkbox" className="size-4" checked={scripts} onChange={(e) => setScripts(e.target.checked)} />
            Run the pages’ scripts
          </label>
          <TransferState transfer={transfer} />
        </section>
        <section aria-labelledby="sites">
          <h2 id="sites" className="mb-2 text-lg font-bold">
            Sites
          </h2>
          {sites.isError && (
            <p role="alert" className="text-brick">
              {sites.error.message}
            </p>
          )}
          {sites.isPending && <p className="text-faint">Reading the sites…</p>}
          {sites.data?.length === 0 && <p className="text-faint">No sites yet. Choose an HTML file above, or drop one here.</p>}
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
      </main>
    </div>
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
