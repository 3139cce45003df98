import fc from 'fast-check'
import type { AddressRule, Mark, Motion, Timed } from '../contract/index.ts'
import { defaultRule } from '../naming/index.ts'
import type { Adjust, MadeLink, MadeMenuForm, MenuLook, SiteAddress } from './document/index.ts'
import { aMenu, anItem, aPage, aSection, aSite } from './builder.ts'
import {
  afterChange,
  apply,
  clash,
  commandKinds,
  CommandError,
  emptyStacks,
  renameSection,
  secondCommand,
  ThirdLog,
  fourth,
  upgradeSite,
  type Change,
  type Command,
  type EndSpace,
  type Screen,
  type SetUp,
  type Site,
  type SitePage,
} from './index.ts'

const page = 'p1'
/** Odd ones are points; two of them stand before one element. */
const section = (n: number) => aSection(n, n % 2 ? { at: Math.ceil(n / 4) * 20, point: { shift: n } } : {})
const inOrder = [section(1), section(3), section(2), section(4)]
const sections = [...inOrder].sort((a, b) => a.at - b.at || Number(!a.point) - Number(!b.point) || a.point!.shift - b.point!.shift)
const site: Site = aSite(
  aPage({
    sections,
    menus: [
      aMenu([anItem(1), anItem(2), anItem(3)]),
      aMenu([anItem(1, 5), anItem(2, 6)], { key: 'm2', form: { kind: 'found', elements: [4] } }),
    ],
  }),
  aPage({ key: 'p2', file: 'p2.html' }),
)

const key = fc.constantFrom('s1', 's2', 's3', 's4', 's9')
const menu = fc.constantFrom('m1', 'm2', 'm9')
const item = fc.constantFrom('i1', 'i2', 'i3', 'i9')
const timed = fc.constantFrom<Timed | undefined>({ easing: 'linear', ms: 300 }, { easing: 'ease-out', ms: 200, most: 900 }, undefined)
const motion = fc.oneof(fc.constantFrom<Motion | undefined>('jump', 'smooth', undefined), timed)
const target = fc.oneof(
  fc.constant({ kind: 'top' as const }),
  fc.constant({ kind: 'as-is' as const }),
  key.map((s) => ({ kind: 'section' as const, section: s })),
  fc.record({ page: fc.constantFrom('p1', 'p2', 'p9'), section: fc.option(key) }).map((to) => ({ kind: 'page' as const, ...to })),
  fc
    .record({ address: fc.constantFrom('https://x.example/', 'javascript:x', 'desk@x.example'), newTab: fc.boolean() })
    .map((to) => ({ kind: 'outside' as const, ...to })),
)
const pageKey = fc.constantFrom('p1', 'p2', 'p3')
const anyPage = fc
  .record({ k: pageKey, n: fc.nat(3) })
  .map(({ k, n }): SitePage => aPage({ key: k, file: `${k}.html`, sections: sections.slice(0, n) }))
const setUp = fc.record({ n: fc.nat(4), shuffled: fc.boolean(), lead: key }).map(({ n, shuffled, lead }): SetUp => {
  const { header, travel, highlight } = aPage()
  const some = sections.slice(0, n)
  return {
    sections: shuffled ? [...some].reverse() : some,
    menus: [aMenu([{ ...anItem(1), target: { kind: 'section', section: lead } }])],
    header,
    travel,
    highlight,
  }
})

type Payload<T extends Command['type']> = {
  [K in Exclude<keyof Extract<Command, { type: T }>, 'type'>]: fc.Arbitrary<Extract<Command, { type: T }>[K]>
}
const screenKey = fc.constantFrom('laptop', 'phone', 'wide')
const screen = fc
  .record({
    key: screenKey,
    name: fc.constantFrom('Laptop', 'Phone', 'Wide', ' '),
    width: fc.constantFrom(390, 1280, 2000, 100),
    height: fc.constantFrom(800, 844),
    touch: fc.boolean(),
  })
  .chain((of) => fc.constantFrom<Screen>(of, of, { ...of, text: 150 }, { ...of, text: 300 }))
