/** The site document of a session. Storing it redraws nothing. */
import type { Site } from '@waybell/core'
import { useSyncExternalStore } from 'react'
import type { Session } from './session.ts'

export const useDocument = (session: Session): Site => useSyncExternalStore(session.subscribe, () => session.snapshot().document)
