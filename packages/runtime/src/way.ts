/**
 * The visitor's way through the page, as a small machine. `docs/script.md` has its table, and a test each row of it. It knows nothing of a page:
 * what it is told are facts, and what it says is what to do.
 */

/** What a followed link leads to. */
export interface Goal {
  /** A section's ID, or the page's top. */
  id: string
  /** The link that was pressed; null for an arrival by the address alone. */
  link: Element | null
}

export type State =
  /** Nothing was asked for, or the visitor has moved on: the place says which section is current. */
  | { is: 'rest' }
  /** A link was followed, and the page is on its way there. */
  | { is: 'under way'; goal: Goal; touched: boolean }
  /** It has arrived, and its item stays current until the visitor moves on. */
  | { is: 'held'; goal: Goal; touched: boolean }

export type Event =
  /** A link or an address asks for a goal; null where it leads to no section. */
  | { is: 'asked'; goal: Goal | null }
  /** The browser moves through the history, and puts the page where the visitor left it. */
  | { is: 'history' }
  /** The visitor takes a hand: wheel, touch, key, press. */
  | { is: 'hand' }
  /** Nothing has moved for a while. */
  | { is: 'still'; isThere: boolean }
  /** The header has taken another state; young where the arrival was just now. */
  | { is: 'settled'; isYoung: boolean }
  /** The layout shifted, and the page with it. */
  | { is: 'shift' }
  /** The page stands elsewhere, by nothing that the layout did. */
  | { is: 'scroll' }

export type Act =
  /** Go towards the goal anew, in the page's own motion. */
  | 'aim'
  /** Put the page right at once, and hold it there. */
  | 'set'
  /** Where it stands is where it arrived. */
  | 'hold'
  /** Move by as much as the goal did, so that nothing seen moves. */
  | 'keep'
  | null

const REST: State = { is: 'rest' }

export function next(state: State, event: Event): [State, Act] {
  if (event.is === 'history') return [REST, null]
  if (event.is === 'asked') {
    if (!event.goal) return [REST, null]
    // On its way to another place a browser may stay with that.
    return [{ is: 'under way', goal: event.goal, touched: false }, state.is === 'under way' ? 'aim' : null]
  }
  if (state.is === 'rest') return [state, null]
  const { goal, touched } = state
  if (event.is === 'hand') return [{ ...state, touched: true }, null]
  if (state.is === 'under way') {
    if (event.is === 'settled') return [state, touched ? null : 'aim']
    if (event.is !== 'still') return [state, null]
    if (touched && !event.isThere) return [REST, null]
    return [{ is: 'held', goal, touched }, event.isThere ? 'hold' : 'set']
  }
  if (event.is === 'scroll') return [REST, null]
  if (event.is === 'shift') return [state, touched ? 'hold' : 'keep']
  if (event.is === 'settled' && event.isYoung && !touched) return [state, 'set']
  return [state, null]
}
