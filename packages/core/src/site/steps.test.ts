import { aMenu, anItem as item, aPage, aSection as section, aSite } from './builder.ts'
import {
  addSection,
  apply,
  depthsOf,
  dropSections,
  mergeWithNext,
  nestSection,
  renameSections,
  type Command,
  type Item,
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
    const page = after(made, dropSections(pageOf(made), pageOf(made).sections.slice(0, 2)))
    expect([page.sections.map((s) => s.key), page.menus[0]!.items.map((i) => i.key)]).toEqual([['s3'], ['i3']])
  })
  it('leaves the page’s own links where they went', () => {
    const page = after(adopted, dropSections(pageOf(adopted), [pageOf(adopted).sections[1]!]))
    expect(page.menus[0]!.items.map((i) => i.target.kind)).toEqual(['section', 'as-is', 'section'])
  })
  it('lets the page’s own links to the next section lead to the one that takes it in', () => {
    const page = after(adopted, mergeWithNext(pageOf(adopted), pageOf(adopted).sections[0]!))
    expect(page.sections.map((s) => s.key)).toEqual(['s1', 's3'])
    expect(page.menus[0]!.items[1]!.target).toEqual({ kind: 'section', section: 's1' })
  })
  it('has nothing to merge the last section with', () => expect(mergeWithNext(pageOf(made), pageOf(made).sections[2]!)).toBeNull())
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
