import { aMenu, anItem as item, aPage, aSection as section, aSite } from './builder.ts'
import {
  addSection,
  apply,
  depthsOf,
  dropMenu,
  dropPage,
  dropSections,
  leadersTo,
  mergeWithNext,
  moveItem,
  nestItem,
  nestSection,
  renameSections,
  setUpOf,
  siteFolder,
  takeToPages,
  withOtherPages,
  type Command,
  type Item,
  type ItemTarget,
  type MadeMenu,
  type Otherwise,
  type Section,
  type Site,
  type SitePage,
} from './index.ts'

const site = (sections: Section[], items: Item[] = [], at: number | null = null): Site =>
  aSite(aPage({ sections, menus: [aMenu(items, at === null ? {} : { form: { kind: 'found', elements: [at] } })] }))
const pageOf = (s: Site) => s.pages[0]!
/** The page after the step; the step must be one that can be taken back. */
function after(s: Site, command: Command | null): SitePage {
  const done = apply(s, command!)
  expect(apply(done.site, done.inverse).site).toEqual(s)
  return pageOf(done.site)
}

describe('depths', () => {
  it('start at 0 and never skip a level', () =>
    expect(depthsOf([section(1, { depth: 2 }), section(2, { depth: 5 }), section(3), section(4, { depth: 1 })])).toEqual([0, 1, 0, 1]))

  const tree = site([section(1), section(2), section(3, { depth: 1 }), section(4)])
  const nest = (n: number, by: 1 | -1) => nestSection(pageOf(tree), pageOf(tree).sections[n]!, by)
  it('move with nested ones', () => expect(depthsOf(after(tree, nest(1, 1)).sections)).toEqual([0, 1, 2, 0]))
  it('are lifted one by one', () => expect(depthsOf(after(tree, nest(2, -1)).sections)).toEqual([0, 0, 0, 0]))
  it('can’t be nested or lifted without a parent', () => expect([nest(0, 1), nest(0, -1), nest(2, 1)]).toEqual([null, null, null]))
})

describe('dropping and merging', () => {
  const made = site([section(1), section(2), section(3)], [item(1), item(2), item(3)])
  const adopted = site([section(1), section(2), section(3)], [item(1, 1), item(2, 2), item(3, 3)], 5)

  it('drops items of a made menu with their sections', () => {
    const page = after(made, dropSections(made, pageOf(made), pageOf(made).sections.slice(0, 2)))
    expect([page.sections.map((s) => s.key), page.menus[0]!.items.map((i) => i.key)]).toEqual([['s3'], ['i3']])
  })
  it('leaves the page’s own links', () => {
    const page = after(adopted, dropSections(adopted, pageOf(adopted), [pageOf(adopted).sections[1]!]))
    expect(page.menus[0]!.items.map((i) => i.target.kind)).toEqual(['section', 'as-is', 'section'])
  })
  it('leads the page’s own links of a merged section to the other', () => {
    const page = after(adopted, mergeWithNext(adopted, pageOf(adopted), pageOf(adopted).sections[0]!))
    expect(page.sections.map((s) => s.key)).toEqual(['s1', 's3'])
    expect(page.menus[0]!.items[1]!.target).toEqual({ kind: 'section', section: 's1' })
  })
  it('can’t merge the last section', () => expect(mergeWithNext(made, pageOf(made), pageOf(made).sections[2]!)).toBeNull())
})

