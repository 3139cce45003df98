import type { Candidate, PageReading, Section, SitePage } from '@waybell/core'
import { asTable, buildRows, fromColumn, type RowsInput } from './rows.ts'

const section = (at: number, title: string, over: Partial<Section> = {}): Section => ({
  key: `s${at}`,
  at,
  point: null,
  title,
  id: title.toLowerCase(),
  sourceId: null,
  former: [],
  heading: null,
  depth: 0,
  toTop: false,
  ...over,
})
const part = (at: number, title: string, id: string | null = null): Candidate => ({
  at,
  title,
  id,
  tag: 'h3',
  heading: null,
  offered: false,
  depth: 1,
  line: 1,
  column: 1,
  hints: [],
  block: null,
  holder: null,
})
const page = {
  sections: [section(10, 'Work', { former: ['projects'] }), section(30, 'Team', { depth: 1 }), section(50, 'Mail')],
} as SitePage
const reading = {
  candidates: [
    part(5, 'Title'),
    part(10, 'Work'),
    part(12, 'Boats'),
    part(14, 'Tables', 'tables'),
    part(30, 'Team'),
    part(50, 'Mail'),
    part(55, 'By post'),
  ],
} as PageReading

const rows = (over: Partial<RowsInput> = {}) =>
  buildRows({ page, reading, query: '', filter: 'all', sort: 'page', open: new Set(), faulty: new Set(), ...over }).map(
    (r) =>
      `${' '.repeat(r.depth)}${r.kind === 'section' ? `${r.section.title} ${r.parts}` : r.kind === 'part' ? `- ${r.candidate.title}` : `> ${r.parts}`}`,
  )

describe('rows of the sheet', () => {
  it('folds candidates under the section in whose stretch they are', () => expect(rows()).toEqual(['> 1', 'Work 2', ' Team 0', 'Mail 1']))
  it('unfold it', () =>
    expect(rows({ open: new Set(['s10', 'before']) })).toEqual(['> 1', ' - Title', 'Work 2', ' - Boats', ' - Tables', ' Team 0', 'Mail 1']))
  it('finds rows by title, ID and former ID, also folded ones', () => {
    expect(rows({ query: 'project' })).toEqual(['Work 2'])
    expect(rows({ query: 'TABLES' })).toEqual([' - Tables'])
    expect(rows({ query: 'nothing' })).toEqual([])
  })
  it('sorts rows, without depths', () => expect(rows({ sort: 'title', filter: 'sections' })).toEqual(['Mail 0', 'Team 0', 'Work 0']))
  it('filters by findings, or candidates only', () => {
    expect(rows({ filter: 'findings', faulty: new Set([30]) })).toEqual([' Team 0'])
    expect(rows({ filter: 'parts' })).toEqual([' - Title', ' - Boats', ' - Tables', ' - By post'])
  })
})

it('makes a table that tabs or line ends in a title don’t break', () => {
  const sections = [section(0, 'First'), section(1, 'One\ttwo\nthree'), section(2, 'B', { former: ['x', 'y'] })]
  const page: SitePage = {
    key: 'p1',
    file: 'sub/a page.html',
    source: '',
    title: '',
    sections,
    menus: [],
    header: null,
    travel: { smooth: true, breathing: 0 },
    highlight: { bellOffset: 0 },
  }
  // Those that were chosen keep the sheet's numbers.
  expect(asTable(page, sections.slice(1), () => null).split('\n')).toEqual([
    'number\ttitle\tID\ttype this there\tlink here\tlink from elsewhere\tformer IDs',
    '2\tOne two three\tone two three\t\t#one%09two%0Athree\ta%20page.html#one%09two%0Athree\t',
    '3\tB\tb\t\t#b\ta%20page.html#b\tx y',
  ])
  expect(asTable(page, sections.slice(2), () => null, 'https://ostrey.example/week/').split('\n')).toEqual([
    'number\ttitle\tID\ttype this there\tlink here\tlink from elsewhere\twhole address\tformer IDs',
    '3\tB\tb\t\t#b\ta%20page.html#b\thttps://ostrey.example/week/sub/a%20page.html#b\tx y',
  ])
})

it.each([
  ['a\nb', ['a', 'b']],
  ['a\r\n\r\nb\r\n\r\n', ['a', '', 'b']],
  [' a \tsecond column\nb', ['a', 'b']],
  ['', []],
])('%j is the column %j', (text, values) => expect(fromColumn(text)).toEqual(values))
