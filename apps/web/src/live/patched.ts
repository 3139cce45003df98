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

  async patch(edits: PageEdit[]): Promise<void> {
    const text = JSON.stringify(edits)
    if (!this.isReady || text === this.sent) return
    this.sent = text
    await this.ask('patched', (turn) => ({ type: 'patch', turn, edits })).catch(() => (this.sent = ''))
  }
}
