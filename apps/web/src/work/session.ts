/**
 * One site while it is worked on. The core's own function applies a command here at once; then it is sent, and the server applies the same.
 * One request is under way at a time: a change, or the reading of the site. `storing.ts` has the states.
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

/** Before the same is asked again, in ms. */
const PAUSE = 1500
/** Earlier changes are fetched once a stack has fewer than this. */
const FEW = 20

/** `gone`: nothing is stored any more. */
export type Storing = 'stored' | 'storing' | 'waiting' | 'gone'

export interface SessionState {
  document: Site
  stacks: Stacks
  storing: Storing
  /** Why something waits to be stored, where it does. */
  reason: string | null
}

interface Waiting {
  request: ChangeOf
  send: (request: ChangeOf) => Promise<{ version: number }>
  /** Null where the server works the change out. */
  change: Change | null
}

export class Session {
  private shown: SessionState
  private state: State = 'idle'
  /** Names this tab to the server. */
  readonly tab = crypto.randomUUID()
  private waiting: Waiting[] = []
  private readonly listeners = new Set<() => void>()
  /** Of what is shown, without what waits. */
  private version: number
  /** The latest that is known to be stored. */
  private latest: number
  private readonly openedAt: number
  private isAstray = false
  /** Versions that could not be taken back: others go before them. */
  private readonly fixed = new Set<number>()
  /** All changes of the stack are here. */
  private readonly isWhole: Record<StackName, boolean>
  /** Changes that have no version yet count down from here. */
  private unstored = 0

  constructor(
    private readonly key: string,
    loaded: SiteState,
    /** Told when something did not go through. */
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

  /** @returns false where the command does not fit the site as it is; the reason was told */
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

  /** Takes back everything that came after a version, as one change. */
  backTo(version: number): void {
    this.enqueue((request) => api.goBack(this.key, { ...request, version }), null)
  }

  /** Takes over a new version of a page. */
  revise(page: string, source: string, decisions: Decisions): void {
    this.enqueue((request) => api.revise(this.key, page, { ...request, source, decisions }), null)
  }

  readonly undo = (): void => void this.takeBack('undo')
  readonly redo = (): void => void this.takeBack('redo')

  /** Told that the site has this version now. */
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
    // Meanwhile the stack may have been read anew.
    if (!earlier || first() !== before) return
    this.isWhole[name] = earlier.length < STACK_PAGE
    const { stacks } = this.shown
    const added = this.ours(earlier).filter(({ version }) => !this.waiting.some(({ change }) => change?.undoes === version))
    this.show({ stacks: { ...stacks, [name]: [...added, ...stacks[name]] } })
  }

  private after(stacks: Stacks, change: Change): Stacks {
    // The server clears it as well, once it has the change.
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
    // What another tab did is still to come then, and nothing of ours.
    const isOurs = facts.isWaiting || facts.isAstray
    const isGone = this.state === 'gone'
    const storing = isGone ? 'gone' : this.shown.reason !== null ? 'waiting' : isOurs ? 'storing' : 'stored'
    if (storing !== this.shown.storing) this.show({ storing })
    // In a turn of its own, so that a change is drawn first.
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
        // Else another tab's change came in between, and is to be read.
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

  /** The server has given a change its version. */
  private name(change: Change, version: number): void {
    const { version: before } = change
    const { undo, redo } = this.shown.stacks
    const named = (c: Change) => (c.version === before ? { ...c, version } : c)
    this.show({ stacks: { undo: undo.map(named), redo: redo.map(named) } })
    for (const { change: later } of this.waiting) if (later?.undoes === before) later.undoes = version
  }

  /** With what takes it back, and so on; what else waits stays. */
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

  /** Without what other tabs changed while this one was open, and what can't be taken back. */
  private ours(stack: readonly Change[]): Change[] {
    return stack.filter(({ version, tab }) => !this.fixed.has(version) && (tab === this.tab || version <= this.openedAt))
  }

  private async reload(): Promise<void> {
    const { latest } = this
    try {
      const loaded = await api.site(this.key)
      // What was told meanwhile may not be in it; a server that was set back to an earlier state has nothing later.
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

  /** Shows what was loaded, with what waits on top. What does not fit any more is told. */
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
