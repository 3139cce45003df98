import fc from 'fast-check'
import { defaultRule } from '../naming/index.ts'
import {
  afterChange,
  apply,
  clash,
  CommandError,
  defaultScreens,
  emptyStacks,
  type Change,
  type Command,
  renameSection,
  upgradeCommand,
  upgradeSite,
  type Section,
  type Site,
  type SitePage,
} from './index.ts'

const section = (n: number): Section => ({
  key: `s${n}`,
  at: n * 10,
  point: n % 2 ? null : { shift: n },
  title: `Section ${n}`,
  id: `id-${n}`,
  own: null,
  former: [],
  heading: null,
  depth: 0,
  toTop: n === 1,
})
const site: Site = {
  format: 'way-bell-site',
  version: 2,
  name: 'Site',
  rule: defaultRule,
  screens: defaultScreens,
  pages: [
    {
      key: 'p1',
      file: 'index.html',
      source: '0',
      title: 'T',
      sections: [section(1), section(2), section(3)],
      menus: [
        {
          key: 'm1',
          name: 'M',
          at: null,
          items: [1, 2, 3].map((n) => ({ key: `i${n}`, label: `Item ${n}`, target: { kind: 'section', section: `s${n}` }, link: null })),
        },
      ],
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
  fc.record({
    type: fc.constant('section/id' as const),
    page: fc.constant(page),
    section: key,
    id: fc.constantFrom('id-1', 'id-2', 'new', ''),
    former: fc.array(fc.constantFrom('was', 'was-2'), { maxLength: 2 }),
  }),
  fc.record({ type: fc.constant('section/depth' as const), page: fc.constant(page), section: key, depth: fc.nat(3) }),
  fc.record({
    type: fc.constant('section/point' as const),
    page: fc.constant(page),
    section: key,
    at: fc.constantFrom(5, 10, 20, 35),
    shift: fc.integer({ min: -50, max: 50 }),
  }),
  fc.record({ type: fc.constant('site/rule' as const), rule: fc.constantFrom(defaultRule, { ...defaultRule, prefix: 'p' }) }),
  fc.record({
    type: fc.constant('page/add' as const),
    page: fc.constantFrom('p1', 'p2').map((k): SitePage => ({ ...site.pages[0]!, key: k, file: `${k}.html` })),
    index: fc.nat(2),
  }),
  fc.record({ type: fc.constant('page/drop' as const), page: fc.constantFrom('p1', 'p2') }),
  fc.record({ type: fc.constant('section/drop' as const), page: fc.constant(page), section: key }),
  fc.record({ type: fc.constant('section/add' as const), page: fc.constant(page), section: fc.integer({ min: 1, max: 5 }).map(section) }),
  fc.record({ type: fc.constant('item/move' as const), page: fc.constant(page), menu: fc.constant('m1'), item, index: fc.nat(5) }),
  fc.record({ type: fc.constant('item/drop' as const), page: fc.constant(page), menu: fc.constant('m1'), item }),
  fc.record({ type: fc.constant('item/label' as const), page: fc.constant(page), menu: fc.constant('m1'), item, label: fc.string() }),
  fc.record({
    type: fc.constant('item/target' as const),
    page: fc.constant(page),
    menu: fc.constant('m1'),
    item,
    target: fc.oneof(
      fc.constant({ kind: 'top' as const }),
      key.map((s) => ({ kind: 'section' as const, section: s })),
    ),
  }),
  fc.record({ type: fc.constant('menu/drop' as const), page: fc.constant(page), menu: fc.constant('m1') }),
  fc.record({ type: fc.constant('travel/breathing' as const), page: fc.constant(page), breathing: fc.nat(200) }),
  fc.record({ type: fc.constant('travel/smooth' as const), page: fc.constant(page), smooth: fc.boolean() }),
)
const command: fc.Arbitrary<Command> = fc.oneof(
  single,
  fc.array(single, { maxLength: 4 }).map((commands) => ({ type: 'batch' as const, label: 'Several', commands })),
)

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
    apply(site, {
      type: 'batch',
      label: '',
      commands: [
        { type: 'item/drop', page, menu: 'm1', item: 'i1' },
        { type: 'section/drop', page, section: 's1' },
      ],
    })
    expect(site).toEqual(before)
  })

  it('refuse an ID that another section has, and say whose it is', () =>
    expect(() => apply(site, { type: 'section/id', page, section: 's1', id: 'id-2', former: [] })).toThrow(
      'the section “Section 2” has the ID “id-2” already',
    ))
  it('refuse to drop a section that an item leads to', () =>
    expect(() => apply(site, { type: 'section/drop', page, section: 's1' })).toThrow('the item “Item 1” leads to this section'))

  it('can be done in either order where they do not clash', () =>
    fc.assert(
      fc.property(command, command, (a, b) => {
        const [first, second] = [tryApply(site, a), tryApply(site, b)]
        fc.pre(!!first && !!second && !clash(a, b))
        const ab = tryApply(first!.site, b)
        const ba = tryApply(second!.site, a)
        // Adding, dropping and moving speak of places in an order, which the later one may find changed.
        if (ab && ba && !/add|drop|move|point/.test(JSON.stringify([a, b]))) expect(ab.site).toEqual(ba.site)
      }),
    ))
})

