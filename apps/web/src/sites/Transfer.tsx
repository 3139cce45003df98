/** Uploads with progress in numbers, and stopping them. */
import { useState } from 'react'
import { ApiError, type Progress } from '../api.ts'
import { Button } from '../ui/index.tsx'

type Send<T> = (tell: (progress: Progress) => void, signal: AbortSignal) => Promise<T>

export interface Transfer {
  isRunning: boolean
  progress: Progress | null
  /** Why it failed, or that it was stopped; null for neither. */
  told: { message: string; isError: boolean } | null
  /** Undefined if it failed; the reason is shown. */
  run: <T>(send: Send<T>) => Promise<T | undefined>
  stop: () => void
}

export function useTransfer(): Transfer {
  const [state, setState] = useState<Pick<Transfer, 'progress' | 'told'> & { controller: AbortController | null }>({
    progress: null,
    told: null,
    controller: null,
  })
  return {
    isRunning: state.controller !== null,
    progress: state.progress,
    told: state.told,
    stop: () => state.controller?.abort(),
    run: async (send) => {
      const controller = new AbortController()
      setState({ progress: null, told: null, controller })
      try {
        const answer = await send((progress) => setState((s) => ({ ...s, progress })), controller.signal)
        setState({ progress: null, told: null, controller: null })
        return answer
      } catch (error) {
        const isError = !(error instanceof ApiError && error.code === 'stopped')
        setState({ progress: null, told: { message: error instanceof Error ? error.message : String(error), isError }, controller: null })
        return undefined
      }
    },
  }
}

const megabytes = (bytes: number) => (bytes / 1048576).toFixed(1)

export function TransferState({ transfer: { isRunning, progress, told, stop } }: { transfer: Transfer }) {
  if (isRunning)
    return (
      <p role="status" className="mt-3 flex basis-full items-center gap-3">
        {progress && progress.sent < progress.total
          ? `${megabytes(progress.sent)} of ${megabytes(progress.total)} MB uploaded…`
          : 'Reading…'}
        <Button onClick={stop}>Stop</Button>
      </p>
    )
  if (!told) return null
  return (
    <p role="alert" className={`mt-3 basis-full ${told.isError ? 'text-brick' : 'text-faint'}`}>
      {told.message}
    </p>
  )
}
