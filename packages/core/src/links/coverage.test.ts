import { parsePage, readParsed } from '../page/index.ts'
import { aMenu, anItem, aPage, aSection, aSite } from '../site/builder.ts'
import { foldedOn, hiddenOn } from '../menus/index.ts'
import type { Shown } from '../site/index.ts'
import { coverage, linksInto, unreached } from './index.ts'

const source =
  '<nav><a href="#one">First</a><a href="#one">Again</a><a href="#gone">Gone</a></nav><p><a href="#two">two</a> <a href="">empty</a> <a href="#top">up</a></p><section id="one"></section><section id="two"></section><section id="three"></section>'
const bytes = new TextEncoder().encode(source)
const reading = readParsed(parsePage(bytes), bytes.length, 'index.html')
const links = reading.links.map((l) => l.at)
const section = (n: number, id: string) => aSection(n, { at: source.indexOf(`<section id="${id}"`), id, sourceId: id })
const page = aPage({
  sections: [section(1, 'one'), section(2, 'two'), section(3, 'three')],
  menus: [
    aMenu(
      [
        anItem(1, links[0]!),
        { ...anItem(1, links[1]!), key: 'i2', label: 'Again' },
        { ...anItem(3, links[2]!), label: 'Gone', target: { kind: 'as-is' } },
      ],
      {
        name: 'Page',
        form: { kind: 'found', elements: [0] },
      },
    ),
  ],
})
const other = aPage({
  key: 'p2',
  file: 'more.html',
  menus: [
    aMenu([
      { ...anItem(7), target: { kind: 'page', page: 'p1', section: 's2' } },
      { ...anItem(8), target: { kind: 'page', page: 'p1', section: null } },
    ]),
  ],
})

it('counts links to each section, by source, and links to nowhere', () => {
  const { columns, rows, nowhere } = coverage(aSite(page, other), page, reading)
  expect(columns.map((c) => c.name)).toEqual(['Page', 'Links on the page', 'more.html'])
  expect(rows.map((r) => [r.section?.id ?? 'top', ...r.leaders.map((l) => l.map((one) => one.label).join(' '))])).toEqual([
    ['top', '', 'up', 'Item 8'],
    ['one', 'Item 1 Again', '', ''],
    ['two', '', 'two', 'Item 7'],
    ['three', '', '', ''],
  ])
  expect(nowhere.map((l) => l.map((one) => one.label))).toEqual([['Gone'], ['empty'], []])
})

it('names sections without links', () => expect(unreached(coverage(aSite(page, other), page, reading)).map((s) => s.id)).toEqual(['three']))

it('names sections without links on screens that lack items', () => {
  const footer = aMenu(
    [
      { ...anItem(3), key: 'f3' },
      { ...anItem(1), key: 'f1', off: ['phone'] },
    ],
    { key: 'm2', form: { kind: 'footer', layout: 'row', edge: 0 } },
  )
  const both = { ...page, menus: [...page.menus, footer] }
  const on = (shown: Shown, key: string) => {
    const at = { ...both, menus: [both.menus[0]!, { ...footer, shown }] }
    return unreached(coverage(aSite(at, other), at, reading), hiddenOn(at, { key, width: 390 })).map((s) => s.id)
  }
  expect([
    on({}, 'phone'),
    on({ off: ['phone'] }, 'phone'),
    on({ off: ['phone'] }, 'laptop'),
    on({ small: { upTo: 400, as: 'away' } }, 'x'),
  ]).toEqual([[], ['three'], [], ['three']])
})

it('counts links to the top for its section, and omits pages without links here', () => {
  const atTop = { ...page, sections: page.sections.map((s) => (s.id === 'three' ? { ...s, toTop: true } : s)) }
  const seen = coverage(aSite(atTop, aPage({ key: 'p2', file: 'more.html' })), atTop, reading)
  expect([seen.columns.map((c) => c.name), unreached(seen)]).toEqual([['Page', 'Links on the page'], []])
})

it('counts links in other pages’ files, except those with another target', () => {
  const source =
    '<nav><a href="../index.html#three">Third</a><a href="../#two">Led away</a></nav><p><a href="../index.html">home</a> <a href="../index.html#Top">up</a> <a href="../index.html#was">was</a> <a href="../index.html#gone">gone</a> <a href="../index.html#one">chosen</a> <a href="else.html#one">elsewhere</a> <a href="#one">there</a></p>'
  const bytes = new TextEncoder().encode(source)
  const there = readParsed(parsePage(bytes), bytes.length, 'sub/more.html')
  const [third, away, , , , , chosen] = there.links.map((l) => l.at)
  const items = [
    { ...anItem(7, third!), target: { kind: 'as-is' } as const },
    { ...anItem(8, away!), target: { kind: 'top' } as const },
  ]
  const more = aPage({
    key: 'p2',
    file: 'sub/more.html',
    menus: [aMenu(items, { form: { kind: 'found', elements: [0] } })],
    links: [{ at: chosen!, target: { kind: 'page', page: 'p1', section: 's2' } }],
  })
  const here = { ...page, sections: page.sections.map((s) => (s.id === 'two' ? { ...s, former: ['was'] } : s)) }
  const site = aSite(here, more)
  const seen = coverage(site, here, reading, linksInto(here, more, there, site.pages))
  const last = seen.columns.length - 1
  expect(seen.columns[last]!.name).toBe('sub/more.html')
  expect(seen.rows.map((r) => r.leaders[last]!.map((l) => l.item ?? there.links.find((link) => link.at === l.at)!.label))).toEqual([
    ['home', 'up'],
    [],
    ['chosen', 'was'],
    ['i7'],
  ])
  expect(seen.nowhere[last]!.map((l) => l.label)).toEqual(['gone'])
  expect(unreached(seen)).toEqual([])
})

it('names found menus that are closed at first', () => {
  const on = (isDrawn: boolean) => ({
    menus: [{ at: 0, isDrawn, shows: [], ink: '', grounds: [], stays: false, slides: false, pageMark: null }],
  })
  expect([on(true), on(false), { menus: [] }].map((survey) => foldedOn(page, survey).map((m) => m.name))).toEqual([[], ['Page'], []])
})