const perhaps = fc.constantFrom<true | undefined>(undefined, true)
/** Every kind of command, with payloads of which many fit and some do not. A kind that is missing here is a type error. */
const payloads: { [T in keyof typeof commandKinds]: Payload<T> } = {
  'site/rename': { name: fc.string() },
  'site/rule': { rule: fc.constantFrom(defaultRule, { ...defaultRule, prefix: 'p' }) },
  'site/small': { small: fc.boolean() },
  'site/address': {
    address: fc.constantFrom<SiteAddress | undefined>(
      { url: 'https://ostrey.example/' },
      { url: 'http://a/b/', isWritten: true },
      { url: 'x' },
      undefined,
    ),
  },
  'site/scripts': { scripts: fc.boolean() },
  'screen/add': { screen, index: fc.nat(3) },
  'screen/drop': { screen: screenKey },
  'screen/move': { screen: screenKey, index: fc.nat(3) },
  'screen/change': { screen },
  'page/add': { page: anyPage, index: fc.nat(3) },
  'page/drop': { page: pageKey },
  'page/set-up': { page: pageKey, setUp },
  'page/revise': { page: pageKey, revision: setUp.map((s) => ({ ...s, source: '1', title: 'New' })) },
  'section/title': { page: fc.constant(page), section: key, title: fc.string() },
  'section/id': {
    page: fc.constant(page),
    section: key,
    id: fc.constantFrom('id-1', 'id-2', 'new', 'a', ''),
    former: fc.array(fc.constantFrom('was', '7'), { maxLength: 2 }),
  },
  'section/depth': { page: fc.constant(page), section: key, depth: fc.nat(3) },
  'section/point': { page: fc.constant(page), section: key, at: fc.constantFrom(5, 20, 40), shift: fc.integer({ min: -2, max: 4 }) },
  'section/to-top': { page: fc.constant(page), section: key, toTop: fc.boolean() },
  'section/adjust': {
    page: fc.constant(page),
    section: key,
    adjust: fc.constantFrom<Adjust | undefined>({ by: 8 }, { by: -3, off: ['phone'] }, { by: 'fills' }, undefined),
  },
  'section/block': { page: fc.constant(page), section: key, block: fc.constantFrom<number | undefined>(5, undefined) },
  'section/add': { page: fc.constant(page), section: fc.integer({ min: 1, max: 7 }).map(section) },
  'section/drop': { page: fc.constant(page), section: key },
  'menu/add': {
    page: fc.constant(page),
    menu: fc
      .record({ key: menu, lead: target })
      .map(({ key: k, lead }) => aMenu([{ ...anItem(1, 9), target: lead }], { key: k, form: { kind: 'found', elements: [8] } })),
    index: fc.nat(3),
  },
  'menu/drop': { page: fc.constant(page), menu },
  'menu/name': { page: fc.constant(page), menu, name: fc.string() },
  'menu/form': {
    page: fc.constant(page),
    menu,
    form: fc.constantFrom<MadeMenuForm>({ kind: 'bar', place: 'top' }, { kind: 'marks', side: 'left', labels: 'all', edge: 3 }),
  },
  'menu/sync': {
    page: fc.constant(page),
    menu,
    syncedWith: fc.option(fc.record({ page: fc.constant(page), menu, labels: fc.constantFrom([], [{ item: 'i1', label: 'Own' }]) }), {
      nil: undefined,
    }),
    items: fc.constant(undefined),
  },
  'menu/look': {
    page: fc.constant(page),
    menu,
    look: fc.constantFrom<MenuLook | undefined>({ ink: '#001122', states: { current: { mark: 'dot' } } }, undefined),
  },
  'menu/motion': { page: fc.constant(page), menu, motion },
  'travel/skip': { page: fc.constant(page), label: fc.constantFrom<string | undefined>('Skip', undefined) },
  'menu/shut-by': { page: fc.constant(page), menu, by: fc.constantFrom<number | undefined>(12, undefined) },
  'menu/grows': { page: fc.constant(page), menu, grows: fc.constantFrom<false | undefined>(false, undefined) },
  'menu/shown': {
    page: fc.constant(page),
    menu,
    shown: fc.option(
      fc.record({ from: key, until: key, after: fc.integer({ min: 1, max: 100000 }), off: fc.constant(['phone']) }, { requiredKeys: [] }),
      { nil: undefined },
    ),
  },
  'item/add': {
    page: fc.constant(page),
    menu,
    item: fc.record({ key: item, target }).map((over) => ({ ...anItem(1), ...over })),
    index: fc.nat(5),
  },
  'item/drop': { page: fc.constant(page), menu, item },
  'item/move': { page: fc.constant(page), menu, item, index: fc.nat(5) },
  'item/label': { page: fc.constant(page), menu, item, label: fc.string() },
  'item/tooltip': { page: fc.constant(page), menu, item, tooltip: fc.constantFrom('', 'More of it', undefined) },
  'item/lang': { page: fc.constant(page), menu, item, lang: fc.constantFrom('', 'fr', undefined) },
  'item/depth': { page: fc.constant(page), menu, item, depth: fc.constantFrom(1, 3, undefined) },
  'item/off': { page: fc.constant(page), menu, item, off: fc.constantFrom(['phone'], undefined) },
  'item/motion': { page: fc.constant(page), menu, item, motion },
  'item/target': { page: fc.constant(page), menu, item, target, assumed: perhaps },
  'link/motion': { page: fc.constant(page), at: fc.constantFrom(7, 9), motion },
  'link/target': {
    page: fc.constant(page),
    at: fc.constantFrom(7, 9),
    target: fc.option(target),
    made: fc.constantFrom<MadeLink | undefined>({ of: 'element', label: 'Map' }, { of: 'words', label: 'the hill' }, undefined),
  },
  'header/choose': {
    page: pageKey,
    header: fc.constantFrom(null, {
      at: 3,
      keep: null,
      backing: null,
      off: ['phone'],
      onScroll: { after: 40, over: true as const, small: 12 },
      steady: true as const,
      under: [{ screen: 'laptop', head: 8, frame: 0 }],
    }),
  },
  'scroller/choose': { page: pageKey, scroller: fc.constantFrom(null, 4, 6) },
  'travel/smooth': {
    page: pageKey,
    smooth: fc.boolean(),
    timed,
  },
  'travel/address': { page: pageKey, address: fc.constantFrom<AddressRule | undefined>('replace', 'none', undefined), follows: perhaps },
  'travel/presses': { page: pageKey, takes: perhaps },
  'travel/end-space': {
    page: pageKey,
    endSpace: fc.constantFrom<EndSpace | undefined>(
      { section: 's1', as: 'padding', on: [{ screen: 'phone', fits: 500, base: 8 }] },
      undefined,
    ),
  },
  'travel/estimates': { page: pageKey, says: perhaps },
  'travel/pictures': {
    page: pageKey,
    pictures: fc.constantFrom([{ at: 4, width: 60, height: 40 }], undefined),
  },
  'travel/breathing': {
    page: pageKey,
    breathing: fc.nat(200),
    breathes: fc.constantFrom([{ screen: 'phone', px: 8 }], undefined),
    pageOffsets: perhaps,
  },
  'highlight/bell': { page: pageKey, bellOffset: fc.nat(200) },
  'highlight/page-mark': { page: pageKey, pageMark: perhaps },
  'highlight/mark': {
    page: pageKey,
    menu,
    mark: fc.constantFrom<Mark | undefined>('line', 'edge', { on: 'entry', name: 'active' }, undefined),
  },
}
const types = Object.keys(payloads) as (keyof typeof payloads)[]
const ofType = (type: keyof typeof payloads): fc.Arbitrary<Command> =>
  fc.record({
    type: fc.constant(type),
    ...(payloads[type] as Record<string, fc.Arbitrary<unknown>>),
  }) as fc.Arbitrary<unknown> as fc.Arbitrary<Command>
