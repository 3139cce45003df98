/** The line to a page that shows edits, and those that it was sent. */
import type { PageEdit } from '@waybell/core'
import { Channel } from './channel.ts'

export class Patched extends Channel {
  private sent = ''
  isReady = false

  /** The page was loaded anew, without edits. */
  begin(): void {
    this.sent = ''
    this.isReady = true
  }

  /** @returns false where they are not shown */
  async patch(edits: PageEdit[]): Promise<boolean> {
    const text = JSON.stringify(edits)
    if (!this.isReady) return false
    if (text === this.sent) return true
    this.sent = text
    try {
      await this.ask('patched', (turn) => ({ type: 'patch', turn, edits }))
      return true
    } catch {
      this.sent = ''
      return false
    }
  }
}
