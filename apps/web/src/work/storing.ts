/** States of a session while it stores changes, and transitions. */

export type State =
  /** Everything is stored, and everything stored is shown. */
  | 'idle'
  /** The first waiting change is being sent. */
  | 'sending'
  /** The server refused it, and it's dropped. */
  | 'refused'
  /** The site is read again. */
  | 'reloading'
  /** The server can't answer; the request is repeated after a pause. */
  | 'offline'
  /** The site can't be read any more, for example because it was removed. Nothing is sent. */
  | 'gone'

export type Event =
  /** A change waits. */
  | 'changed'
  /** The server stored the change. */
  | 'stored'
  /** The server refused it for good. */
  | 'refused'
  /** No answer, or a temporary failure. */
  | 'failed'
  /** Another tab changed the site. */
  | 'told'
  /** The site was read. */
  | 'loaded'
  /** The pause is over, or the refused change is dropped. */
  | 'on'

export interface Facts {
  isWaiting: boolean
  /** A stored change isn't shown yet. */
  isBehind: boolean
  /** A refused change is still shown. */
  isAstray: boolean
}

/** A request without answer is repeated before the site is read: it may be stored already, and must not be made twice. */
const next = ({ isWaiting, isBehind, isAstray }: Facts): State =>
  isAstray ? 'reloading' : isWaiting ? 'sending' : isBehind ? 'reloading' : 'idle'

type Way = State | typeof next

const table: Record<State, Partial<Record<Event, Way>>> = {
  idle: { changed: next, told: next },
  sending: { stored: next, refused: 'refused', failed: 'offline' },
  refused: { on: next },
  reloading: { loaded: next, refused: 'gone', failed: 'offline' },
  offline: { on: next },
  gone: {},
}

/** @returns null if the event changes nothing in this state */
export function stateAfter(state: State, event: Event, facts: Facts): State | null {
  const way = table[state][event]
  return typeof way === 'function' ? way(facts) : (way ?? null)
}
