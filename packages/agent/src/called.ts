/** What the command line calls in a page, by name. */
import type { probe } from './survey/index.ts'

export interface AgentOfWindow {
  wayBellAgent?: { probe: typeof probe }
}
