import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { parsePage, readPage, readParsed } from './index.ts'

/** Twelve pages, written and marked by hand (`data-section`) before the rules were tuned to them. */
const folder = join(process.cwd(), 'packages/core/fixtures/outline')
const pages = readdirSync(folder).map((file) => {
  const bytes = new Uint8Array(readFileSync(join(folder, file)))
  const parsed = parsePage(bytes)
  const offered = readParsed(parsed, bytes.length, file).candidates.filter((c) => c.offered)
  const marked = parsed.tree.all.filter((el) => el.attrs.has('data-section')).map((el) => el.at)
  return { file, offered, marked, hits: offered.filter((c) => marked.includes(c.at)).length }
})
const sum = (of: (page: (typeof pages)[number]) => number) => pages.reduce((n, p) => n + of(p), 0)

describe('offered parts', () => {
  it('are those a designer marked, nine times in ten, and few others', () => {
    expect(pages).toHaveLength(12)
    expect(sum((p) => p.hits) / sum((p) => p.offered.length)).toBeGreaterThanOrEqual(0.9)
    expect(sum((p) => p.hits) / sum((p) => p.marked.length)).toBeGreaterThanOrEqual(0.9)
  })
  it.each(pages.map((p) => [p.file, p] as const))('are mostly right on %s alone', (_, { offered, marked, hits }) => {
    expect(hits / offered.length).toBeGreaterThanOrEqual(0.75)
    expect(hits / marked.length).toBeGreaterThanOrEqual(0.75)
  })
})

const read = (body: string) => {
  const bytes = new TextEncoder().encode(body)
  return readParsed(parsePage(bytes), bytes.length, 'index.html').candidates
}

it('offers the chapters of a manual, and finds their parts', () => {
  const candidates = read(
    '<h1>Manual</h1><h2>One</h2><p>a</p><h3>One a</h3><p>b</p><h3>One b</h3><p>c</p><h2>Two</h2><p>d</p><h2>Three</h2><p>e</p>',
  )
  expect(candidates.filter((c) => c.offered).map((c) => c.title)).toEqual(['One', 'Two', 'Three'])
  expect(candidates.filter((c) => !c.offered).map((c) => c.title)).toEqual(['Manual', 'One a', 'One b'])
})

it.each([
  ['<section><h2>Our  <em>work</em></h2><p>x</p></section>', 'Our work'],
  ['<section aria-label="Clients"><p>Some words that go on</p></section>', 'Clients'],
  ['<section><p>Some words that go on and on</p></section>', 'Some words that go on'],
  ['<section><img src=x alt=""></section>', 'section'],
  ['<section><h2>Files<a href="#files">¶</a></h2><p>x</p></section>', 'Files'],
])('the title of %s is “%s”', (body, title) => expect(read(`${body}<section><h2>Other</h2></section>`)[0]!.title).toBe(title))

it('finds old anchors, named by the heading after them or themselves, once', () => {
  const text = 'Words of a part that go on for a while. '.repeat(3)
  const candidates = read(
    `<section><h2>One</h2><p>${text}</p><a name="bread"></a><h3>Bread</h3><p>${text}<span id="note-3"></span>${text}</p></section><a name="two"></a><section><h2>Two</h2><p>${text}</p></section>`,
  )
  expect(candidates.filter((c) => !c.offered).map((c) => [c.tag, c.id, c.title])).toEqual([
    ['a', 'bread', 'Bread'],
    ['h3', null, 'Bread'],
    ['span', 'note-3', 'note-3'],
  ])
})

it.each([
  [
    '<header><a href="/">x</a><nav><a href="#a">A</a><a href="#b">B</a></nav></header>\n<main><section id=a><h2>A</h2></section><section id=b><h2>B</h2></section></main>\n<footer>c</footer>',
    1,
    3,
  ],
  [
    '<div id=top><a href="#a">A</a> <a href="#b">B</a></div>\n<div id=a><h2>A</h2></div><div id=b><h2>B</h2></div>\n<div class="page-footer">c</div>',
    1,
    3,
  ],
  ['<section><h2>A</h2></section><section><h2>B</h2></section>', null, null],
])('finds header and footer of %s', (body, header, footer) => {
  const bytes = new TextEncoder().encode(body)
  const { headerLine, footerLine } = readParsed(parsePage(bytes), bytes.length, 'index.html')
  expect([headerLine, footerLine]).toEqual([header, footer])
})

