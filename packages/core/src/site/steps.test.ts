import { aMenu, anItem as item, aPage, aSection as section, aSite } from './builder.ts'
import {
  addSection,
  apply,
  depthsOf,
  dropPage,
  dropSections,
  leadersTo,
  mergeWithNext,
  nestSection,
  renameSections,
  setUpOf,
  withOtherPages,
  type Command,
  type Item,
  type ItemTarget,
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
  it('begin at 0 and never skip a level', () =>
    expect(depthsOf([section(1, { depth: 2 }), section(2, { depth: 5 }), section(3), section(4, { depth: 1 })])).toEqual([0, 1, 0, 1]))

  const tree = site([section(1), section(2), section(3, { depth: 1 }), section(4)])
  const nest = (n: number, by: 1 | -1) => nestSection(pageOf(tree), pageOf(tree).sections[n]!, by)
  it('take what is nested along', () => expect(depthsOf(after(tree, nest(1, 1)).sections)).toEqual([0, 1, 2, 0]))
  it('are lifted one by one', () => expect(depthsOf(after(tree, nest(2, -1)).sections)).toEqual([0, 0, 0, 0]))
  it('have nothing to nest in, or to be lifted out of', () => expect([nest(0, 1), nest(0, -1), nest(2, 1)]).toEqual([null, null, null]))
})

describe('dropping and merging', () => {
  const made = site([section(1), section(2), section(3)], [item(1), item(2), item(3)])
  const adopted = site([section(1), section(2), section(3)], [item(1, 1), item(2, 2), item(3, 3)], 5)

  it('drops the items of a made menu with their sections', () => {
    const page = after(made, dropSections(made, pageOf(made), pageOf(made).sections.slice(0, 2)))
    expect([page.sections.map((s) => s.key), page.menus[0]!.items.map((i) => i.key)]).toEqual([['s3'], ['i3']])
  })
  it('leaves the page’s own links where they went', () => {
    const page = after(adopted, dropSections(adopted, pageOf(adopted), [pageOf(adopted).sections[1]!]))
    expect(page.menus[0]!.items.map((i) => i.target.kind)).toEqual(['section', 'as-is', 'section'])
  })
  it('lets the page’s own links to the next section lead to the one that takes it in', () => {
    const page = after(adopted, mergeWithNext(adopted, pageOf(adopted), pageOf(adopted).sections[0]!))
    expect(page.sections.map((s) => s.key)).toEqual(['s1', 's3'])
    expect(page.menus[0]!.items[1]!.target).toEqual({ kind: 'section', section: 's1' })
  })
  it('has nothing to merge the last section with', () => expect(mergeWithNext(made, pageOf(made), pageOf(made).sections[2]!)).toBeNull())
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

  it('go with a section that is dropped, and lead to the one that takes it in', () => {
    expect(other(dropSections(s, pageOf(s), [pageOf(s).sections[1]!]))).toEqual([[to('s1'), to(null)], [{ kind: 'as-is' }], []])
    expect(other(mergeWithNext(s, pageOf(s), pageOf(s).sections[0]!))).toEqual([[to('s1'), to(null)], [to('s1')], [to('s1')]])
  })
  it('go with the page', () => expect(other(dropPage(s, pageOf(s)))).toEqual([[], [{ kind: 'as-is' }], []]))
  it('follow the ID when the page is set up anew, and where it is gone lead to the page', () => {
    const given = { ...setUpOf(pageOf(s)), sections: [section(1, { key: 's2' }), section(3, { key: 's1', id: 'new', former: ['id-2'] })] }
    expect(other(withOtherPages(s, { type: 'page/set-up', page: 'p1', setUp: given }))).toEqual([
      [to('s2'), to('s1'), to(null)],
      [to('s1')],
      [to('s1')],
    ])
    const empty = withOtherPages(s, { type: 'page/set-up', page: 'p1', setUp: { ...given, sections: [] } })
    expect(other(empty)).toEqual([[to(null), to(null), to(null)], [to(null)], [to(null)]])
  })
  it('stay with a section that a new version has under another ID', () => {
    const revision = { ...setUpOf(pageOf(s)), source: '1', title: 'New', sections: [section(2, { id: 'renamed' })] }
    expect(other(withOtherPages(s, { type: 'page/revise', page: 'p1', revision }))).toEqual([
      [to(null), to('s2'), to(null)],
      [to('s2')],
      [to('s2')],
    ])
  })
  it('are refused where they would lead nowhere', () => {
    const drop = (command: Command) => () => apply(s, command)
    expect(drop({ type: 'section/drop', page: 'p1', section: 's1' })).toThrow(
      '“index.html” has no section “s1”, which the item “Item 1” of “shop/p2.html” leads to',
    )
    expect(drop({ type: 'page/drop', page: 'p1' })).toThrow('the site has no page “p1”')
    const self: Command = { type: 'item/target', page: 'p2', menu: 'm1', item: 'i1', target: { kind: 'page', page: 'p2', section: null } }
    expect(drop(self)).toThrow('leads to the page that it stands on')
  })
})

