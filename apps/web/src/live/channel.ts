/** The connection to the agent in one frame. */
import type { FromAgent, ToAgent } from '@waybell/agent/types'
import { readMessage } from '@waybell/agent/schema'

/** More messages per second than an agent sends: the page floods the application. */
const MOST_A_SECOND = 600

/** Must be created in the turn that inserts the frame: a fast page answers before React renders. */
export class Channel {
  private port: MessagePort | null = null
  private turn = 0
  private heard = { since: 0, count: 0 }
  private readonly waiting = new Map<number, { done: (message: FromAgent) => void; failed: (error: Error) => void }>()

  constructor(
    private readonly frame: HTMLIFrameElement,
    private readonly nonce: string,
    private readonly hear: (message: FromAgent) => void,
    /** The page sends too many messages; nothing more is heard. */
    private readonly onFlood: () => void,
  ) {
    window.addEventListener('message', this.meet)
  }

  close(): void {
    window.removeEventListener('message', this.meet)
    this.port?.close()
    this.port = null
    this.giveUp()
  }

  /** Rejects pending requests. */
  private giveUp(): void {
    for (const { failed } of this.waiting.values()) failed(new Error('the page was closed'))
    this.waiting.clear()
  }

  private isFlood(): boolean {
    const now = performance.now()
    if (now - this.heard.since > 1000) this.heard = { since: now, count: 0 }
    if (++this.heard.count <= MOST_A_SECOND) return false
    this.end()
    return true
  }

  private end(): void {
    this.close()
    this.onFlood()
  }

  private readonly meet = (event: MessageEvent): void => {
    if (event.source !== this.frame.contentWindow || this.isFlood()) return
    const origin = new URL(this.frame.src).origin
    const said = event.data as { wayBell?: unknown; isLoud?: unknown } | null
    if (event.origin !== origin || said?.wayBell !== this.nonce) return
    // The agent cut it off at the source; its earlier messages may arrive slowly.
    if (said.isLoud) return this.end()
    // One agent per frame; a second port is the page's.
    if (this.port) return
    const { port1, port2 } = new MessageChannel()
    this.port = port1
    // The page was loaded again.
    port1.addEventListener('close', () => {
      if (this.port !== port1) return
      this.port = null
      this.giveUp()
    })
    port1.onmessage = ({ data }) => {
      if (this.isFlood()) return
      const message = readMessage(data)
      if (!message) return
      if ('turn' in message) {
        const asked = this.waiting.get(message.turn)
        this.waiting.delete(message.turn)
        if (message.type === 'failed') asked?.failed(new Error(message.message))
        else asked?.done(message)
      }
      this.hear(message)
    }
    this.frame.contentWindow!.postMessage({ wayBell: this.nonce }, origin, [port2])
  }

  get isOpen(): boolean {
    return this.port !== null
  }

  say(message: ToAgent): void {
    this.port?.postMessage(message)
  }

  /** Sends a request, and waits for its answer. */
  ask<K extends FromAgent['type']>(kind: K, make: (turn: number) => ToAgent): Promise<Extract<FromAgent, { type: K }>> {
    const turn = ++this.turn
    return new Promise((done, failed) => {
      if (!this.port) return failed(new Error('the page has not answered yet'))
      this.waiting.set(turn, {
        done: (m) => (m.type === kind ? done(m as Extract<FromAgent, { type: K }>) : failed(new Error('unexpected answer'))),
        failed,
      })
      this.say(make(turn))
    })
  }
}