describe('a part without a heading of its own', () => {
  const titles = (body: string) =>
    readPage(new TextEncoder().encode(`<!doctype html><meta charset=utf-8>${body}`))
      .candidates.filter((c) => c.offered)
      .map((c) => c.title)
  const nav = '<nav><a href="#a">Rooms</a><a href="#b">Pictures</a></nav>'
  it.each([
    [
      'what its menu calls it',
      `${nav}<section id=a><h2>Rooms</h2></section><div id=b><img alt="..."><i>Harbour</i> <b>Noon</b></div>`,
      'Pictures',
    ],
    [
      'and so where it has one for each of its cards',
      `${nav}<section id=a><h2>Rooms</h2></section><section id=b><div><h3>Bow</h3></div><div><h3>Stern</h3></div></section>`,
      'Pictures',
    ],
    [
      'what a class of it says',
      '<section><h2>One</h2></section><section><p>Welcome!</p><div class="hero-heading">To the quay</div></section>',
      'To the quay',
    ],
    [
      'the first thing that it says',
      '<section><h2>One</h2></section><section><div>Welcome!</div><div>It is nice to see you</div></section>',
      'Welcome!',
    ],
    ['its ID', '<section id=a><h2>One</h2></section><section id="where-we-are"><iframe></iframe><svg></svg></section>', 'Where we are'],
  ])('is named by %s', (_, body, title) => expect(titles(body)).toContain(title))
  it('contains cards in a row, which aren’t parts; cards in a column are', () => {
    const cards = (around: string) =>
      titles(
        `<div><h1>Tools</h1><p>For lifting what is heavy.</p></div><div class="${around}"><div class=card><h2>A</h2></div><div class=card><h2>B</h2></div></div>`,
      )
    expect(cards('row')).toEqual(['Tools'])
    expect(cards('main')).toEqual(['Tools', 'A', 'B'])
  })
  it('is the page’s opening under a menu elsewhere', () =>
    expect(
      titles(
        `<nav><a href="#a">A</a><a href="#b">B</a></nav><header><h1>Quay</h1><a href="#a">More</a></header><section id=a><h2>A</h2></section><section id=b><h2>B</h2></section>`,
      ),
    ).toEqual(['Quay', 'A', 'B']))
})

describe('a heading by look', () => {
  const bytes = new TextEncoder().encode(
    '<!doctype html><meta charset=utf-8><div><div><div>Bread</div><p>Baked at three in the morning, sold by seven, gone by nine.</p></div><div><div>Cake</div><p>For birthdays, with a name on it, if it is short.</p></div></div>',
  )
  const headings = (looks?: { at: number; level: number }[]) =>
    readParsed(parsePage(bytes, looks), bytes.length, 'x.html')
      .candidates.filter((c) => c.offered)
      .map((c) => c.heading)
  const at = (word: string) => new TextDecoder().decode(bytes).indexOf(`<div>${word}`)
  it('counts once measured', () => {
    expect(headings()).toEqual([null, null])
    expect(
      headings([
        { at: at('Bread'), level: 2 },
        { at: at('Cake'), level: 2 },
      ]),
    ).toEqual([at('Bread'), at('Cake')])
  })
  it('doesn’t count beside real headings', () => {
    const said = new TextEncoder().encode('<!doctype html><h2>One</h2><p>words</p><h2>Two</h2><p>more</p>')
    const parsed = parsePage(said, [{ at: 30, level: 2 }])
    expect([parsed.lacksHeadings, parsed.isByLook]).toEqual([false, false])
  })
})