describe('items of other pages', () => {
  const leading = (n: number, section: string | null, ...links: number[]): Item => ({
    ...item(n, ...links),
    target: { kind: 'page', page: 'p1', section },
  })
  const s = aSite(
    aPage({ sections: [section(1), section(2), section(3)] }),
    aPage({
      key: 'p2',
      file: 'shop/p2.html',
      links: [
        { at: 8, target: { kind: 'page', page: 'p1', section: 's2' } },
        { at: 9, target: { kind: 'top' } },
      ],
      menus: [
        aMenu([leading(1, 's1'), leading(2, 's2'), leading(3, null)]),
        aMenu([leading(4, 's2', 7)], { key: 'm2', form: { kind: 'found', elements: [5] } }),
      ],
    }),
  )
  const other = (command: Command | null) => {
    after(s, command)
    const { menus, links = [] } = apply(s, command!).site.pages.at(-1)!
    return [...menus.map((m) => m.items), links.filter((l) => l.at === 8)].map((uses) => uses.map((u) => u.target))
  }
  const to = (key: string | null) => ({ kind: 'page', page: 'p1', section: key })

  it('are removed with a dropped section, and follow a merged one', () => {
    expect(other(dropSections(s, pageOf(s), [pageOf(s).sections[1]!]))).toEqual([[to('s1'), to(null)], [{ kind: 'as-is' }], []])
    expect(other(mergeWithNext(s, pageOf(s), pageOf(s).sections[0]!))).toEqual([[to('s1'), to(null)], [to('s1')], [to('s1')]])
  })
  it('are removed with the page', () => expect(other(dropPage(s, pageOf(s)))).toEqual([[], [{ kind: 'as-is' }], []]))
  it('follow the ID when the page is set up again, or lead to the page', () => {
    const given = { ...setUpOf(pageOf(s)), sections: [section(1, { key: 's2' }), section(3, { key: 's1', id: 'new', former: ['id-2'] })] }
    expect(other(withOtherPages(s, { type: 'page/set-up', page: 'p1', setUp: given }))).toEqual([
      [to('s2'), to('s1'), to(null)],
      [to('s1')],
      [to('s1')],
    ])
    const empty = withOtherPages(s, { type: 'page/set-up', page: 'p1', setUp: { ...given, sections: [] } })
    expect(other(empty)).toEqual([[to(null), to(null), to(null)], [to(null)], [to(null)]])
  })
  it('stay with a section that a new version renames', () => {
    const revision = { ...setUpOf(pageOf(s)), source: '1', title: 'New', sections: [section(2, { id: 'renamed' })] }
    expect(other(withOtherPages(s, { type: 'page/revise', page: 'p1', revision }))).toEqual([
      [to(null), to('s2'), to(null)],
      [to('s2')],
      [to('s2')],
    ])
  })
  it('are refused if they’d lead nowhere', () => {
    const drop = (command: Command) => () => apply(s, command)
    expect(drop({ type: 'section/drop', page: 'p1', section: 's1' })).toThrow(
      '“index.html” has no section “s1”, which the item “Item 1” of “shop/p2.html” leads to',
    )
    expect(drop({ type: 'page/drop', page: 'p1' })).toThrow('the site has no page “p1”')
    const self: Command = { type: 'item/target', page: 'p2', menu: 'm1', item: 'i1', target: { kind: 'page', page: 'p2', section: null } }
    expect(drop(self)).toThrow('leads to the page that it stands on')
  })
})

describe('links to a dropped section', () => {
  const own = aMenu([item(1, 3), item(2, 4)], { key: 'm2', form: { kind: 'found', elements: [5] } })
  const s = aSite(
    aPage({
      sections: [section(1), section(2)],
      menus: [aMenu([item(1), item(2)]), own],
      links: [{ at: 8, target: { kind: 'section', section: 's1' } }],
    }),
    aPage({ key: 'p2', file: 'p2.html', menus: [aMenu([{ ...item(9), target: { kind: 'page', page: 'p1', section: 's1' } }])] }),
  )
  const [first] = pageOf(s).sections
  const targets = (otherwise?: Otherwise) => {
    const done = apply(s, dropSections(s, pageOf(s), [first!], otherwise))
    expect(apply(done.site, done.inverse).site).toEqual(s)
    return done.site.pages.flatMap((p) => [
      ...p.menus.map((m) => m.items.map((i) => Object.values(i.target).join(' '))),
      ...(p.key === 'p1' ? [(p.links ?? []).map((l) => Object.values(l.target).join(' '))] : []),
    ])
  }

  it('is named', () =>
    expect(leadersTo(s, pageOf(s), [first!]).map((u) => [u.from.file, u.label, u.isOwn])).toEqual([
      ['index.html', 'Item 1', false],
      ['index.html', 'Item 1', true],
      ['index.html', null, true],
      ['p2.html', 'Item 9', false],
    ]))
  it.each<[Otherwise | undefined, string[][]]>([
    [undefined, [['section s2'], ['as-is', 'section s2'], [], []]],
    ['out', [['section s2'], ['section s2'], [], []]],
    ['top', [['top', 'section s2'], ['top', 'section s2'], ['top'], ['page p1 ']]],
    [{ section: 's2' }, [['section s2', 'section s2'], ['section s2', 'section s2'], ['section s2'], ['page p1 s2']]],
  ])('become what is chosen: %j', (otherwise, left) => expect(targets(otherwise)).toEqual(left))
})

