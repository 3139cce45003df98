/** The functions that a driver calls in a page, by name. */
import type { patch } from './edits/patch.ts'
import type { pause } from './page/pending.ts'
import type { probe } from './survey/index.ts'
import type { isRestless } from './survey/restless.ts'
import type { tryLink } from './links/tries.ts'

export interface AgentOfWindow {
  wayBellAgent?: { probe: typeof probe; isRestless: typeof isRestless; patch: typeof patch; pause: typeof pause; tryLink: typeof tryLink }
}
