/** Each row of the table in docs/script.md. */
import { readFileSync } from 'node:fs'
import { next, type Act, type Event, type Goal, type State } from './way.ts'

const goal: Goal = { id: 'rooms', link: null }
const other: Goal = { id: 'prices', link: null }
const rest: State = { is: 'rest' }
const underWay = (touched = false): State => ({ is: 'under way', goal, touched })
const held = (touched = false): State => ({ is: 'held', goal, touched })

type Row = [when: string, state: State, event: Event, then: State, act: Act]
const rows: Row[] = [
  ['a link is pressed', rest, { is: 'asked', goal }, underWay(), null],
  ['an address asks', rest, { is: 'asked', goal }, underWay(), null],
  ['another link is pressed', underWay(true), { is: 'asked', goal: other }, { ...underWay(), goal: other } as State, 'aim'],
  ['a link is pressed after an arrival', held(true), { is: 'asked', goal }, underWay(), null],
  ['what is asked for is no section', underWay(), { is: 'asked', goal: null }, rest, null],
  ['the history moves', underWay(), { is: 'history' }, rest, null],
  ['the history moves', held(), { is: 'history' }, rest, null],
  ['the visitor takes a hand', underWay(), { is: 'hand' }, underWay(true), null],
  ['the visitor takes a hand', held(), { is: 'hand' }, held(true), null],
  ['the header settles', underWay(), { is: 'settled', isYoung: true }, underWay(), 'aim'],
  ['the header settles', underWay(true), { is: 'settled', isYoung: true }, underWay(true), null],
  ['still, and there', underWay(), { is: 'still', isThere: true }, held(), 'hold'],
  ['still, and there', underWay(true), { is: 'still', isThere: true }, held(true), 'hold'],
  ['still, and elsewhere', underWay(), { is: 'still', isThere: false }, held(), 'set'],
  ['still, and elsewhere', underWay(true), { is: 'still', isThere: false }, rest, null],
  ['the layout shifts', underWay(), { is: 'shift' }, underWay(), null],
  ['the page scrolls', underWay(), { is: 'scroll' }, underWay(), null],
  ['the layout shifts', held(), { is: 'shift' }, held(), 'keep'],
  ['the layout shifts', held(true), { is: 'shift' }, held(true), 'hold'],
  ['the page scrolls', held(), { is: 'scroll' }, rest, null],
  ['the header settles', held(), { is: 'settled', isYoung: true }, held(), 'set'],
  ['the header settles', held(), { is: 'settled', isYoung: false }, held(), null],
  ['the header settles', held(true), { is: 'settled', isYoung: true }, held(true), null],
  ['the visitor takes a hand', rest, { is: 'hand' }, rest, null],
  ['still, and elsewhere', rest, { is: 'still', isThere: false }, rest, null],
  ['the layout shifts', rest, { is: 'shift' }, rest, null],
  ['the page scrolls', rest, { is: 'scroll' }, rest, null],
  ['the header settles', rest, { is: 'settled', isYoung: true }, rest, null],
]

const said = (state: State) => `${state.is}${state.is !== 'rest' && state.touched ? ', touched' : ''}`

it.each(rows.map((row) => [`${said(row[1])}: ${row[0]}`, row] as const))('%s', (_, [, state, event, then, act]) => {
  expect(next(state, event)).toEqual([then, act])
})

it('has in its table what it does, and nothing else', () => {
  const text = readFileSync(new URL('../../../docs/script.md', import.meta.url), 'utf8')
  const table = text
    .slice(text.indexOf('| state | event |'))
    .split('\n\n')[0]!
    .split('\n')
    .slice(2)
    .filter(Boolean)
    .map((line) =>
      line
        .split('|')
        .slice(1, 5)
        .map((cell) => cell.trim()),
    )
  for (const [, state, event, then, act] of rows) {
    const row = table.find(
      ([from, what]) => (from === 'any' || from!.split(' or ').includes(said(state))) && what!.split(' or ').includes(nameOf(event)),
    )
    expect([said(state), nameOf(event), row?.slice(2)]).toEqual([said(state), nameOf(event), [said(then), act ?? 'nothing']])
  }
  expect(table.length).toBeGreaterThan(0)
})

function nameOf(event: Event): string {
  if (event.is === 'asked') return event.goal ? 'asked' : 'asked for none'
  if (event.is === 'still') return event.isThere ? 'still, there' : 'still, elsewhere'
  if (event.is === 'settled') return event.isYoung ? 'settled' : 'settled late'
  return event.is
}