describe('links on the page', () => {
  const s = aSite(
    aPage({
      sections: [section(1), section(2)],
      links: [
        { at: 4, target: { kind: 'section', section: 's1' } },
        { at: 7, target: { kind: 'section', section: 's2' } },
      ],
    }),
  )
  const links = (command: Command | null) => after(s, command).links

  it('are restored when their section is dropped', () =>
    expect(links(dropSections(s, pageOf(s), [pageOf(s).sections[0]!]))).toEqual([pageOf(s).links![1]]))
  it('follow a merged section', () =>
    expect(links(mergeWithNext(s, pageOf(s), pageOf(s).sections[0]!))!.map((l) => l.target)).toEqual([
      { kind: 'section', section: 's1' },
      { kind: 'section', section: 's1' },
    ]))
  it('follow the ID when the page is set up again', () => {
    const given = { ...setUpOf(pageOf(s)), links: [], sections: [section(3, { key: 's1', id: 'id-2' })] }
    expect(links(withOtherPages(s, { type: 'page/set-up', page: 'p1', setUp: given }))).toEqual([
      { at: 7, target: { kind: 'section', section: 's1' } },
    ])
  })
  it('are refused without a target', () => {
    const lead = (target: ItemTarget | null) => () => apply(s, { type: 'link/target', page: 'p1', at: 4, target })
    expect(lead({ kind: 'section', section: 's9' })).toThrow('the page has no section “s9”, which a link on the page leads to')
    expect(lead({ kind: 'outside', address: 'javascript:x', newTab: false })).toThrow('a link on the page cannot lead there')
    expect(lead({ kind: 'as-is' })().site.pages[0]!.links!.map((l) => l.at)).toEqual([7])
    expect(() => apply(s, { type: 'section/drop', page: 'p1', section: 's1' })).toThrow('a link on the page leads to this section')
  })
})

describe('renaming several sections', () => {
  const s = site([section(1), section(2), section(3, { former: ['old'] })])
  const to = (ids: (string | null)[]) =>
    renameSections(
      'p1',
      ids.flatMap((id, i) => (id === null ? [] : [{ section: pageOf(s).sections[i]!, id }])),
      'Rename',
      new Set(['id-1', 'id-2', 'id-3']),
    )

  it('keeps their names', () =>
    expect(after(s, to(['a', null, 'c'])).sections.map((x) => [x.id, x.former])).toEqual([
      ['a', ['id-1']],
      ['id-2', []],
      ['c', ['old', 'id-3']],
    ]))
  it('lets them swap, without former IDs', () =>
    expect(after(s, to(['id-2', 'id-3', 'id-1'])).sections.map((x) => [x.id, x.former])).toEqual([
      ['id-2', []],
      ['id-3', []],
      ['id-1', ['old']],
    ]))
})

it('adds a section with an item in the made menu, in page order', () => {
  const rail = { kind: 'floating', side: 'left', edge: 0 } as const
  const s = aSite(
    aPage({
      sections: [section(1), section(3)],
      menus: [aMenu([item(3), item(1)]), aMenu([item(3)], { key: 'm2', form: rail }), aMenu([], { key: 'm3', form: rail, grows: false })],
    }),
  )
  const page = after(
    s,
    addSection(pageOf(s), section(2), () => ({ ...item(2), key: 'new' })),
  )
  expect(page.sections.map((x) => x.key)).toEqual(['s1', 's2', 's3'])
  expect(page.menus.map((m) => m.items.map((i) => i.key))).toEqual([['i3', 'i1', 'new'], ['new', 'i3'], []])
})

