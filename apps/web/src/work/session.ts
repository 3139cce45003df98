/**
 * One site while it is worked on. A command is applied here at once with the core's own function, and sent; the server applies the
 * same. What the bar shows as stored has been answered.
 */
import {
  afterChange,
  apply,
  CommandError,
  describe,
  extent,
  type Change,
  type Command,
  type Decisions,
  type Site,
  type Stacks,
} from '@waybell/core'
import { api, ApiError, type SiteState } from '../api.ts'

/** Before the same is asked again, in ms. */
const PAUSE = 1500

export type Storing = 'stored' | 'storing' | 'waiting'

export interface SessionState {
  document: Site
  stacks: Stacks
  storing: Storing
  /** Why something waits to be stored, where it does. */
  reason: string | null
}

interface Pending {
  idempotencyKey: string
  change: Change
}

export class Session {
  private state: SessionState
  private version: number
  private readonly pending: Pending[] = []
  private readonly listeners = new Set<() => void>()
  private sending = false
  /** The latest version that was told of. */
  private told = 0

  constructor(
    private readonly key: string,
    loaded: SiteState,
    /** Told when something did not go through. */
    private readonly tell: (message: string) => void,
  ) {
    this.state = { document: loaded.document, stacks: loaded.stacks, storing: 'stored', reason: null }
    this.version = loaded.version
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }
  readonly snapshot = (): SessionState => this.state

  /** @returns false where the command does not fit the site as it is; the reason was told */
  readonly run = (command: Command, undoes: number | null = null): boolean => {
    try {
      const { site, inverse } = apply(this.state.document, command)
      const change: Change = { version: this.version + this.pending.length + 1, command, inverse, undoes }
      this.pending.push({ idempotencyKey: crypto.randomUUID(), change })
      this.set({
        ...this.state,
        document: site,
        stacks: afterChange(this.state.stacks, change),
        storing: this.state.reason === null ? 'storing' : 'waiting',
      })
      // In a turn of its own, so that the change is drawn first.
      setTimeout(() => void this.send())
      return true
    } catch (error) {
      if (!(error instanceof CommandError)) throw error
      this.tell(error.message)
      return false
    }
  }

  /** Takes back everything that came after a version, as one change. */
  backTo(version: number): Promise<void> {
    return this.onServer((request) => api.goBack(this.key, { ...request, version }))
  }

  /** Takes over a new version of a page. */
  revise(page: string, source: string, decisions: Decisions): Promise<void> {
    return this.onServer((request) => api.revise(this.key, page, { ...request, source, decisions }))
  }

  /** A change that the server works out. What is not stored yet is waited for. */
  private async onServer(ask: (request: { idempotencyKey: string; baseVersion: number }) => Promise<{ version: number }>): Promise<void> {
    while (this.pending.length || this.sending) await new Promise((done) => setTimeout(done, 50))
    try {
      await this.follow((await ask({ idempotencyKey: crypto.randomUUID(), baseVersion: this.version })).version)
    } catch (error) {
      this.tell(error instanceof Error ? error.message : String(error))
    }
  }

  undo(): void {
    const last = this.state.stacks.undo.at(-1)
    if (last) this.run(last.inverse, last.version)
  }

  redo(): void {
    const last = this.state.stacks.redo.at(-1)
    if (last) this.run(last.inverse, last.version)
  }

  private set(state: SessionState): void {
    this.state = state
    for (const listener of this.listeners) listener()
  }

  private async send(): Promise<void> {
    if (this.sending) return
    this.sending = true
    let refused: string | null = null
    let isBehind = false
    while (this.pending.length && refused === null) {
      const { idempotencyKey, change } = this.pending[0]!
      try {
        const { version } = await api.change(this.key, {
          idempotencyKey,
          baseVersion: this.version,
          command: change.command,
          undoes: change.undoes,
        })
        this.pending.shift()
        if (this.state.reason !== null) this.set({ ...this.state, storing: 'storing', reason: null })
        // Another tab changed something else in between.
        isBehind ||= version !== this.version + 1
        this.version = version
      } catch (error) {
        if (!isPassing(error)) refused = error instanceof Error ? error.message : String(error)
        else {
          // The same request again, with the same key: it cannot be done twice.
          this.set({ ...this.state, storing: 'waiting', reason: error.message })
          await new Promise((done) => setTimeout(done, PAUSE))
        }
      }
    }
    this.sending = false
    if (refused !== null) {
      this.pending.length = 0
      this.tell(refused)
      await this.reload()
    } else if (isBehind || this.told > this.version) await this.reload()
    if (!this.pending.length) this.set({ ...this.state, storing: 'stored', reason: null })
  }

  /** Told that the site has this version now: what another tab did is taken in, unless something of ours is on its way, which sees to it itself. */
  async follow(version: number): Promise<void> {
    this.told = Math.max(this.told, version)
    if (version > this.version && !this.pending.length && !this.sending) await this.reload()
  }

  /** Until it came: what is shown must not stay beside what is stored. */
  private async reload(): Promise<void> {
    let loaded: SiteState | null = null
    while (!loaded) {
      try {
        loaded = await api.site(this.key)
      } catch (error) {
        if (!isPassing(error)) return this.tell(error instanceof Error ? error.message : String(error))
        this.set({ ...this.state, storing: 'waiting', reason: error.message })
        await new Promise((done) => setTimeout(done, PAUSE))
      }
    }
    // Meanwhile something was done here: its own answer brings the rest.
    if (this.pending.length) return
    this.version = loaded.version
    this.set({ document: loaded.document, stacks: loaded.stacks, storing: 'stored', reason: null })
  }
}

/** What the same request may not meet again: no answer, or a server that cannot for now. */
const isPassing = (error: unknown): error is ApiError => error instanceof ApiError && (error.status === 0 || error.status >= 500)

export const undoName = (stacks: Stacks): string | null => nameOf(stacks.undo.at(-1), ({ command, inverse }) => [command, inverse])
export const redoName = (stacks: Stacks): string | null => nameOf(stacks.redo.at(-1), ({ command, inverse }) => [inverse, command])
/** @param inTurn the two commands of a change, the one first that says what comes or goes */
function nameOf(change: Change | undefined, inTurn: (change: Change) => [Command, Command]): string | null {
  if (!change) return null
  const [first, second] = inTurn(change)
  const much = extent(first) ?? extent(second)
  return `${lowerFirst(describe(change.command))}${much ? ` (${much})` : ''}`
}
const lowerFirst = (text: string) => text.charAt(0).toLowerCase() + text.slice(1)
