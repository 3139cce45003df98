/** The states of a session while changes are stored, and where each event leads. */

export type State =
  /** Everything is stored, and everything that is stored is shown. */
  | 'idle'
  /** The first waiting change is on its way. */
  | 'sending'
  /** The server said no to that change, and it is dropped. */
  | 'refused'
  /** The site is read again from the server. */
  | 'reloading'
  /** The server can't answer for now; the same is asked again after a pause. */
  | 'offline'
  /** The site can't be read any more, say because it was removed. Nothing is sent. */
  | 'gone'

export type Event =
  /** A change waits to be sent. */
  | 'changed'
  /** The server has stored what was sent. */
  | 'stored'
  /** The server said no, and would say so again. */
  | 'refused'
  /** No answer, or one that the same request may not get again. */
  | 'failed'
  /** Another tab changed the site. */
  | 'told'
  /** The site was read. */
  | 'loaded'
  /** The pause is over, or what was refused is dropped. */
  | 'on'

export interface Facts {
  isWaiting: boolean
  /** What is shown lacks a stored change. */
  isBehind: boolean
  /** What is shown has a change that was refused. */
  isAstray: boolean
}

/** A request whose answer was lost is repeated before the site is read: it may be in there, and must not be made twice. */
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

/** @returns null where the event changes nothing in this state */
export function stateAfter(state: State, event: Event, facts: Facts): State | null {
  const way = table[state][event]
  return typeof way === 'function' ? way(facts) : (way ?? null)
}