describe('what leads to a section that is dropped', () => {
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
  ])('becomes what is asked: %j', (otherwise, left) => expect(targets(otherwise)).toEqual(left))
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

  it('go back to what they were with the section that they were given', () =>
    expect(links(dropSections(s, pageOf(s), [pageOf(s).sections[0]!]))).toEqual([pageOf(s).links![1]]))
  it('lead to the one that takes it in', () =>
    expect(links(mergeWithNext(s, pageOf(s), pageOf(s).sections[0]!))!.map((l) => l.target)).toEqual([
      { kind: 'section', section: 's1' },
      { kind: 'section', section: 's1' },
    ]))
  it('follow the ID when the page is set up anew', () => {
    const given = { ...setUpOf(pageOf(s)), links: [], sections: [section(3, { key: 's1', id: 'id-2' })] }
    expect(links(withOtherPages(s, { type: 'page/set-up', page: 'p1', setUp: given }))).toEqual([
      { at: 7, target: { kind: 'section', section: 's1' } },
    ])
  })
  it('are refused what leads nowhere', () => {
    const lead = (target: ItemTarget | null) => () => apply(s, { type: 'link/target', page: 'p1', at: 4, target })
    expect(lead({ kind: 'section', section: 's9' })).toThrow('the page has no section “s9”, which a link on the page leads to')
    expect(lead({ kind: 'outside', address: 'javascript:x', newTab: false })).toThrow('a link on the page cannot lead there')
    expect(lead({ kind: 'as-is' })().site.pages[0]!.links!.map((l) => l.at)).toEqual([7])
    expect(() => apply(s, { type: 'section/drop', page: 'p1', section: 's1' })).toThrow('links on the page lead to this section')
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

  it('keeps what each was called', () =>
    expect(after(s, to(['a', null, 'c'])).sections.map((x) => [x.id, x.former])).toEqual([
      ['a', ['id-1']],
      ['id-2', []],
      ['c', ['old', 'id-3']],
    ]))
  it('lets them change places, and then nobody has had the other’s ID', () =>
    expect(after(s, to(['id-2', 'id-3', 'id-1'])).sections.map((x) => [x.id, x.former])).toEqual([
      ['id-2', []],
      ['id-3', []],
      ['id-1', ['old']],
    ]))
})

it('adds a section with an item in the made menu, in page order', () => {
  const s = site([section(1), section(3)], [item(3), item(1)])
  const page = after(
    s,
    addSection(pageOf(s), section(2), () => 'new'),
  )
  expect(page.sections.map((x) => x.key)).toEqual(['s1', 's2', 's3'])
  expect(page.menus[0]!.items.map((i) => i.key)).toEqual(['i3', 'i1', 'new'])
})
