import type { Command, Section, SitePage } from '@waybell/core'
import { defaultRule } from '@waybell/core'
import { backRequest, changeRequest, stateName, takingRequest } from '../src/sites/requests.ts'

const section: Section = {
  key: 's1',
  at: 10,
  point: { shift: -4 },
  title: 'A',
  id: 'a',
  sourceId: null,
  former: ['b'],
  heading: null,
  depth: 1,
  toTop: false,
}
const setUp = {
  sections: [section],
  menus: [],
  header: null,
  travel: { smooth: true, breathing: 24 },
  highlight: { bellOffset: 24 },
}
const page: SitePage = { key: 'p2', file: 'sub/more.html', source: 'a'.repeat(64), title: 'T', ...setUp }
const check = (command: unknown) =>
  changeRequest.validate({ idempotencyKey: 'key-12345', baseVersion: 0, command, undoes: null }, { convert: false, presence: 'required' })
    .error?.message ?? null

const sound: Command[] = [
  { type: 'site/rule', rule: { ...defaultRule, separator: '', prefix: 'x', dropped: ['the'] } },
  { type: 'page/add', page, index: 1 },
  { type: 'page/drop', page: 'p2' },
  { type: 'page/set-up', page: 'p1', setUp },
  { type: 'page/revise', page: 'p1', revision: { source: 'b'.repeat(64), title: '', ...setUp } },
  { type: 'section/add', page: 'p1', section },
  { type: 'section/id', page: 'p1', section: 's1', id: 'x', former: ['a', 'b'] },
  { type: 'section/depth', page: 'p1', section: 's1', depth: 2 },
  { type: 'section/point', page: 'p1', section: 's1', at: 5, shift: 12.5 },
  {
    type: 'menu/add',
    page: 'p1',
    index: 0,
    menu: {
      key: 'm',
      name: '',
      form: { kind: 'found', elements: [1, 9] },
      items: [{ key: 'i', label: '', target: { kind: 'section', section: 's1' }, links: [2, 10] }],
    },
  },
  { type: 'menu/add', page: 'p1', index: 0, menu: { key: 'm', name: '', form: { kind: 'bar', place: 'after-header' }, items: [] } },
  { type: 'header/choose', page: 'p1', header: { at: 3, keep: 'sticky', backing: 'oklch(0.9 0.01 200)' } },
]

describe('incoming commands', () => {
  it.each(sound.map((c) => [c.type, c]))('%s is accepted as made', (_, command) => expect(check(command)).toBeNull())
  it('are accepted in batches, nested too', () =>
    expect(check({ type: 'batch', label: 'x', commands: [sound[6], { type: 'batch', label: 'y', commands: [sound[7]] }] })).toBeNull())

  it.each<[string, unknown]>([
    ['of no kind that is known', { type: 'site/burn' }],
    ['with more than it has', { type: 'page/drop', page: 'p2', force: true }],
    ['without what it needs', { type: 'section/id', page: 'p1', section: 's1', id: 'x' }],
    ['with a place that is none', { type: 'section/point', page: 'p1', section: 's1', at: -1, shift: 0 }],
    ['with a shift beyond all pages', { type: 'section/point', page: 'p1', section: 's1', at: 1, shift: 1e9 }],
    ['with a depth that is no whole number', { type: 'section/depth', page: 'p1', section: 's1', depth: 0.5 }],
    ['with a source that is no hash', { type: 'page/revise', page: 'p1', revision: { source: 'x', title: '', ...setUp } }],
    ['with a rule that has another separator', { type: 'site/rule', rule: { ...defaultRule, separator: '.' } }],
    ['with a rule that leaves no room', { type: 'site/rule', rule: { ...defaultRule, longest: 0 } }],
    [
      'with a backing that is no colour',
      { type: 'header/choose', page: 'p1', header: { at: 1, keep: 'sticky', backing: 'red; } body { display: none' } },
    ],
    ['hidden in a batch', { type: 'batch', label: 'x', commands: [{ type: 'site/burn' }] }],
  ])('are refused %s', (_, command) => expect(check(command)).not.toBeNull())
})

it('checks going back, naming a state and taking a version over', () => {
  const fails = (schema: typeof backRequest, value: unknown) =>
    schema.validate(value, { convert: false, presence: 'required' }).error !== undefined
  expect(fails(backRequest, { idempotencyKey: 'key-12345', baseVersion: 3, version: 1 })).toBe(false)
  expect(fails(backRequest, { idempotencyKey: 'key-12345', baseVersion: 3, version: -1 })).toBe(true)
  expect(fails(stateName, { name: 'x'.repeat(201) })).toBe(true)
  const taking = {
    idempotencyKey: 'key-12345',
    baseVersion: 3,
    source: 'c'.repeat(64),
    decisions: { sections: { s1: 5, s2: null }, added: [9] },
  }
  expect(fails(takingRequest, taking)).toBe(false)
  expect(fails(takingRequest, { ...taking, decisions: { sections: { s1: 'x' }, added: [] } })).toBe(true)
})
