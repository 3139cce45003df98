import fc from 'fast-check'
import { afterChange, apply, clash, CommandError, defaultScreens, emptyStacks, type Change, type Command, type Section, type Site } from './index.ts'

const section = (n: number): Section => ({ key: `s${n}`, at: n * 10, title: `Section ${n}`, id: `id-${n}`, heading: null, toTop: n === 1 })
const site: Site = {
  format: 'way-bell-site',
  version: 1,
  name: 'Site',
  rule: { separator: '-', longest: 40, beforeDigit: 'section-' },
  screens: defaultScreens,
  pages: [
    {
      key: 'p1',
      file: 'index.html',
      source: '0',
      title: 'T',
      sections: [section(1), section(2), section(3)],
      menus: [{ key: 'm1', name: 'M', at: null, items: [1, 2, 3].map((n) => ({ key: `i${n}`, label: `Item ${n}`, target: { kind: 'section', section: `s${n}` }, link: null })) }],
      header: null,
      bar: 'top',
      travel: { smooth: true, breathing: 24 },
      highlight: { bellOffset: 24 },
    },
  ],
}

const page = 'p1'
const key = fc.constantFrom('s1', 's2', 's3', 's9')
const item = fc.constantFrom('i1', 'i2', 'i3', 'i9')
const single: fc.Arbitrary<Command> = fc.oneof(
  fc.record({ type: fc.constant('section/title' as const), page: fc.constant(page), section: key, title: fc.string() }),
  fc.record({ type: fc.constant('section/id' as const), page: fc.constant(page), section: key, id: fc.constantFrom('id-1', 'id-2', 'new', '') }),
  fc.record({ type: fc.constant('section/drop' as const), page: fc.constant(page), section: key }),
  fc.record({ type: fc.constant('section/add' as const), page: fc.constant(page), section: fc.integer({ min: 1, max: 5 }).map(section) }),
  fc.record({ type: fc.constant('item/move' as const), page: fc.constant(page), menu: fc.constant('m1'), item, index: fc.nat(5) }),
  fc.record({ type: fc.constant('item/drop' as const), page: fc.constant(page), menu: fc.constant('m1'), item }),
  fc.record({ type: fc.constant('item/label' as const), page: fc.constant(page), menu: fc.constant('m1'), item, label: fc.string() }),
  fc.record({ type: fc.constant('item/target' as const), page: fc.constant(page), menu: fc.constant('m1'), item, target: fc.oneof(fc.constant({ kind: 'top' as const }), key.map((s) => ({ kind: 'section' as const, section: s }))) }),
  fc.record({ type: fc.constant('menu/drop' as const), page: fc.constant(page), menu: fc.constant('m1') }),
  fc.record({ type: fc.constant('travel/breathing' as const), page: fc.constant(page), breathing: fc.nat(200) }),
  fc.record({ type: fc.constant('travel/smooth' as const), page: fc.constant(page), smooth: fc.boolean() }),
)
const command: fc.Arbitrary<Command> = fc.oneof(single, fc.array(single, { maxLength: 4 }).map((commands) => ({ type: 'batch' as const, label: 'Several', commands })))

/** Null where the command does not fit. */
function tryApply(to: Site, c: Command) {
  try {
    return apply(to, c)
  } catch (error) {
    if (error instanceof CommandError) return null
    throw error
  }
}

describe('commands', () => {
  it('are taken back by their inverse, whatever came before', () =>
    fc.assert(
      fc.property(fc.array(command, { maxLength: 12 }), (commands) => {
        let now = site
        for (const c of commands) {
          const done = tryApply(now, c)
          if (!done) continue
          expect(apply(done.site, done.inverse).site).toEqual(now)
          now = done.site
        }
      }),
    ))

  it('leave the document alone that they are given', () => {
    const before = structuredClone(site)
    apply(site, { type: 'batch', label: '', commands: [{ type: 'item/drop', page, menu: 'm1', item: 'i1' }, { type: 'section/drop', page, section: 's1' }] })
    expect(site).toEqual(before)
  })

  it('refuse an ID that another section has, and say whose it is', () =>
    expect(() => apply(site, { type: 'section/id', page, section: 's1', id: 'id-2' })).toThrow('the section “Section 2” has the ID “id-2” already'))
  it('refuse to drop a section that an item leads to', () => expect(() => apply(site, { type: 'section/drop', page, section: 's1' })).toThrow('the item “Item 1” leads to this section'))

  it('can be done in either order where they do not clash', () =>
    fc.assert(
      fc.property(command, command, (a, b) => {
        const [first, second] = [tryApply(site, a), tryApply(site, b)]
        fc.pre(!!first && !!second && !clash(a, b))
        const ab = tryApply(first!.site, b)
        const ba = tryApply(second!.site, a)
        // Adding, dropping and moving speak of places in an order, which the later one may find changed.
        if (ab && ba && !/add|drop|move/.test(JSON.stringify([a, b]))) expect(ab.site).toEqual(ba.site)
      }),
    ))
})

it('undo and redo go back and forth over changes', () => {
  let stacks = emptyStacks
  let version = 0
  const change = (undoes: number | null): Change => ({ version: ++version, command: { type: 'site/rename', name: String(version) }, inverse: { type: 'site/rename', name: '' }, undoes })
  const add = (undoes: number | null = null) => (stacks = afterChange(stacks, change(undoes)))
  add()
  add()
  add(stacks.undo.at(-1)!.version)
  expect([stacks.undo.length, stacks.redo.length]).toEqual([1, 1])
  add(stacks.redo.at(-1)!.version)
  expect([stacks.undo.length, stacks.redo.length]).toEqual([2, 0])
  add(stacks.undo.at(-1)!.version)
  add()
  expect([stacks.undo.length, stacks.redo.length]).toEqual([2, 0])
})