const single = fc.oneof(...types.map(ofType))
const command: fc.Arbitrary<Command> = fc.oneof(
  { weight: 4, arbitrary: single },
  { weight: 1, arbitrary: fc.array(single, { maxLength: 4 }).map((commands) => ({ type: 'batch' as const, label: 'Several', commands })) },
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
  it('are undone when one depends on another', () => {
    const item = { ...anItem(1), target: { kind: 'section' as const, section: 's9' } }
    const command: Command = {
      type: 'batch',
      label: 'Both',
      commands: [
        {
          type: 'menu/add',
          page,
          index: 0,
          menu: aMenu([item], { key: 'm9', form: { kind: 'rail', side: 'left', stands: 'over', width: 200, edge: 0 } }),
        },
        { type: 'section/add', page, section: aSection(9) },
      ],
    }
    const done = apply(site, command)
    expect(apply(done.site, done.inverse).site).toEqual(site)
  })
  it('undo a target of a made link', () => {
    const at = { type: 'link/target', page: 'p1', at: 9 } as const
    const one = apply(site, { ...at, target: { kind: 'top' } }).site
    const { site: other, inverse } = apply(one, { ...at, target: null, made: { of: 'element', label: 'Map' } })
    expect(apply(other, inverse).site).toEqual(one)
  })
  it('refuse a link to a missing page, or to the page itself', () => {
    const to = (page: string, section: string | null = null) =>
      apply(site, { type: 'link/target', page: 'p1', at: 9, target: { kind: 'page', page, section }, made: { of: 'words', label: 'Map' } })
    expect(() => to('gone')).toThrow('the site has no page “gone”')
    expect(() => to('p1')).toThrow('the page that it stands on')
  })
  it('are undone by their inverse, after anything', () =>
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
      { numRuns: 400 },
    ))

  it('don’t change the given document', () => {
    const before = structuredClone(site)
    apply(site, {
      type: 'batch',
      label: '',
      commands: [
        { type: 'item/drop', page, menu: 'm1', item: 'i1' },
        { type: 'item/drop', page, menu: 'm2', item: 'i1' },
        { type: 'section/drop', page, section: 's1' },
      ],
    })
    expect(site).toEqual(before)
  })

  it('of every two kinds fit in either order if they don’t clash', () => {
    let tried = 0
    for (const [n, one] of types.entries())
      for (const other of types.slice(n))
        fc.assert(
          fc.property(ofType(one), ofType(other), (a, b) => {
            const [first, second] = [tryApply(site, a), tryApply(site, b)]
            if (!first || !second || clash(a, b)) return
            tried++
            const [ab, ba] = [tryApply(first.site, b), tryApply(second.site, a)]
            expect(ab?.site).toBeDefined()
            expect(ba?.site).toEqual(ab!.site)
          }),
          { numRuns: 25 },
        )
    expect(tried).toBeGreaterThan(1000)
  })

  it('clash when one needs what the other removes', () => {
    expect(
      clash(
        { type: 'section/drop', page, section: 's4' },
        { type: 'item/target', page, menu: 'm1', item: 'i1', target: { kind: 'section', section: 's4' } },
      ),
    ).toBe(true)
    expect(clash({ type: 'menu/drop', page, menu: 'm1' }, { type: 'item/label', page, menu: 'm1', item: 'i1', label: 'x' })).toBe(true)
    expect(clash({ type: 'page/drop', page }, { type: 'section/title', page, section: 's1', title: 'x' })).toBe(true)
    expect(
      clash({ type: 'section/title', page, section: 's1', title: 'x' }, { type: 'section/depth', page, section: 's1', depth: 1 }),
    ).toBe(false)
  })
})

