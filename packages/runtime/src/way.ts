/**
 * The visitor's way through the page, as a state machine: transitions and actions. `docs/script.md` explains it. It knows nothing about
 * a page.
 */

export type State =
  /** Nothing was followed, or the visitor moved on: the position decides the current section. */
  | 'rest'
  /** A link was followed and the page is on its way; `touched` if the visitor scrolled since. */
  | 'under way'
  | 'under way, touched'
  /** Arrived; its item stays current until the visitor moves on. */
  | 'held'
  | 'held, touched'

export type Event =
  /** A link or address asks for a section, or for something else. */
  | 'asked'
  | 'asked for none'
  /** The browser goes back or forward and restores the position. */
  | 'history'
  /** The visitor acts: wheel, touch, key, press. */
  | 'hand'
  /** Nothing has moved for a while: at the goal, or elsewhere. */
  | 'there'
  | 'elsewhere'
  /** The header changed its state, right after or before an arrival. */
  | 'settled'
  /** The layout shifted, and the page with it. */
  | 'shift'
  /** The page is elsewhere, without a layout change. */
  | 'scroll'

export type Act =
  /** Scroll to the goal again, with the page's motion. */
  | 'aim'
  /** Correct the position at once. */
  | 'set'
  /** The present position is the arrival. */
  | 'hold'
  /** Move as much as the goal did, so that nothing visible moves. */
  | 'keep'

const leave = { 'asked for none': ['rest'], history: ['rest'] } as const

/** Missing entries change nothing. */
export const table: Record<State, { [E in Event]?: readonly [State, Act?] }> = {
  rest: { asked: ['under way'] },
  'under way': {
    ...leave,
    // On its way elsewhere, a browser may keep that goal.
    asked: ['under way', 'aim'],
    hand: ['under way, touched'],
    there: ['held', 'hold'],
    // A busy browser's remaining movement comes on top, and is checked.
    elsewhere: ['under way', 'set'],
    settled: ['under way', 'aim'],
  },
  'under way, touched': { ...leave, asked: ['under way', 'aim'], there: ['held, touched', 'hold'], elsewhere: ['rest'] },
  held: { ...leave, asked: ['under way'], hand: ['held, touched'], settled: ['held', 'set'], shift: ['held', 'keep'], scroll: ['rest'] },
  'held, touched': { ...leave, asked: ['under way'], shift: ['held, touched', 'hold'], scroll: ['rest'] },
}
