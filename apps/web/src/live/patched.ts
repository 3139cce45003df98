/** The connection to a page, and the edits it shows. */
import type { PageEdit } from '@waybell/core'
import { Channel } from './channel.ts'

export class Patched extends Channel {
  /** Null if unknown. */
  private sent: readonly PageEdit[] | null = null
  isReady = false

  /** The page was reloaded, without edits. */
  begin(): void {
    this.sent = []
    this.isReady = true
  }

  /** @returns false if they aren't shown */
  async patch(edits: readonly PageEdit[]): Promise<boolean> {
    if (!this.isReady) return false
    if (edits === this.sent || (!edits.length && this.sent?.length === 0)) return true
    this.sent = edits
    try {
      await this.ask('patched', (turn) => ({ type: 'patch', turn, edits }))
      return true
    } catch {
      this.sent = null
      return false
    }
  }
}
