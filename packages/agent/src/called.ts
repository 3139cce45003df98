/** What a driver calls in a page, by name. */
import type { patch } from './patch.ts'
import type { pause } from './pending.ts'
import type { probe } from './survey/index.ts'
import type { isRestless } from './survey/restless.ts'
import type { tryLink } from './tries.ts'

export interface AgentOfWindow {
  wayBellAgent?: { probe: typeof probe; isRestless: typeof isRestless; patch: typeof patch; pause: typeof pause; tryLink: typeof tryLink }
}