describe('items of a made menu', () => {
  const [a, a1, a2, b, b1, c] = ['a', 'a1', 'a2', 'b', 'b1', 'c'].map((key, n): Item => ({
    ...item(1),
    key,
    ...(/\d/.test(key) && { depth: 1 + +(n === 2) }),
  })) as [Item, Item, Item, Item, Item, Item]
  const s = site([section(1)], [a, a1, a2, b, b1, c])
  const menu = pageOf(s).menus[0]!
  const keys = (command: Command | null) =>
    after(s, command)
      .menus[0]!.items.map((i) => i.key)
      .join(' ')

  it('move with nested ones, after another’s nested ones', () => {
    expect(keys(moveItem(pageOf(s), menu, a, b))).toBe('b b1 a a1 a2 c')
    expect(keys(moveItem(pageOf(s), menu, b, a))).toBe('b b1 a a1 a2 c')
    expect(keys(moveItem(pageOf(s), menu, c, a1))).toBe('a c a1 a2 b b1')
    expect(keys(moveItem(pageOf(s), menu, a1, c))).toBe('a b b1 c a1 a2')
    expect(moveItem(pageOf(s), menu, a, a2)).toBeNull()
  })
  it('are nested and lifted with nested ones', () => {
    const depths = (command: Command | null) => after(s, command).menus[0]!.items.map((i) => i.depth ?? 0)
    expect(depths(nestItem(pageOf(s), menu, b, 1))).toEqual([0, 1, 2, 1, 2, 0])
    expect(depths(nestItem(pageOf(s), menu, a1, -1))).toEqual([0, 0, 1, 0, 1, 0])
    expect([nestItem(pageOf(s), menu, a, 1), nestItem(pageOf(s), menu, a, -1), nestItem(pageOf(s), menu, a2, 1)]).toEqual([
      null,
      null,
      null,
    ])
  })
})

describe('where a menu is visible', () => {
  const s = aSite(
    aPage({ sections: [section(1), section(2), section(3)], menus: [aMenu([], { shown: { from: 's2', until: 's2', off: ['phone'] } })] }),
  )
  const ends = (n: number[]) =>
    after(
      s,
      dropSections(
        s,
        pageOf(s),
        n.map((i) => pageOf(s).sections[i]!),
      ),
    ).menus[0]!.shown
  it('starts and ends with the next section inwards when one is dropped, or with the page', () => {
    expect(ends([0])).toEqual({ from: 's2', until: 's2', off: ['phone'] })
    expect(ends([1])).toEqual({ from: 's3', until: 's1', off: ['phone'] })
    expect(ends([1, 2])).toEqual({ until: 's1', off: ['phone'] })
    expect(ends([0, 1, 2])).toEqual({ off: ['phone'] })
  })
  it('ends with the section that takes the last one in', () =>
    expect(after(s, mergeWithNext(s, pageOf(s), pageOf(s).sections[0]!)).menus[0]!.shown).toEqual({
      from: 's3',
      until: 's1',
      off: ['phone'],
    }))
})