describe('what always holds', () => {
  const broken = (over: Partial<SetUp>): Command => ({
    type: 'page/set-up',
    page,
    setUp: { sections, menus: [], header: null, travel: { smooth: true, breathing: 0 }, highlight: { bellOffset: 0 }, ...over },
  })
  const change = (over: Partial<Screen>): Command => ({ type: 'screen/change', screen: { ...site.screens[0]!, ...over } })
  const twice = (c: Command): Command => ({ type: 'batch', label: '', commands: [c] })

  it.each<[string, Command]>([
    ['would both have the ID “same”', broken({ sections: [1, 2, 3, 4].map((n) => aSection(n, { id: 'same' })) })],
    ['the item “Item 9” leads to', broken({ menus: [aMenu([anItem(9)])] })],
    ['is a section already', broken({ sections: [aSection(2), aSection(2, { id: 'b' })] })],
    ['is a section already', broken({ sections: [aSection(2), aSection(3, { at: 20 })] })],
    ['the item “Item 2” is there already', broken({ menus: [aMenu([anItem(2), anItem(2)])] })],
    ['already has a made bar', broken({ menus: [aMenu([]), aMenu([], { key: 'm2' })] })],
    [
      'is that of another item already',
      broken({ menus: [aMenu([anItem(2, 5), anItem(4, 5)], { form: { kind: 'found', elements: [1] } })] }),
    ],
    ['has the page “p2.html” already', { type: 'page/add', page: aPage({ key: 'p3', file: 'p2.html' }), index: 0 }],
    ['would both have the ID “id-2”', { type: 'section/id', page, section: 's1', id: 'id-2', former: [] }],
    ['needs at least one character', { type: 'section/id', page, section: 's1', id: '', former: [] }],
    ['the item “Item 1” leads to this section', { type: 'section/drop', page, section: 's1' }],
    ['the site has a screen “Phone” already', change({ name: 'Phone' })],
    ['is 390×844 already', change({ width: 390, height: 844 })],
    ['a screen has from 200 to 8000 px each way', change({ height: 20 })],
    ['is from 100 to 200%', change({ text: 220 })],
    [
      'large text needs a screen with normal text',
      { type: 'batch', label: '', commands: site.screens.map((screen) => ({ type: 'screen/change', screen: { ...screen, text: 150 } })) },
    ],
    ['needs a name', change({ name: ' ' })],
    ['the site has no screen “wall”', { type: 'screen/move', screen: 'wall', index: 0 }],
    ['is an element of the page', { type: 'section/point', page, section: 's2', at: 5, shift: 0 }],
  ])('refuses what breaks it: %s', (words, c) => {
    expect(() => apply(site, c)).toThrow(words)
    expect(() => apply(site, twice(c))).toThrow(words)
  })

  it('keeps at least one screen, and decisions about one that returns', () => {
    const [laptop, phone] = site.screens
    const off = apply(site, { type: 'item/off', page, menu: 'm1', item: 'i1', off: [phone!.key] }).site
    const one = apply(off, { type: 'screen/drop', screen: phone!.key })
    expect(one.site.screens).toEqual([laptop])
    expect(() => apply(one.site, { type: 'screen/drop', screen: laptop!.key })).toThrow('“Laptop” is the site’s only screen')
    expect(apply(one.site, one.inverse).site).toEqual(off)
  })

  it('sorts sections into page order', () => {
    const done = apply(site, broken({ sections: [...sections].reverse() })).site.pages[0]!
    expect(done.sections).toEqual(sections)
    const moved = apply(site, { type: 'section/point', page, section: 's1', at: 60, shift: -8 }).site.pages[0]!.sections
    expect(moved.map((s) => s.key)).toEqual(['s3', 's2', 's4', 's1'])
  })

  it('lets two sections swap IDs in one step', () => {
    const ids: Command = {
      type: 'batch',
      label: '',
      commands: [
        { type: 'section/id', page, section: 's2', id: 'id-4', former: [] },
        { type: 'section/id', page, section: 's4', id: 'id-2', former: [] },
      ],
    }
    expect(
      apply(site, ids)
        .site.pages[0]!.sections.filter((s) => !s.point)
        .map((s) => s.id),
    ).toEqual(['id-4', 'id-2'])
  })
})

