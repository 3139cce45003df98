/**
 * One site while it's worked on. Commands are applied here at once, then sent; the server applies the same. One request at a time: a
 * change, or reading the site. `storing.ts` has the states.
 */
import {
  afterChange,
  apply,
  CommandError,
  describe,
  extent,
  STACK_PAGE,
  type Change,
  type Command,
  type Decisions,
  type Site,
  type StackName,
  type Stacks,
} from '@waybell/core'
import { api, ApiError, type ChangeOf, type SiteState } from '../api.ts'
import { stateAfter, type Event, type State } from './storing.ts'

/** Pause before a repeated request, in ms. */
const PAUSE = 1500
/** Earlier changes are fetched when a stack has fewer. */
const FEW = 20

/** `gone`: nothing is stored any more. */
export type Storing = 'stored' | 'storing' | 'waiting' | 'gone'

export interface SessionState {
  document: Site
  stacks: Stacks
  storing: Storing
  /** Why it isn't stored yet, if something waits. */
  reason: string | null
}

interface Waiting {
  request: ChangeOf
  send: (request: ChangeOf) => Promise<{ version: number }>
  /** Null if the server computes the change. */
  change: Change | null
}

export class Session {
  private shown: SessionState
  private state: State = 'idle'
  /** Identifies this tab for the server. */
  readonly tab = crypto.randomUUID()
  private waiting: Waiting[] = []
  private readonly listeners = new Set<() => void>()
  /** Of the stored document, without waiting changes. */
  private version: number
  /** The latest version known to be stored. */
  private latest: number
  private readonly openedAt: number
  private isAstray = false
  /** Versions that couldn't be undone: others come first. */
  private readonly fixed = new Set<number>()
  /** All changes of the stack are loaded. */
  private readonly isWhole: Record<StackName, boolean>
  /** Changes without a version count down from here. */
  private unstored = 0

  constructor(
    private readonly key: string,
    loaded: SiteState,
    /** Shows a message when something failed. */
    private readonly tell: (message: string) => void,
  ) {
    this.shown = { document: loaded.document, stacks: loaded.stacks, storing: 'stored', reason: null }
    this.version = this.latest = this.openedAt = loaded.version
    this.isWhole = wholeIn(loaded.stacks)
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }
  readonly snapshot = (): SessionState => this.shown

  /** @returns false if the command doesn't fit the document; the reason is shown */
  readonly run = (command: Command, undoes: number | null = null): boolean => {
    if (this.state === 'gone') {
      this.tell(this.shown.reason!)
      return false
    }
    try {
      const { site, inverse } = apply(this.shown.document, command)
      const change: Change = { version: --this.unstored, command, inverse, undoes, tab: this.tab }
      const storing = this.shown.reason === null ? 'storing' : 'waiting'
      this.show({ document: site, stacks: this.after(this.shown.stacks, change), storing })
      this.enqueue((request) => api.change(this.key, { ...request, command, undoes: change.undoes }), change)
      return true
    } catch (error) {
      if (!(error instanceof CommandError)) throw error
      this.tell(error.message)
      if (undoes !== null) this.fix(undoes)
      return false
    }
  }

  /** Undoes everything after a version, as one change. */
  backTo(version: number): void {
    this.enqueue((request) => api.goBack(this.key, { ...request, version }), null)
  }

  /** Takes over a new version of a page. */
  revise(page: string, source: string, decisions: Decisions): void {
    this.enqueue((request) => api.revise(this.key, page, { ...request, source, decisions }), null)
  }

  readonly undo = (): void => void this.takeBack('undo')
  readonly redo = (): void => void this.takeBack('redo')

  /** Called with the site's latest version. */
  follow(version: number): void {
    this.latest = Math.max(this.latest, version)
    this.on('told')
  }

  private async takeBack(name: StackName): Promise<void> {
    const last = this.shown.stacks[name].at(-1)
    if (last) this.run(last.inverse, last.version)
    if (this.shown.stacks[name].length < FEW && !this.isWhole[name]) {
      await this.fetchEarlier(name)
      if (!last && this.shown.stacks[name].length) await this.takeBack(name)
    }
  }

  private async fetchEarlier(name: StackName): Promise<void> {
    const first = () => this.shown.stacks[name].find((c) => c.version > 0)?.version ?? this.version + 1
    const before = first()
    const earlier = await api.earlierChanges(this.key, name, before).catch(() => null)
    // The stack may have been reloaded meanwhile.
    if (!earlier || first() !== before) return
    this.isWhole[name] = earlier.length < STACK_PAGE
    const { stacks } = this.shown
    const added = this.ours(earlier).filter(({ version }) => !this.waiting.some(({ change }) => change?.undoes === version))
    this.show({ stacks: { ...stacks, [name]: [...added, ...stacks[name]] } })
  }

  private after(stacks: Stacks, change: Change): Stacks {
    // The server clears it too, with the change.
    if (change.undoes === null) this.isWhole.redo = true
    return afterChange(stacks, change)
  }

  private enqueue(send: Waiting['send'], change: Change | null): void {
    const request = { idempotencyKey: crypto.randomUUID(), baseVersion: this.version, tab: this.tab }
    this.waiting.push({ request, send, change })
    this.on('changed')
  }

