/** The machine's table, and that the one in docs/script.md tells it. */
import { readFileSync } from 'node:fs'
import { table, type Event, type State } from './way.ts'

const states = Object.keys(table) as State[]
const events: Event[] = ['asked', 'asked for none', 'history', 'hand', 'there', 'elsewhere', 'settled', 'shift', 'scroll']
const after = (state: State, event: Event) => table[state][event] ?? [state]

describe('from every state', () => {
  it.each(states)('%s: history, or a link to no section, leads to rest and moves nothing', (state) => {
    expect(after(state, 'history')).toEqual(['rest'])
    expect(after(state, 'asked for none')).toEqual(['rest'])
  })
  it.each(states)('%s: what is asked for is under way, untouched', (state) => expect(after(state, 'asked')[0]).toBe('under way'))
})

it.each(states.filter((s) => s.includes('touched')))('moves nothing once the visitor acted: %s', (state) => {
  for (const event of events.filter((e) => e !== 'asked')) expect([undefined, 'hold']).toContain(after(state, event)[1])
})

it('moves nothing at rest, until something is asked for', () => {
  for (const event of events.filter((e) => e !== 'asked')) expect(after('rest', event)).toEqual(['rest'])
})

it('ends with the goal reached, corrected, or where the visitor went instead', () => {
  expect(after('under way', 'there')).toEqual(['held', 'hold'])
  expect(after('under way', 'elsewhere')).toEqual(['under way', 'set'])
  expect(after('under way, touched', 'there')).toEqual(['held, touched', 'hold'])
  expect(after('under way, touched', 'elsewhere')).toEqual(['rest'])
})

it('is in docs/script.md, row by row', () => {
  const text = readFileSync(new URL('../../../docs/script.md', import.meta.url), 'utf8')
  const rows = text
    .slice(text.indexOf('| state | event |'))
    .split('\n\n')[0]!
    .split('\n')
    .slice(2)
    .map((line) =>
      line
        .split('|')
        .slice(1, 5)
        .map((cell) => cell.trim()),
    )
  const told = rows.map(([state, event, then, act]) => [state, event, then, act === '' ? undefined : act])
  const there = states.flatMap((state) =>
    events.flatMap((event) => (table[state][event] ? [[state, event, table[state][event][0], table[state][event][1]]] : [])),
  )
  expect(told).toEqual(there)
})
