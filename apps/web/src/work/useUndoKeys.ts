/** Ctrl or Cmd with Z, except in text fields. */
import { useEffect } from 'react'
import type { Session } from './session.ts'

export function useUndoKeys(session: Session): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const { target } = event
      const typing =
        target instanceof HTMLTextAreaElement || (target instanceof HTMLInputElement && !/^(checkbox|radio|file|color)$/.test(target.type))
      if (typing || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return
      event.preventDefault()
      if (event.shiftKey) session.redo()
      else session.undo()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [session])
}