  private on(event: Event): void {
    const facts = { isWaiting: this.waiting.length > 0, isBehind: this.latest > this.version, isAstray: this.isAstray }
    const state = stateAfter(this.state, event, facts)
    this.state = state ?? this.state
    // Only other tabs' changes are missing then.
    const isOurs = facts.isWaiting || facts.isAstray
    const isGone = this.state === 'gone'
    const storing = isGone ? 'gone' : this.shown.reason !== null ? 'waiting' : isOurs ? 'storing' : 'stored'
    if (storing !== this.shown.storing) this.show({ storing })
    // Asynchronous, so that a change is drawn first.
    if (state === 'sending') setTimeout(() => void this.send(this.waiting[0]!))
    else if (state === 'reloading') void this.reload()
    else if (state === 'refused') this.drop(this.waiting[0]!)
    else if (state === 'offline') setTimeout(() => this.on('on'), PAUSE)
  }

  private show(changed: Partial<SessionState>): void {
    this.shown = { ...this.shown, ...changed }
    for (const listener of this.listeners) listener()
  }

  private async send(waiting: Waiting): Promise<void> {
    try {
      const { version } = await waiting.send(waiting.request)
      this.waiting.shift()
      this.latest = Math.max(this.latest, version)
      if (waiting.change) {
        // Otherwise another tab's change came in between and must be read.
        if (version === this.version + 1) this.version = version
        this.name(waiting.change, version)
      }
      this.clearReason()
      this.on('stored')
    } catch (error) {
      this.failed(error)
    }
  }

  private failed(error: unknown): void {
    const reason = messageOf(error)
    if (isPassing(error)) {
      this.show({ reason })
      return this.on('failed')
    }
    if (this.state === 'reloading') this.show({ reason })
    this.tell(reason)
    this.on('refused')
  }

  private clearReason(): void {
    if (this.shown.reason !== null) this.show({ reason: null })
  }

  /** Assigns the server's version to a change. */
  private name(change: Change, version: number): void {
    const { version: before } = change
    const { undo, redo } = this.shown.stacks
    const named = (c: Change) => (c.version === before ? { ...c, version } : c)
    this.show({ stacks: { undo: undo.map(named), redo: redo.map(named) } })
    for (const { change: later } of this.waiting) if (later?.undoes === before) later.undoes = version
  }

  /** Drops a change with its undos; other waiting ones stay. */
  private drop({ change }: Waiting): void {
    this.waiting.shift()
    this.isAstray = true
    if (change?.undoes != null) this.fix(change.undoes)
    if (change) this.dropWhatUndoes(change)
    this.on('on')
  }

  private dropWhatUndoes({ version }: Change): void {
    const those = this.waiting.flatMap(({ change }) => (change?.undoes === version ? [change] : []))
    this.waiting = this.waiting.filter(({ change }) => !change || !those.includes(change))
    for (const change of those) this.dropWhatUndoes(change)
  }

  private fix(version: number): void {
    this.fixed.add(version)
    const { undo, redo } = this.shown.stacks
    this.show({ stacks: { undo: this.ours(undo), redo: this.ours(redo) } })
  }

  /** Without other tabs' changes since this one opened, and without those that can't be undone. */
  private ours(stack: readonly Change[]): Change[] {
    return stack.filter(({ version, tab }) => !this.fixed.has(version) && (tab === this.tab || version <= this.openedAt))
  }

  private async reload(): Promise<void> {
    const { latest } = this
    try {
      const loaded = await api.site(this.key)
      // Newer versions reported meanwhile may be missing; a restored server has none.
      if (this.latest === latest) this.latest = loaded.version
      this.version = loaded.version
      this.isAstray = false
      this.clearReason()
      this.take(loaded)
      this.on('loaded')
    } catch (error) {
      this.failed(error)
    }
  }

  /** Shows the loaded site with waiting changes on top. Those that no longer fit are reported. */
  private take(loaded: SiteState): void {
    Object.assign(this.isWhole, wholeIn(loaded.stacks))
    let { document } = loaded
    let stacks: Stacks = { undo: this.ours(loaded.stacks.undo), redo: this.ours(loaded.stacks.redo) }
    for (const waiting of [...this.waiting]) {
      const { change } = waiting
      if (!change || !this.waiting.includes(waiting)) continue
      try {
        const { site, inverse } = apply(document, change.command)
        document = site
        change.inverse = inverse
        stacks = this.after(stacks, change)
      } catch (error) {
        if (!(error instanceof CommandError)) throw error
        this.tell(`“${describe(change.command)}” was not kept: ${error.message}`)
        this.waiting.splice(this.waiting.indexOf(waiting), 1)
        this.dropWhatUndoes(change)
      }
    }
    this.show({ document, stacks })
  }
}

const wholeIn = ({ undo, redo }: Stacks) => ({ undo: undo.length < STACK_PAGE, redo: redo.length < STACK_PAGE })

const messageOf = (error: unknown): string => (error instanceof Error ? error.message : String(error))

/** True for a failure that a repeated request may avoid: no answer, or a server that can't at the moment. */
const isPassing = (error: unknown): error is ApiError => error instanceof ApiError && (error.status === 0 || error.status >= 500)

export const undoName = (stacks: Stacks): string | null => nameOf(stacks.undo.at(-1), ({ command, inverse }) => [command, inverse])
export const redoName = (stacks: Stacks): string | null => nameOf(stacks.redo.at(-1), ({ command, inverse }) => [inverse, command])
/** @param inTurn a change's two commands, the one that adds or removes first */
function nameOf(change: Change | undefined, inTurn: (change: Change) => [Command, Command]): string | null {
  if (!change) return null
  const [first, second] = inTurn(change)
  const much = extent(first) ?? extent(second)
  return `${lowerFirst(describe(change.command))}${much ? ` (${much})` : ''}`
}
const lowerFirst = (text: string) => text.charAt(0).toLowerCase() + text.slice(1)