it('undo and redo go back and forth over changes', () => {
  let stacks = emptyStacks
  let version = 0
  const change = (undoes: number | null): Change => ({
    version: ++version,
    command: { type: 'site/rename', name: String(version) },
    inverse: { type: 'site/rename', name: '' },
    undoes,
  })
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

it('keeps the former ID of a section that is renamed, and forgets it when it comes back', () => {
  const ids = (s: Site) => [s.pages[0]!.sections[0]!.id, s.pages[0]!.sections[0]!.former]
  const rename = (s: Site, id: string) => apply(s, renameSection(page, s.pages[0]!.sections[0]!, id))
  const once = rename(site, 'work')
  expect(ids(once.site)).toEqual(['work', ['id-1']])
  const twice = rename(once.site, 'our-work')
  expect(ids(twice.site)).toEqual(['our-work', ['id-1', 'work']])
  expect(ids(rename(twice.site, 'id-1').site)).toEqual(['id-1', ['work', 'our-work']])
  expect(apply(once.site, once.inverse).site).toEqual(site)
})

it('moves points only', () => {
  expect(() => apply(site, { type: 'section/point', page, section: 's1', at: 5, shift: 0 })).toThrow(
    '“Section 1” is an element of the page',
  )
  const moved = apply(site, { type: 'section/point', page, section: 's2', at: 30, shift: -8 }).site.pages[0]!.sections
  expect(moved.map((s) => s.key)).toEqual(['s1', 's2', 's3'])
})

describe('what version 1 stored', () => {
  const old = { key: 's1', at: 10, title: 'A', id: 'a', heading: null, toTop: true }
  const now = { ...old, point: null, own: null, former: [], depth: 0 }
  it('is read as a document of this version', () => {
    const upgraded = upgradeSite({
      ...site,
      version: 1,
      rule: { separator: '_', longest: 20, beforeDigit: 'n' },
      pages: [{ ...site.pages[0]!, sections: [old] }],
    })
    expect(upgraded).toMatchObject({ version: 2, rule: { ...defaultRule, separator: '_', longest: 20, beforeDigit: 'n' } })
    expect(upgraded.pages[0]!.sections).toEqual([now])
    expect(upgradeSite(upgraded)).toBe(upgraded)
  })
  it('is read as commands of this version', () => {
    const { menus, header, bar, travel, highlight } = site.pages[0]!
    const setUp = { sections: [old], menus, header, bar, travel, highlight }
    expect(
      upgradeCommand({
        type: 'batch',
        label: '',
        commands: [
          { type: 'section/add', page, section: old },
          { type: 'page/set-up', page, setUp },
          { type: 'section/id', page, section: 's1', id: 'b' },
        ],
      }),
    ).toEqual({
      type: 'batch',
      label: '',
      commands: [
        { type: 'section/add', page, section: now },
        { type: 'page/set-up', page, setUp: { ...setUp, sections: [now] } },
        { type: 'section/id', page, section: 's1', id: 'b', former: [] },
      ],
    })
  })
  it('is not taken from a later version', () => expect(() => upgradeSite({ ...site, version: 3 })).toThrow('made by a newer Way Bell'))
})
