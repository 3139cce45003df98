import { MAX_DEPTH, MAX_PAGE_BYTES, PageError, readPage } from './index.ts'

const page = (body: string, head = '') =>
  readPage(new TextEncoder().encode(`<!doctype html><html><head><meta charset=utf-8>${head}</head><body>\n${body}</body></html>`))
const offered = (body: string) =>
  page(body)
    .candidates.filter((c) => c.offered)
    .map((c) => c.title)
const text = '<p>Some words that make this part weigh something on the page.</p>'

describe('the outline', () => {
  it('offers a landing page’s sections, without bar and footer', () =>
    expect(
      offered(
        `<header><a href="#">Logo</a><nav><a href="#a">A</a> <a href="#b">B</a></nav></header><section><h1>Hero</h1>${text}</section><section><h2>One</h2>${text}<h3>Part</h3></section><section><h2>Two</h2>${text}</section><footer><h2>Foot</h2></footer>`,
      ),
    ).toEqual(['Hero', 'One', 'Two']))

  it('sees through wrappers, however deep', () =>
    expect(
      offered(
        `<div id="root"><div class="page"><main><div class="in"><div><h2>One</h2>${text}</div><div><h2>Two</h2>${text}</div></div></main></div></div>`,
      ),
    ).toEqual(['One', 'Two']))

  it('offers headings without blocks, except the title', () =>
    expect(offered(`<article><h1>Title</h1>${text}<h2>One</h2>${text}<h3>Inner</h3>${text}<h2>Two</h2>${text}</article>`)).toEqual([
      'One',
      'Two',
    ]))

  it('tells the site’s name in a bar from the title below', () => {
    const bar =
      '<div class="help"><h2>Keys</h2></div><div class="bar"><button>Menu</button><h1>Kettle works</h1><a href="print.html">Print</a></div>'
    const parts = ['Copper', 'Steel', 'Repairs'].map((t) => `<h2>${t}</h2>${text}`).join('')
    expect(offered(`${bar}<main><h1>Every kettle there is</h1>${text}${parts}</main>`)).toEqual(['Copper', 'Steel', 'Repairs'])
    expect(offered(`<h1>Copper</h1>${text}<h1>Steel</h1>${text}<h2>Plain</h2>${text}<h2>Blue</h2>${text}`)).toEqual(['Copper', 'Steel'])
  })
  it('offers no cards', () =>
    expect(
      offered(
        `<section><h2>Team</h2><div><article><h3>Ann</h3>${text}</article><article><h3>Bo</h3>${text}</article></div></section><section><h2>Prices</h2>${text}</section>`,
      ),
    ).toEqual(['Team', 'Prices']))

  it('tells a hero header from a bar', () =>
    expect(
      offered(
        `<header><nav><a href="#x">X</a><a href="#y">Y</a></nav><h1>Welcome</h1>${text}</header><main><section id=x><h2>X</h2>${text}</section><section id=y><h2>Y</h2>${text}</section></main>`,
      ),
    ).toEqual(['Welcome', 'X', 'Y']))

  it('offers a banner without heading as a hero if the bar is separate', () =>
    expect(
      offered(
        `<nav><a href="#a">A</a><a href="#b">B</a></nav><header><div>Welcome to our studio</div><div>It is nice to see you here</div></header><section id=a><h2>A</h2>${text}</section><section id=b><h2>B</h2>${text}</section>`,
      ),
    ).toHaveLength(3))

  it('finds a bar without header element', () =>
    expect(
      offered(
        `<div id=header><h1>Club</h1><ul><li><a href="#a">A</a><li><a href="#b">B</a></ul></div><div id=a><h2>A</h2>${text}</div><div id=b><h2>B</h2>${text}</div>`,
      ),
    ).toEqual(['A', 'B']))

  it('sees through layout tables', () =>
    expect(offered(`<table><tr><td><h2>Left</h2>${text}</td></tr><tr><td><h2>Right</h2>${text}</td></tr></table>`)).toEqual([
      'Left',
      'Right',
    ]))

  it('offers menu targets, a footer too', () =>
    expect(
      offered(
        `<nav><a href="#one">One</a><a href="#contact">Contact</a></nav><section id=one><h2>One</h2>${text}</section><section><h2>Two</h2>${text}</section><footer id=contact><h2>Contact</h2>${text}</footer>`,
      ),
    ).toEqual(['One', 'Two', 'Contact']))

  it('offers the heading if links lead to it', () => {
    const { candidates } = page(
      `<nav><a href="#h1">One</a><a href="#h2">Two</a></nav><section><h2 id="h1">One</h2>${text}</section><section><h2 id="h2">Two</h2>${text}</section>`,
    )
    expect(candidates.filter((c) => c.offered).map((c) => [c.tag, c.id])).toEqual([
      ['h2', 'h1'],
      ['h2', 'h2'],
    ])
  })

  it('offers nothing hidden, and ignores a skip link', () =>
    expect(
      offered(
        `<a href="#main">Skip</a><nav><a href="#main">All</a><a href="#a">A</a></nav><main id=main><section id=a><h2>A</h2>${text}</section><section hidden><h2>Hidden</h2>${text}</section><section><h2>B</h2>${text}</section><dialog><h2>D</h2></dialog></main>`,
      ),
    ).toEqual(['A', 'B']))

  it('reads a page without headings', () =>
    expect(offered(`<div id="wrap"><div id="a">${text}</div><div id="b">${text}</div></div>`)).toHaveLength(2))
  it('reads a page with one section', () => expect(offered(`<section><h2>Only</h2>${text}</section>`)).toEqual(['Only']))
  it('reads plain text', () => expect(offered('just words')).toEqual([]))
  it('names a section without a heading by its label, else its first words', () =>
    expect(offered('<section aria-label="Gallery"><img src=a.png></section><section>One two three four five six seven</section>')).toEqual([
      'Gallery',
      'One two three four five',
    ]))
})

