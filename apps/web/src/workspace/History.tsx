/** The list of changes with names for states, and going back to any of them. */
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { History as HistoryIcon } from 'lucide-react'
import { Dialog } from 'radix-ui'
import { useState } from 'react'
import { api, type LogEntry } from '../api.ts'
import { Button, Field } from '../ui/index.tsx'
import { List } from '../ui/List.tsx'
import { Sheet } from '../ui/Sheet.tsx'
import { useSessionState, useWork } from '../work/context.ts'

const time = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'medium' })

export function History() {
  const [isOpen, setOpen] = useState(false)
  return (
    <Dialog.Root open={isOpen} onOpenChange={setOpen}>
      <Dialog.Trigger asChild>
        <Button kind="quiet" aria-label="History" title="History">
          <HistoryIcon size={16} aria-hidden />
        </Button>
      </Dialog.Trigger>
      <Sheet title="History" description="All changes, the latest first. You can undo going back.">
        {isOpen && <Changes close={() => setOpen(false)} />}
      </Sheet>
    </Dialog.Root>
  )
}

function Changes({ close }: { close: () => void }) {
  const { siteKey, session } = useWork()
  const state = useSessionState()
  const client = useQueryClient()
  const log = useQuery({ queryKey: ['log', siteKey, state.stacks], queryFn: () => api.log(siteKey), staleTime: 0 })
  if (log.error)
    return (
      <p role="alert" className="text-brick">
        {log.error.message}
      </p>
    )
  if (!log.data)
    return (
      <p role="status" className="text-faint">
        Reading the history…
      </p>
    )
  const entries: LogEntry[] = [...log.data, { version: 0, what: 'As it was brought in', at: 0, name: null }]
  const back = (version: number) => {
    close()
    session.backTo(version)
  }
  return (
    <List count={entries.length} estimate={52} label="Changes">
      {(i) => {
        const { version, what, at, name } = entries[i]!
        return (
          <div className="flex items-center gap-3 border-b border-hair py-1">
            <span className="min-w-0 flex-1">
              <span className="block truncate">
                {name && <b>{name}: </b>}
                {what}
              </span>
              <span className="flex items-center gap-2 text-xs text-faint">
                {at > 0 && <span className="flex-none">{time.format(at)}</span>}
                {version > 0 && (
                  <Field
                    label={`Name of the state after change ${version}`}
                    placeholder="name this state"
                    value={name ?? ''}
                    onCommit={(given) =>
                      void api.nameState(siteKey, version, given).then(() => client.invalidateQueries({ queryKey: ['log', siteKey] }))
                    }
                    className="w-40"
                  />
                )}
              </span>
            </span>
            {i === 0 ? (
              <span className="flex-none text-xs text-faint">now</span>
            ) : (
              <Button onClick={() => back(version)} aria-label={`Go back to change ${version}`}>
                Go back to this
              </Button>
            )}
          </div>
        )
      }}
    </List>
  )
}
