/** The line to a page that shows edits, and those that it was sent. */
import type { PageEdit } from '@waybell/core'
import { Channel } from './channel.ts'

export class Patched extends Channel {
  /** Null where that isn't known. */
  private sent: readonly PageEdit[] | null = null
  isReady = false

  /** The page was loaded anew, without edits. */
  begin(): void {
    this.sent = []
    this.isReady = true
  }

  /** @returns false where they are not shown */
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