it('undo and redo go back and forth over changes', () => {
  let stacks = emptyStacks
  let version = 0
  const change = (undoes: number | null): Change => ({
    version: ++version,
    command: { type: 'site/rename', name: String(version) },
    inverse: { type: 'site/rename', name: '' },
    undoes,
    tab: null,
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
  // Another tab's change lies on top of what is taken back.
  add(stacks.undo[0]!.version)
  expect([stacks.undo.map((c) => c.version), stacks.redo.map((c) => c.version)]).toEqual([[6], [7]])
})

it('keeps no former ID that nobody can link to: neither on the page nor handed over', () => {
  const section = { ...site.pages[0]!.sections[0]!, id: 'mine', sourceId: null, former: [] }
  expect(renameSection(page, section, 'next', new Set()).former).toEqual([])
  expect(renameSection(page, section, 'next', new Set(['mine'])).former).toEqual(['mine'])
  expect(renameSection(page, { ...section, sourceId: 'mine' }, 'next', new Set()).former).toEqual(['mine'])
})

it('keeps a renamed section’s former ID, and forgets it when it returns', () => {
  const of = (s: Site) => s.pages[0]!.sections.find((x) => x.key === 's2')!
  const rename = (s: Site, id: string) => apply(s, renameSection(page, of(s), id, new Set(['id-2', 'work', 'our-work'])))
  const once = rename(site, 'work')
  expect([of(once.site).id, of(once.site).former]).toEqual(['work', ['id-2']])
  const twice = rename(once.site, 'our-work')
  expect([of(twice.site).id, of(twice.site).former]).toEqual(['our-work', ['id-2', 'work']])
  const back = of(rename(twice.site, 'id-2').site)
  expect([back.id, back.former]).toEqual(['id-2', ['work', 'our-work']])
  expect(apply(once.site, once.inverse).site).toEqual(site)
})

describe('earlier versions', () => {
  const oldSection = { key: 's1', at: 10, title: 'A', id: 'a', heading: null, toTop: true }
  const now = { ...oldSection, point: null, sourceId: null, former: [], depth: 0 }
  const oldItem = { key: 'i1', label: 'A', target: { kind: 'section', section: 's1' } }
  const made = { key: 'm1', name: 'M', at: null, items: [{ ...oldItem, link: null }] }
  const adopted = { key: 'm2', name: 'N', at: 7, items: [{ ...oldItem, link: 8 }] }
  const rest = { header: null, travel: { smooth: true, breathing: 0 }, highlight: { bellOffset: 0 } }
  const second = {
    format: 'way-bell-site',
    version: 2,
    name: '',
    rule: defaultRule,
    screens: [],
    pages: [{ key: 'p1', file: 'a.html', source: '', title: '', sections: [now], menus: [made, adopted], bar: 'after-header', ...rest }],
  }

  it('are read as a document of this version', () => {
    const first = {
      ...second,
      version: 1,
      rule: { separator: '_', longest: 20, beforeDigit: 'n' },
      pages: [{ ...second.pages[0]!, sections: [oldSection] }],
    }
    const upgraded = upgradeSite(first)
    expect(upgraded).toMatchObject({ version: 4, rule: { ...defaultRule, separator: '_', longest: 20, beforeDigit: 'n' } })
    expect(upgraded.pages[0]!.sections).toEqual([now])
    expect(upgraded.pages[0]!.menus.map((m) => [m.form, m.items[0]!.links])).toEqual([
      [{ kind: 'bar', place: 'after-header' }, []],
      [{ kind: 'found', elements: [7] }, [8]],
    ])
    expect(upgraded.pages[0]).not.toHaveProperty('bar')
    expect(upgradeSite(upgraded)).toBe(upgraded)
  })

  it('are repaired where this version would refuse them', () => {
    const faulty = {
      ...second,
      pages: [
        {
          ...second.pages[0]!,
          sections: [now, { ...now, key: 's2', at: 5 }],
          menus: [{ ...made, items: [{ ...oldItem, target: { kind: 'section', section: 's9' }, link: null }] }, made],
        },
      ],
    }
    const upgraded = upgradeSite(faulty)
    expect(upgraded.pages[0]!.sections.map((s) => s.id)).toEqual(['a-2', 'a'])
    expect(upgraded.pages[0]!.menus.map((m) => m.items[0]!.target.kind)).toEqual(['as-is'])
    expect(() => apply(upgraded, { type: 'section/title', page, section: 's1', title: 'B' })).not.toThrow()
  })

  it('are read as commands of this version, with the bar’s place from the log', () => {
    const log = new ThirdLog()
    const setUp = { sections: [oldSection], menus: [made], bar: 'under-fixed', ...rest }
    const before = { sections: [], menus: [], bar: 'top', ...rest }
    const first = log.change(
      secondCommand({ type: 'page/set-up', page, setUp }),
      secondCommand({ type: 'page/set-up', page, setUp: before }),
    )
    expect(fourth(first.command)).toMatchObject({ setUp: { sections: [now], menus: [{ form: { kind: 'bar', place: 'under-fixed' } }] } })
    const drop = log.change(
      { type: 'batch', label: '', commands: [{ type: 'menu/drop', page, menu: 'm1' }] },
      { type: 'batch', label: '', commands: [{ type: 'menu/add', page, menu: made, index: 0 }] },
    )
    expect(drop.inverse).toMatchObject({ commands: [{ menu: { form: { kind: 'bar', place: 'under-fixed' }, items: [{ links: [] }] } }] })
    expect(
      log.change({ type: 'item/add', page, menu: 'm2', item: { ...oldItem, link: 8 }, index: 0 }, { type: 'item/drop' }).command,
    ).toMatchObject({ item: { links: [8] } })
  })

  it('get this version’s names', () => {
    const section = { key: 's1', at: 10, former: [], own: 'a' }
    const third = {
      format: 'way-bell-site',
      version: 3,
      pages: [
        {
          sections: [section],
          menus: [{ key: 'm1', inStep: { page: 'p1', menu: 'm2', labels: [] }, items: [{ key: 'i1', takenToBe: true }] }],
          header: { at: 5, moves: { after: 40 } },
          room: { section: 's1', as: 'padding', on: [{ screen: 'phone', fits: 500, own: 8 }] },
          travel: { smooth: true, breathing: 24, own: true },
          highlight: { bellOffset: 24, own: true },
        },
      ],
    }
    expect(upgradeSite(third)).toEqual({
      format: 'way-bell-site',
      version: 4,
      pages: [
        {
          sections: [{ key: 's1', at: 10, former: [], sourceId: 'a' }],
          menus: [{ key: 'm1', syncedWith: { page: 'p1', menu: 'm2', labels: [] }, items: [{ key: 'i1', assumed: true }] }],
          header: { at: 5, onScroll: { after: 40 } },
          endSpace: { section: 's1', as: 'padding', on: [{ screen: 'phone', fits: 500, base: 8 }] },
          travel: { smooth: true, breathing: 24, pageOffsets: true },
          highlight: { bellOffset: 24, pageMark: true },
        },
      ],
    })
    expect(
      fourth({
        type: 'batch',
        label: 'Own words',
        commands: [
          { type: 'menu/in-step', page, menu: 'm1', inStep: undefined },
          { type: 'travel/room', page, room: { section: 's1', as: 'height', on: [] } },
          { type: 'travel/breathing', page, breathing: 8, own: true },
          { type: 'highlight/own', page, own: true },
          { type: 'section/add', page, section },
        ],
      }),
    ).toEqual({
      type: 'batch',
      label: 'Own words',
      commands: [
        { type: 'menu/sync', page, menu: 'm1', syncedWith: undefined },
        { type: 'travel/end-space', page, endSpace: { section: 's1', as: 'height', on: [] } },
        { type: 'travel/breathing', page, breathing: 8, pageOffsets: true },
        { type: 'highlight/page-mark', page, pageMark: true },
        { type: 'section/add', page, section: { key: 's1', at: 10, former: [], sourceId: 'a' } },
      ],
    })
  })

  it('a later version is refused', () => expect(() => upgradeSite({ ...second, version: 5 })).toThrow('made by a newer Way Bell'))
})
