/** Files dropped anywhere in a site: pages are added to it, and what a page needs goes where the page looks for it. */
import { useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { toast } from 'sonner'
import { api, type GivenFile } from '../api.ts'
import { filesFromDrop } from '../sites/files.ts'
import { useWork } from './work.ts'

const hasFiles = (event: DragEvent) => event.dataTransfer?.types.includes('Files') ?? false

export function DropFiles() {
  const { siteKey, page, session } = useWork()
  const client = useQueryClient()
  const [over, setOver] = useState(false)
  useEffect(() => {
    const give = async (files: GivenFile[]) => {
      try {
        const { pages } = await api.addFiles(siteKey, page.key, files)
        await client.invalidateQueries({ queryKey: ['page', siteKey] })
        if (pages.length) toast(pages.length === 1 ? 'A page was added to the site.' : `${pages.length} pages were added to the site.`)
        // What the live page lacked is there now.
        else location.reload()
      } catch (error) {
        toast.error(error instanceof Error ? error.message : String(error), { duration: 10000 })
      }
    }
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
      void filesFromDrop(event.dataTransfer!).then(give)
    }
    const listeners = [['dragenter', enter], ['dragover', enter], ['dragleave', leave], ['drop', drop]] as const
    for (const [type, listener] of listeners) window.addEventListener(type, listener)
    return () => {
      for (const [type, listener] of listeners) window.removeEventListener(type, listener)
    }
  }, [siteKey, page.key, client, session])
  // Over the live page, which would take what is dropped on it.
  return over ? <div className="fixed inset-0 z-20 flex items-center justify-center border-4 border-teal bg-paper/80 text-lg font-bold">Drop pages or files to add them to this site</div> : null
}