describe('links', () => {
  it.each([
    ['#a', 'ok'],
    ['#%61', 'ok'],
    ['#nope', 'broken'],
    ['#A', 'broken'],
    ['#', 'top'],
    ['#TOP', 'top'],
    ['', 'empty'],
    ['index.html#a', 'ok'],
    ['./index.html#gone', 'broken'],
    ['other.html#a', 'other-page'],
    ['/x', 'other-page'],
    ['https://example.org/#a', 'outside'],
    ['//example.org', 'outside'],
    ['mailto:a@b.example', 'outside'],
    [' JavaScript:void(0)', 'script'],
    ['#old', 'ok'],
  ])('%s is %s', (href, status) => expect(page(`<a href="${href}">x</a><p id=a>a</p><a name="old"></a>`).links[0]!.status).toBe(status))

  it('leave the page with a base', () =>
    expect(page('<a href="#a">x</a><p id=a>', '<base href="/sub/">').links[0]!.status).toBe('other-page'))
  it('count lines from 1 with every line end', () => {
    const { links } = readPage(new TextEncoder().encode('<p>\r<a href="#1">\r\n<a href="#2">\n  <a href="#3">'))
    expect(links.map((l) => [l.line, l.column])).toEqual([
      [2, 1],
      [3, 1],
      [4, 3],
    ])
  })
})

describe('files that aren’t pages', () => {
  const code = (bytes: Uint8Array) => {
    try {
      readPage(bytes)
      return null
    } catch (error) {
      return (error as PageError).code
    }
  }
  it.each([
    ['nothing', new Uint8Array(0), 'page-empty'],
    ['white space', new TextEncoder().encode(' \n'), 'page-empty'],
    ['plain text', new TextEncoder().encode('Dear reader, 1 < 2'), 'page-not-html'],
    ['JSON', new TextEncoder().encode('{"a": 1}'), 'page-not-html'],
    ['a PDF', new TextEncoder().encode('%PDF-1.4 <html>'), 'page-not-html'],
    ['bytes', Uint8Array.from({ length: 4000 }, (_, i) => (i * 7919) % 256), 'page-not-html'],
    ['too many bytes', new Uint8Array(MAX_PAGE_BYTES + 1).fill(32), 'page-too-big'],
    ['too deep', new TextEncoder().encode('<div>'.repeat(MAX_DEPTH + 10)), 'page-too-deep'],
    ['frames', new TextEncoder().encode('<html><frameset><frame src=a></frameset></html>'), 'page-frameset'],
  ])('%s is told apart', (_, bytes, expected) => expect(code(bytes)).toBe(expected))

  it('reads deep markup within the limit', () =>
    expect(readPage(new TextEncoder().encode('<div>'.repeat(3000) + '<h2>Deep</h2>')).candidates).toEqual([]))
})

it('names the files that a page loads', () =>
  expect(
    page(
      '<img src="a%20b.png?x" srcset="c.png 1x, d.png 2x"><div style="background:url(e.png)"></div><img src="data:,x"><img src="https://x.example/y.png">',
      '<link rel=stylesheet href="./s.css"><style>@import "i.css"; a{b:url("f.woff2#x")}</style>',
    ).assets.map((a) => a.path),
  ).toEqual(['s.css', 'i.css', 'f.woff2', 'a b.png', 'c.png', 'd.png', 'e.png']))