describe('synced menus', () => {
  const follows = { page: 'p1', menu: 'm1', labels: [{ item: 'i2', label: 'Own' }] }
  const first = aPage({
    sections: [section(1), section(2)],
    menus: [
      aMenu([item(1), { ...item(2), depth: 1 }, { ...item(3), target: { kind: 'page', page: 'p2', section: 't' } }]),
      aMenu([], { key: 'm2', form: { kind: 'footer', layout: 'row', edge: 0 } }),
    ],
  })
  const second = aPage({ key: 'p2', file: 'b.html', sections: [section(1, { key: 't' })] })
  const both = aSite(first, second)
  const stepped = apply(both, {
    type: 'batch',
    label: '',
    commands: [
      { type: 'menu/sync', page: 'p1', menu: 'm2', syncedWith: follows },
      takeToPages(first, first.menus[0] as MadeMenu, [second]),
    ],
  }).site
  const said = (s: Site, page: number, menu: number) => s.pages[page]!.menus[menu]!.items.map((i) => [i.label, i.depth ?? 0, i.target])
  const done = (command: Command) => {
    const { site: next, inverse } = apply(stepped, command)
    expect(apply(next, inverse).site).toEqual(stepped)
    return next
  }

  it('have the same items in order, with their own labels, here and on other pages', () => {
    expect(said(stepped, 0, 1)).toEqual([
      ['Item 1', 0, { kind: 'section', section: 's1' }],
      ['Own', 1, { kind: 'section', section: 's2' }],
      ['Item 3', 0, { kind: 'page', page: 'p2', section: 't' }],
    ])
    expect(said(stepped, 1, 0)).toEqual([
      ['Item 1', 0, { kind: 'page', page: 'p1', section: 's1' }],
      ['Item 2', 1, { kind: 'page', page: 'p1', section: 's2' }],
      ['Item 3', 0, { kind: 'section', section: 't' }],
    ])
  })
  it('follow every change and every undo', () => {
    const next = done({
      type: 'batch',
      label: '',
      commands: [
        { type: 'item/move', page: 'p1', menu: 'm1', item: 'i3', index: 0 },
        { type: 'item/drop', page: 'p1', menu: 'm1', item: 'i2' },
        { type: 'item/label', page: 'p1', menu: 'm1', item: 'i1', label: 'New' },
      ],
    })
    expect([said(next, 0, 1), said(next, 1, 0)].map((m) => m.map(([label]) => label))).toEqual([
      ['Item 3', 'New'],
      ['Item 3', 'New'],
    ])
    // What leads to a section that goes is the first menu's to say.
    expect(said(done(dropSections(stepped, pageOf(stepped), [pageOf(stepped).sections[0]!], 'top')), 1, 0)[0]).toEqual([
      'Item 1',
      0,
      { kind: 'page', page: 'p1', section: null },
    ])
  })
  it('can’t change their items until they’re no longer synced', () => {
    expect(() => apply(stepped, { type: 'item/drop', page: 'p1', menu: 'm2', item: 'm2-i1' })).toThrow('is synced with another menu')
    expect(said(done({ type: 'menu/sync', page: 'p1', menu: 'm2', syncedWith: undefined }), 0, 1)).toEqual(said(stepped, 0, 1))
    expect(() => apply(stepped, { type: 'menu/drop', page: 'p1', menu: 'm1' })).toThrow('stop syncing')
    expect(() =>
      apply(stepped, {
        type: 'menu/add',
        page: 'p1',
        index: 0,
        menu: aMenu([], { key: 'm3', form: { kind: 'floating', side: 'left', edge: 0 }, syncedWith: { ...follows, menu: 'm2' } }),
      }),
    ).toThrow('is itself synced with another menu')
  })
  it('stop syncing when their source goes, with its page or a new set-up', () => {
    const kept = (s: Site, page: number, menu: number) => [s.pages[page]!.menus[menu]!.syncedWith, said(s, page, menu).length]
    const dropped = done(dropMenu(stepped, pageOf(stepped), pageOf(stepped).menus[0]!))
    expect([kept(dropped, 0, 0), kept(dropped, 1, 0)]).toEqual([
      [undefined, 3],
      [undefined, 3],
    ])
    const without = done(dropPage(stepped, pageOf(stepped)))
    expect(said(without, 0, 0)).toEqual([['Item 3', 0, { kind: 'section', section: 't' }]])
    const setUp = { type: 'page/set-up', page: 'p1', setUp: { ...setUpOf(pageOf(stepped)), menus: [aMenu([])] } } as Extract<
      Command,
      { type: 'page/set-up' }
    >
    expect(kept(done(withOtherPages(stepped, setUp)), 1, 0)).toEqual([undefined, 3])
  })
})

it.each([
  ['https://ostrey.example', 'https://ostrey.example/'],
  [' https://ostrey.example/week/index.html?x#y ', 'https://ostrey.example/week/'],
  ['http://localhost:8080/week', 'http://localhost:8080/week/'],
  ['ostrey.example', null],
  ['javascript:alert(1)', null],
  ['https://a@b.example/', null],
  ['https://a b/', null],
])('a site that stands at %s stands in %s', (typed, folder) => expect(siteFolder(typed)).toBe(folder))
