/** Files that the page needs and the site lacks. */
import { useQueryClient } from '@tanstack/react-query'
import { useRef } from 'react'
import { api } from '../../api.ts'
import { filesFromPicker } from '../../sites/files.ts'
import { TransferState, useTransfer } from '../../sites/Transfer.tsx'
import { Button } from '../../ui/index.tsx'
import { useWork } from '../../work/context.ts'

export function Missing() {
  const { missing, siteKey, page, session } = useWork()
  const picker = useRef<HTMLInputElement>(null)
  const client = useQueryClient()
  const transfer = useTransfer()
  return (
    <div className="mb-3 border-l-4 border-brick bg-wash p-3">
      <p className="font-semibold">
        {missing.length === 1 ? 'A file that the page needs is missing' : `${missing.length} files that the page needs are missing`}
      </p>
      <ul className="my-1 max-h-28 overflow-auto font-mono text-xs">
        {missing.map((path) => (
          <li key={path}>{path}</li>
        ))}
      </ul>
      <input
        ref={picker}
        type="file"
        multiple
        hidden
        data-testid="missing-files"
        onChange={(e) => {
          if (!e.target.files) return
          const given = filesFromPicker(e.target.files)
          void transfer
            .run((tell, signal) => api.addFiles(siteKey, page.key, given, session.tab, tell, signal))
            .then(async (added) => {
              if (!added) return
              await client.invalidateQueries({ queryKey: ['page', siteKey, page.key] })
              // The live page must load them.
              location.reload()
            })
        }}
      />
      <Button onClick={() => picker.current?.click()} disabled={transfer.isRunning}>
        Add files
      </Button>
      <TransferState transfer={transfer} />
    </div>
  )
}
