/** The site's public address, and whether links between pages use it. */
import { siteFolder } from '@waybell/core'
import { useId } from 'react'
import { Field, Heading, type Problem } from '../../ui/index.tsx'
import { useWork } from '../../work/context.ts'

const check = (typed: string): Problem | null =>
  typed === '' || siteFolder(typed) !== null
    ? null
    : { message: 'Type a full address, like https://ostrey.example/week/', severity: 'error' }

export function Addresses() {
  const { site, run } = useWork()
  const id = useId()
  const { address } = site
  return (
    <>
      <Heading>Addresses</Heading>
      <div className="grid grid-cols-[auto_1fr] items-center gap-x-3 text-sm">
        <span className="text-faint">Site address</span>
        <Field
          label="Address of the site"
          value={address?.url ?? ''}
          placeholder="https://…"
          mayBeEmpty
          check={check}
          onCommit={(typed) => {
            const url = siteFolder(typed)
            run({ type: 'site/address', address: url === null ? undefined : { ...address, url } })
          }}
        />
      </div>
      <label htmlFor={id} className={`flex min-h-7 items-center gap-1.5 text-sm ${address ? '' : 'text-faint'}`}>
        <input
          id={id}
          type="checkbox"
          disabled={!address}
          checked={!!address?.isWritten}
          onChange={(e) =>
            address && run({ type: 'site/address', address: e.target.checked ? { ...address, isWritten: true } : { url: address.url } })
          }
        />
        Full addresses between pages
      </label>
    </>
  )
}
