/** What the command line calls in a page, by name. */
import type { probe } from './survey/index.ts'
import type { isRestless } from './survey/restless.ts'
import type { tryLink, tryLinks } from './tries.ts'

export interface AgentOfWindow {
  wayBellAgent?: { probe: typeof probe; isRestless: typeof isRestless; tryLink: typeof tryLink; tryLinks: typeof tryLinks }
}
