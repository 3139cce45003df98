/** Files dropped anywhere: pages are added to the site, other files go where pages look for them. */
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { toast } from 'sonner'
import { api, type GivenFile } from '../api.ts'
import { filesFromDrop } from '../sites/files.ts'
import { TransferState, useTransfer } from '../sites/Transfer.tsx'
import { useWork } from '../work/context.ts'

const hasFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false

export function DropFiles() {
  const { siteKey, page, session } = useWork()
  const client = useQueryClient()
  const [over, setOver] = useState(false)
  const transfer = useTransfer()
  const give = async (files: GivenFile[]) => {
    const added = await transfer.run((tell, signal) => api.addFiles(siteKey, page.key, files, session.tab, tell, signal))
    if (!added) return
    await client.invalidateQueries({ queryKey: ['page', siteKey] })
    if (added.pages.length)
      toast(added.pages.length === 1 ? 'A page was added to the site.' : `${added.pages.length} pages were added to the site.`)
    // The live page must load the files.
    else location.reload()
  }
  const latest = useRef(give)
  latest.current = give
  useEffect(() => {
    const enter = (event: DragEvent) => {
      if (!hasFiles(event)) return
      event.preventDefault()
      setOver(true)
    }
    const leave = (event: DragEvent) => event.relatedTarget === null && setOver(false)
    const drop = (event: DragEvent) => {
      if (!hasFiles(event)) return
      event.preventDefault()
      setOver(false)
      void filesFromDrop(event.dataTransfer!).then((files) => latest.current(files))
    }
    const listeners = [
      ['dragenter', enter],
      ['dragover', enter],
      ['dragleave', leave],
      ['drop', drop],
    ] as const
    for (const [type, listener] of listeners) window.addEventListener(type, listener)
    return () => {
      for (const [type, listener] of listeners) window.removeEventListener(type, listener)
    }
  }, [])
  // Over the live page, which would take the drop.
  if (over)
    return (
      <div className="fixed inset-0 z-20 flex items-center justify-center border-4 border-teal bg-paper/80 text-lg font-bold">
        Drop pages or files to add them to this site
      </div>
    )
  if (!transfer.isRunning && !transfer.told) return null
  return (
    <div className="border-t border-hair bg-sheet px-3 pb-3">
      <TransferState transfer={transfer} />
    </div>
  )
}
