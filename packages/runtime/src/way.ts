/**
 * The visitor's way through the page, as a small machine: what leads from one state to the next, and what is done then. `docs/script.md` tells it in
 * words. It knows nothing of a page.
 */

export type State =
  /** Nothing was asked for, or the visitor has moved on: the place says which section is current. */
  | 'rest'
  /** A link was followed, and the page is on its way there; touched where the visitor took a hand since. */
  | 'under way'
  | 'under way, touched'
  /** It has arrived, and its item stays current until the visitor moves on. */
  | 'held'
  | 'held, touched'

export type Event =
  /** A link or an address asks for a section, or for what is none. */
  | 'asked'
  | 'asked for none'
  /** The browser moves through the history, and puts the page where the visitor left it. */
  | 'history'
  /** The visitor takes a hand: wheel, touch, key, press. */
  | 'hand'
  /** Nothing has moved for a while: the page stands where the link leads, or elsewhere. */
  | 'there'
  | 'elsewhere'
  /** The header has taken another state, and the arrival was just now or is to come. */
  | 'settled'
  /** The layout shifted, and the page with it. */
  | 'shift'
  /** The page stands elsewhere, by nothing that the layout did. */
  | 'scroll'

export type Act =
  /** Go towards the goal anew, in the page's own motion. */
  | 'aim'
  /** Put the page right at once. */
  | 'set'
  /** Where it stands is where it arrived. */
  | 'hold'
  /** Move by as much as the goal did, so that nothing seen moves. */
  | 'keep'

const leave = { 'asked for none': ['rest'], history: ['rest'] } as const

/** What is not in it changes nothing. */
export const table: Record<State, { [E in Event]?: readonly [State, Act?] }> = {
  rest: { asked: ['under way'] },
  'under way': {
    ...leave,
    // On its way to another place a browser may stay with that.
    asked: ['under way', 'aim'],
    hand: ['under way, touched'],
    there: ['held', 'hold'],
    // What a busy browser still had to move by comes on top of that, and is looked for.
    elsewhere: ['under way', 'set'],
    settled: ['under way', 'aim'],
  },
  'under way, touched': { ...leave, asked: ['under way', 'aim'], there: ['held, touched', 'hold'], elsewhere: ['rest'] },
  held: { ...leave, asked: ['under way'], hand: ['held, touched'], settled: ['held', 'set'], shift: ['held', 'keep'], scroll: ['rest'] },
  'held, touched': { ...leave, asked: ['under way'], shift: ['held, touched', 'hold'], scroll: ['rest'] },
}
