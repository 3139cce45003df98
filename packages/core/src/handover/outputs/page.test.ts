import fc from 'fast-check'
import { anInput } from '../builder.ts'
import { defaultRule } from '../../naming/index.ts'
import {
  byteOffsets,
  decodePage,
  encodeText,
  parsePage,
  readParsed,
  undoSplices,
  type PageReading,
  type ParsedPage,
} from '../../page/index.ts'
import { proposeSetUp } from '../../proposal/index.ts'
import { aMenu, aPage, aSection } from '../../site/builder.ts'
import { type Item, type ItemTarget, type MadeLink, type SitePage } from '../../site/index.ts'
import { pageEdits, writePage, type Handover } from '../index.ts'

function build(
  bytes: Uint8Array,
  change: (page: SitePage) => SitePage = (p) => p,
  file = 'index.html',
  others: readonly SitePage[] = [],
): { parsed: ParsedPage; reading: PageReading; page: SitePage; handover: Handover } {
  const parsed = parsePage(bytes)
  const reading = readParsed(parsed, bytes.length, file)
  const page = change({ key: 'p1', file, source: '', title: '', ...proposeSetUp(reading, [], defaultRule) })
  const edits = pageEdits(anInput(page, reading, { pages: [page, ...others] }))
  return { parsed, reading, page, handover: writePage(bytes, parsed, edits) }
}

const ascii = (text: string) => Uint8Array.from(text, (c) => c.charCodeAt(0) & 0xff)
const utf8 = (text: string) => new TextEncoder().encode(text)
const read = (bytes: Uint8Array) => new TextDecoder().decode(bytes)

const aLink = (page: SitePage, at: number, made: MadeLink): SitePage => ({
  ...page,
  links: [{ at, target: { kind: 'section', section: page.sections[0]!.key }, made }],
})

test.each<[string, string, MadeLink, string | null]>([
  ['a picture', '<img src="a.png" alt="Map">', { of: 'element', label: 'Map' }, '<a href="#one"><img src="a.png" alt="Map"></a>'],
  [
    'a figure with white space',
    '<figure>\r\n <img src=a>\r\n</figure>',
    { of: 'element', label: 'F' },
    '<a href="#one"><figure>\r\n <img src=a>\r\n</figure></a>',
  ],
  [
    'a nameless one',
    '<svg><path/></svg>',
    { of: 'element', label: 'One', isSaid: true },
    '<a href="#one" aria-label="One"><svg><path/></svg></a>',
  ],
  [
    'a button',
    '<button class=b type="button"><b>Go</b></button>',
    { of: 'button', label: 'Go' },
    '<a href="#one" data-wb-was="button" class=b><b>Go</b></a>',
  ],
  [
    'words',
    '<p>To the old mill, and back.</p>',
    { of: 'words', label: 'the old mill' },
    '<p>To <a href="#one">the old mill</a>, and back.</p>',
  ],
  [
    'words over lines',
    '<p>To the old\r\n  mill.</p>',
    { of: 'words', label: 'old mill' },
    '<p>To the <a href="#one">old\r\n  mill</a>.</p>',
  ],
  [
    'words behind references',
    '<p>Caf&eacute; &amp; <i>bar &lt;new&gt;</i></p>',
    { of: 'words', label: 'bar <new>' },
    '<p>Caf&eacute; &amp; <i><a href="#one">bar &lt;new&gt;</a></i></p>',
  ],
  [
    'words with a reference',
    '<p>At Caf&eacute; &amp; bar</p>',
    { of: 'words', label: 'Café & bar' },
    '<p>At <a href="#one">Caf&eacute; &amp; bar</a></p>',
  ],
  ['words that go over an element', '<p>To the <b>old</b> mill</p>', { of: 'words', label: 'old mill' }, null],
  ['words in a link', '<p><a href="/x">old mill</a></p>', { of: 'words', label: 'old mill' }, null],
  ['what holds a link', '<div><a href="/x">x</a></div>', { of: 'element', label: 'x' }, null],
  ['an entry of a list', '<li>x</li>', { of: 'element', label: 'x' }, null],
  ['a button that sends a form', '<form><button>Go</button></form>', { of: 'button', label: 'Go' }, null],
  ['what ends nowhere', '<div>x', { of: 'element', label: 'x' }, '<a href="#one"><div>x</div></a>'],
])('%s becomes a link, or is left', (_, markup, made, expected) => {
  const before = `<!doctype html><section id=one><h2>One</h2></section><section id=two><h2>Two</h2></section><main>`
  const source = utf8(`${before}${markup}</main>`)
  const at = before.length + (made.of === 'button' ? markup.indexOf('<button') : 0)
  const { handover, parsed } = build(source, (page) => aLink(page, at, made))
  const text = read(handover.bytes)
  const written = expected ?? markup
  expect(text).toContain(`${written}</main>`)
  expect(read(undoSplices(handover.bytes, handover.splices))).toBe(read(source))
  // Nothing but the link came into the tree.
  const now = parsePage(handover.bytes)
  expect(now.tree.all.filter((el) => el.tag === 'a').length - parsed.tree.all.filter((el) => el.tag === 'a').length).toBe(
    written === markup ? 0 : 1,
  )
})

test('made links are never nested', () => {
  const markup = '<figure><img src=a alt=a><p>An old mill and a mill of old.</p></figure>'
  const before = `<!doctype html><section id=one><h2>One</h2></section><section id=two><h2>Two</h2></section><main>`
  const [figure, p] = [before.length, before.length + markup.indexOf('<p>')]
  const words = (label: string) => ({ at: p, made: { of: 'words', label } as const })
  const write = (...links: { at: number; made: MadeLink }[]) =>
    read(
      build(utf8(`${before}${markup}</main>`), (page) => ({ ...page, links: links.map((l) => ({ ...l, target: { kind: 'top' } })) }))
        .handover.bytes,
    )
  expect(write(words('mill'), words('old mill'))).toContain('<p>An old <a href="#">mill</a> and a mill of old.</p>')
  expect(write(words('mill'), words('mill of'))).toContain('<p>An old <a href="#">mill</a> and a <a href="#">mill of</a> old.</p>')
  expect(write({ at: figure, made: { of: 'element', label: 'Mill' } }, words('mill'))).toContain(`<a href="#">${markup}</a></main>`)
})

/** Tags and texts in order, without what was written and without attributes. */
function shape({ tree }: ParsedPage): string[] {
  return tree.all.map((el) => `${el.depth} ${el.tag} ${el.tag === 'head' ? '' : el.texts.map((t) => t.value.replace(/\s+/g, '')).join('')}`)
}

const markup = fc.constantFrom(
  '<section><h2>Work</h2><p>text enough to be seen</p></section>',
  '<SECTION ID=One id="two"><H2>One &amp; two</H2>words\n<p>unclosed',
  "<section\n  class='a'\r\n id = 'x y' ><h2>Space</h2>",
  '<div id=top><h2>Top</h2></div>',
  '<div id="a"><h2>A</h2></div><div id="a"><h2>A again</h2></div>',
  '<table><tr><td><h2>Cell</h2></td><section><h2>Fostered</h2></section></tr></table>',
  '<template><section id="t"><h2>Not here</h2></section></template>',
  '<svg><a href="#x"><text>S</text></a><foreignObject><h2>Deep</h2></foreignObject></svg>',
  '<script>var s = "<section><h2>no</h2></section>"</script>',
  '<!-- <section id="c"><h2>no</h2></section> -->',
  '<textarea><section><h2>no</h2></section></textarea>',
  '<nav><ul><li><a href="#">Work</a></li><li><a href="#a">A</a><li><a href=#Missing>Space</a></ul></nav>',
  '<header><h1>Title</h1><nav><a href="#one">One</a> <a>No href</a> <a href="">Empty</a></nav></header>',
  '<a name="old"></a><h2>Old anchor</h2><p>and its words, some more of them</p>',
  '<b><p>mis</b>nested</p><a href="#a"><div>block in link</a></div>',
  '<h2/>Self<br/>closed</h2>',
  '</div></p></section>',
  '<p data-wb="intro">Ours in name only</p><style data-wb="style">b{}</style>',
  'plain text & more < less',
  '\u0000<div \u0000 id=\u0000z><h3>Nul</h3></div>',
  '<section title="<section>" data-x=\'"\'><h2>Quotes</h2></section>',
)
const head = fc.constantFrom(
  '',
  '<!doctype html>',
  '<!DOCTYPE html><html><head><title>T</title></head><body>',
  '<head><style>a{b:c}</style>',
  '<html lang=en>',
  '<body class=x>',
  '<!-- first -->\n<!doctype html><title>only</title>',
)
const lineEnd = fc.constantFrom('\n', '\r\n', '\r')

const pages = fc
  .record({ head, parts: fc.array(markup, { minLength: 1, maxLength: 8 }), lineEnd })
  .map(({ head: h, parts, lineEnd: e }) => [h, '<i></i>', ...parts, ''].join('\n').replace(/\r?\n/g, e))

describe('writing a page', () => {
  const encodings: [string, (text: string) => Uint8Array][] = [
    ['utf-8', utf8],
    ['utf-8 with a mark', (t) => Uint8Array.from([0xef, 0xbb, 0xbf, ...utf8('é' + t)])],
    ['windows-1252', (t) => ascii('<meta charset=windows-1252>\u0093quoted\u0094 \xe9\x81' + t)],
    ['utf-16le', (t) => Uint8Array.from([0xff, 0xfe, ...[...t].flatMap((c) => [c.charCodeAt(0) & 0xff, c.charCodeAt(0) >> 8])])],
    ['utf-16be', (t) => Uint8Array.from([0xfe, 0xff, ...[...t].flatMap((c) => [c.charCodeAt(0) >> 8, c.charCodeAt(0) & 0xff])])],
    // A lead byte before a tag, a lone trail byte, and two characters: none of the first come back from the decoder as they were.
    ['shift_jis', (t) => ascii('<meta charset=shift_jis>\x81<p>\xa0\x82\xa0\x81\xfd</p>' + t + '\x81')],
    ['broken utf-8', (t) => Uint8Array.from([...utf8('<meta charset=utf-8>'), 0xc3, 0x28, 0xff, ...utf8(t + 'ü'), 0xe2, 0x82])],
  ]
  // Every other one of the standard, with bytes in front and behind that may be anything in it, broken sequences too.
  const others =
    'ibm866 iso-8859-2 iso-8859-3 iso-8859-4 iso-8859-5 iso-8859-6 iso-8859-7 iso-8859-8 iso-8859-8-i iso-8859-10 iso-8859-13 iso-8859-14 iso-8859-15 iso-8859-16 koi8-r koi8-u macintosh windows-874 windows-1250 windows-1251 windows-1253 windows-1254 windows-1255 windows-1256 windows-1257 windows-1258 x-mac-cyrillic gbk gb18030 big5 euc-jp iso-2022-jp euc-kr x-user-defined'.split(
      ' ',
    )
  const random = fc.sample(
    fc.uint8Array({ minLength: 1, maxLength: 40, min: 0x20 }).map((b) => b.filter((x) => x !== 0x3c)),
    { numRuns: others.length, seed: 7 },
  )
  others.forEach((name, i) =>
    encodings.push([
      name,
      (t) => Uint8Array.from([...ascii(`<meta charset=${name}><p>`), ...random[i]!, ...ascii('</p>' + t), ...random[i]!]),
    ]),
  )
  for (const [name, encode] of encodings) {
    it(`changes nothing outside its edits, and they can be undone: ${name}`, () => {
      fc.assert(
        fc.property(pages, (text) => {
          const bytes = encode(text)
          const { handover, parsed } = build(bytes)
          expect(undoSplices(handover.bytes, handover.splices)).toEqual(bytes)
          for (const s of handover.splices) expect(bytes.slice(s.offset, s.offset + s.removed.length)).toEqual(s.removed)
          expect(shape(parsePage(handover.bytes))).toEqual(shape(parsed))
        }),
        { numRuns: others.includes(name) ? 25 : 120 },
      )
    })
  }

  it('changes nothing else when a thousand IDs change, in any character set', () => {
    const section = (i: number) =>
      `<section ${i % 3 ? `id="s${i}"` : ''} class='x'><h2>N${i}</h2><a href="#s${i}">up</a>words</section>\r\n`
    const text = `<html><body>${Array.from({ length: 1000 }, (_, i) => section(i)).join('')}`
    for (const [name, encode] of encodings.filter(([n]) =>
      ['utf-8', 'utf-16be', 'shift_jis', 'windows-1252', 'gb18030', 'koi8-r'].includes(n),
    )) {
      const bytes = encode(text)
      const { handover, parsed } = build(bytes, (p) => ({
        ...p,
        sections: p.sections.map((s) => ({ ...s, id: `new-${s.at}`, former: s.sourceId === null ? [] : [s.sourceId] })),
      }))
      expect([name, parsed.tree.all.filter((el) => el.tag === 'section').length]).toEqual([name, 1000])
      expect(undoSplices(handover.bytes, handover.splices)).toEqual(bytes)
      const again = parsePage(handover.bytes)
      expect(shape(again)).toEqual(shape(parsed))
      expect(again.tree.all.filter((el) => el.tag === 'section' && el.attrs.get('id')?.startsWith('new-'))).toHaveLength(1000)
      expect(again.tree.all.filter((el) => el.tag === 'a' && el.attrs.get('href')?.startsWith('#new-')).length).toBeGreaterThanOrEqual(666)
    }
  })

  it('gives every section its ID once, and every menu link a target', () => {
    fc.assert(
      fc.property(pages, (text) => {
        const { handover, page } = build(utf8(text))
        const again = parsePage(handover.bytes)
        const ids = page.sections.map((s) => s.id)
        expect(new Set(ids).size).toBe(ids.length)
        const all = again.tree.all.flatMap((el) => el.attrs.get('id') ?? (el.tag === 'a' ? el.attrs.get('name') : undefined) ?? [])
        for (const id of ids) expect(all).toContain(id)
        for (const item of page.menus.flatMap((m) => m.items))
          if (item.target.kind === 'section') expect(page.sections.map((s) => s.key)).toContain(item.target.section)
      }),
    )
  })

  it.each([
    ['a value that is none of ours', '<p data-wb="intro">Kept.</p>'],
    [
      'our name and none of our content',
      '<script type="application/json" data-wb="settings">{"volume":3}</script><style data-wb="style">b{}</style>',
    ],
    ['a menu that is called as ours', '<nav data-wb="menu"><ul><li><a href="#a">A</a></li></ul></nav>'],
  ])('keeps an author’s own data-wb with %s', (_, own) => {
    for (const before of ['', '<!doctype html>', '<html><head><title>T</title></head><body>']) {
      const source = `${before}${own}<section id="a"><h2>A</h2><p>Words.</p></section><section id="b"><h2>B</h2></section>`
      const once = build(utf8(source))
      expect(read(once.handover.bytes)).toContain(own.slice(own.indexOf('data-wb')))
      expect(undoSplices(once.handover.bytes, once.handover.splices)).toEqual(utf8(source))
      expect(read(build(once.handover.bytes).handover.bytes)).toBe(read(once.handover.bytes))
    }
  })

  it('keeps every ID of the page, except a duplicate that is a section', () => {
    const { handover } = build(
      utf8(
        '<main><section id="Work 1"><h2>Work</h2></section><section id=a><h2>A</h2></section><section id="a"><h2>Again</h2></section><p id="a">x</p></main>',
      ),
    )
    const text = read(handover.bytes)
    expect(text).toContain('<section id="Work 1">')
    expect(text).toContain('<section id=a>')
    expect(text).toContain('<section id="again">')
    expect(text).toContain('<p id="a">')
  })

  it('is the same when brought in again', () => {
    fc.assert(
      fc.property(pages, (text) => {
        const once = build(utf8(text)).handover.bytes
        expect(read(build(once).handover.bytes)).toBe(read(once))
      }),
    )
  })

  const menu =
    '<!doctype html><title>t</title><nav>\n <ul>\n  <li><a href="#a"><i></i> Ay </a></li>\n  <li class="b"><a id="lb" href=\'#b\'>Bee</a></li>\n  <li><a href="#c">Cee</a></li>\n </ul>\n</nav><main><section id=a><h2>A</h2></section><section id=b><h2>B</h2></section><section id=c><h2>C</h2></section></main>'
  const menuOf = (change: (page: SitePage) => SitePage) => /<ul>[\s\S]*<\/ul>/.exec(read(build(utf8(menu), change).handover.bytes))![0]

  it('reorders items of a found menu with their markup', () => {
    expect(menuOf((p) => ({ ...p, menus: p.menus.map((m) => ({ ...m, items: [m.items[2]!, m.items[0]!, m.items[1]!] })) }))).toBe(
      '<ul>\n  <li><a href="#c">Cee</a></li>\n  <li><a href="#a"><i></i> Ay </a></li>\n  <li class="b"><a id="lb" href=\'#b\'>Bee</a></li>\n </ul>',
    )
  })

  it('adds an item like the one before it, and removes a dropped one', () => {
    const added = menuOf((p) => ({
      ...p,
      menus: p.menus.map((m) => ({
        ...m,
        items: [m.items[1]!, { key: 'n', label: 'New <one>', target: { kind: 'section', section: p.sections[0]!.key }, links: [] }],
      })),
    }))
    expect(added).toBe(
      '<ul>\n  <li class="b"><a id="lb" href=\'#b\'>Bee</a></li>\n  <li class="b"><a  href=\'#a\'>New &lt;one&gt;</a></li>\n </ul>',
    )
  })

  it('changes a label and keeps the markup around it', () => {
    expect(
      menuOf((p) => ({
        ...p,
        menus: p.menus.map((m) => ({ ...m, items: m.items.map((i, n) => (n ? i : { ...i, label: 'Über & unter' })) })),
      })),
    ).toContain('<a href="#a"><i></i> &#xdc;ber &amp; unter </a>')
  })

  it('writes targets outside the page: made, found and added items', () => {
    const shop = aPage({ key: 'p2', file: 'shop/index.html', sections: [aSection(1, { id: 'tea & cake' })] })
    const targets: ItemTarget[] = [
      { kind: 'page', page: 'p2', section: 's1' },
      { kind: 'page', page: 'p2', section: null },
      { kind: 'outside', address: 'https://ostrey.example/?a=1&b="2"', newTab: true },
    ]
    const items = (links: number[][]) => targets.map((target, n): Item => ({ key: `n${n}`, label: `N ${n}`, target, links: links[n]! }))
    const lines = (change: (page: SitePage) => SitePage, file = 'index.html') =>
      [...read(build(utf8(menu), change, file, [shop]).handover.bytes).matchAll(/<a[^>]*>.*?<\/a>/g)].map((m) => m[0])
    const [found] = build(utf8(menu)).page.menus
    const own = found!.items.map((i) => i.links)
    expect(lines((p) => ({ ...p, menus: [{ ...found!, items: items(own) }] }))).toEqual([
      '<a href="shop/index.html#tea%20&amp;%20cake"><i></i> N 0 </a>',
      '<a id="lb" href=\'shop/index.html\'>N 1</a>',
      '<a target="_blank" rel="noopener" href="https://ostrey.example/?a=1&amp;b=&quot;2&quot;">N 2</a>',
    ])
    expect(
      lines((p) => ({ ...p, menus: [{ ...found!, items: [found!.items[0]!, ...items([[], [], []])] }] }), 'sub/x.html').slice(1),
    ).toEqual([
      '<a href="../shop/index.html#tea%20&amp;%20cake"><i></i> N 0 </a>',
      '<a href="../shop/index.html"><i></i> N 1 </a>',
      '<a target="_blank" rel="noopener" href="https://ostrey.example/?a=1&amp;b=&quot;2&quot;"><i></i> N 2 </a>',
    ])
    // By a choice of the site, from its address on.
    const whole = (page: SitePage, file: string) => {
      const bytes = utf8(menu)
      const parsed = parsePage(bytes)
      const input = anInput(page, readParsed(parsed, bytes.length, file), { pages: [page, shop], address: 'https://ostrey.example/week/' })
      return [...read(writePage(bytes, parsed, pageEdits(input)).bytes).matchAll(/<a[^>]*>/g)].map((m) => m[0])
    }
    const { page: inFolder } = build(utf8(menu), (p) => ({ ...p, menus: [{ ...found!, items: items(own) }] }), 'sub/x.html', [shop])
    expect(whole(inFolder, 'sub/x.html').slice(0, 2)).toEqual([
      '<a href="https://ostrey.example/week/shop/index.html#tea%20&amp;%20cake">',
      '<a id="lb" href=\'https://ostrey.example/week/shop/index.html\'>',
    ])
    const made = aMenu(items([[], [], []]))
    const bare = menu.replace(/<nav>[^]*<\/nav>/, '')
    const text = read(build(utf8(bare), (p) => ({ ...p, menus: [made] }), 'index.html', [shop]).handover.bytes)
    expect([...text.matchAll(/<li>(<a.*)<\/li>$/gm)].map((m) => m[1])).toEqual([
      '<a href="shop/index.html#tea%20&amp;%20cake">N 0</a>',
      '<a href="shop/index.html">N 1</a>',
      '<a href="https://ostrey.example/?a=1&amp;b=&quot;2&quot;" target="_blank" rel="noopener">N 2</a>',
    ])
    // Brought in again alone, it is the same to the byte.
    expect(read(build(utf8(text)).handover.bytes)).toBe(text)
  })

  it('writes an item’s properties, and leaves the page’s others', () => {
    const source = menu.replace('<a id="lb" href=\'#b\'>', '<a id="lb" href=\'#b\' title=old lang=de>')
    const lines = (said: Partial<Item>[]) => {
      const { bytes } = build(utf8(source), (p) => ({
        ...p,
        menus: p.menus.map((m) => ({
          ...m,
          items: [...m.items, { key: 'n', label: 'New', target: m.items[1]!.target, links: [] }].map((i, n) => ({ ...i, ...said[n] })),
        })),
      })).handover
      return [...read(bytes).matchAll(/<a[^>]*>/g)].map((m) => m[0])
    }
    expect(lines([{}, {}, {}, { tooltip: 'Of it' }])).toEqual([
      '<a href="#a">',
      '<a id="lb" href=\'#b\' title=old lang=de>',
      '<a href="#c">',
      '<a title="Of it" href="#b">',
    ])
    expect(
      lines([
        { tooltip: 'A "first"', lang: 'fr' },
        { tooltip: '', lang: '' },
      ]),
    ).toEqual(['<a title="A &quot;first&quot;" lang="fr" href="#a">', '<a id="lb" href=\'#b\'>', '<a href="#c">', '<a href="#b">'])
    const bare = menu.replace(/<nav>[^]*<\/nav>/, '')
    const made = (p: SitePage) =>
      aMenu([{ key: 'i', label: 'Bee', target: { kind: 'section', section: p.sections[1]!.key }, links: [], tooltip: 'Buzz', lang: 'en' }])
    const text = read(build(utf8(bare), (p) => ({ ...p, menus: [made(p)] })).handover.bytes)
    expect(text).toContain('\n<li><a href="#b" title="Buzz" lang="en">Bee</a></li>\n')
    expect(read(build(utf8(text)).handover.bytes)).toBe(text)
  })

  it('writes targets of links on the page, and leaves menu links to their items', () => {
    const source = menu.replace('<section id=a>', '<p><a class=x href="#c" >go</a> <a>unmade</a></p><section id=a>')
    const links = build(utf8(source)).reading.links.map((l) => l.at)
    const lead = (n: number, target: ItemTarget) => ({ at: links[n]!, target })
    const text = read(
      build(utf8(source), (p) => ({
        ...p,
        links: [
          lead(0, { kind: 'top' }),
          lead(3, { kind: 'section', section: p.sections[1]!.key }),
          lead(4, { kind: 'outside', address: '/x', newTab: true }),
        ],
      })).handover.bytes,
    )
    expect(text).toContain('<p><a class=x href="#b" >go</a> <a href="/x" target="_blank" rel="noopener">unmade</a></p>')
    expect(text).toContain('<a href="#a"><i></i> Ay </a>')
  })

  it('updates every other link when an ID changes', () => {
    const page = utf8(
      '<main><p>See <a href="#b">there</a>, <a href="index.html#b">and here</a>, <a href="other.html#b">not</a>.</p><section id=a><h2>A</h2></section><section id=b><h2>B</h2></section></main>',
    )
    const text = read(
      build(page, (p) => ({ ...p, sections: p.sections.map((s) => (s.id === 'b' ? { ...s, id: 'bee' } : s)) })).handover.bytes,
    )
    expect(text).toContain('<a href="#bee">there</a>, <a href="index.html#bee">and here</a>, <a href="other.html#b">not</a>')
  })

  it('updates menu links that were left as they are', () => {
    const there = aPage({ key: 'p2', file: 'more.html', sections: [aSection(1, { id: 'new', sourceId: 'old', former: ['old'] })] })
    const source = utf8(menu.replace('</ul>', '<li><a href="more.html#old">More</a></li></ul>'))
    expect(read(build(source, undefined, 'index.html', [there]).handover.bytes)).toContain('<a href="more.html#new">More</a>')
  })

  it('writes no page text that could end its script or style', () => {
    const text = read(
      build(utf8('<meta charset=utf-8><section id="</script><b>"><h2>&lt;/style></h2></section><section id="x"><h2>X</h2></section>'))
        .handover.bytes,
    )
    expect(text.match(/<\/script>/g)).toHaveLength(3)
    expect(parsePage(utf8(text)).tree.all.some((el) => el.tag === 'b')).toBe(false)
  })
})

describe('bytes and text', () => {
  it('finds the first byte of every character', () => {
    const bytes = utf8('aé\u{1f600}z€')
    const page = decodePage(bytes)
    expect(byteOffsets(bytes, page, [0, 1, 2, 4, 5, 6])).toEqual([0, 1, 3, 7, 8, 11])
  })

  it('writes in the page’s character set, with escapes for missing characters', () => {
    const ansi = { encoding: 'windows-1252', declared: true }
    expect([...encodeText('é€ж', ansi, 'html')]).toEqual([0xe9, 0x80, ...ascii('&#x436;')])
    expect([...encodeText('あж', { encoding: 'shift_jis', declared: true }, 'html')]).toEqual([0x82, 0xa0, 0x84, 0x77])
    expect(String.fromCharCode(...encodeText('é', { encoding: 'utf-8', declared: false }, 'css'))).toBe('\\e9 ')
    expect(String.fromCharCode(...encodeText('\u{1f600}', { encoding: 'utf-8', declared: false }, 'js'))).toBe('\\ud83d\\ude00')
  })

  it.each([
    ['<meta charset="latin1">', 'windows-1252'],
    ['<meta http-equiv=content-type content="text/html; charset=Shift_JIS">', 'shift_jis'],
    ['<!-- <meta charset=big5> --><meta charset=koi8-r>', 'koi8-r'],
    ['<meta charset=utf-16>', 'utf-8'],
    ['<meta content="text/html;charset=ISO-8859-15" http-equiv=Content-Type>', 'iso-8859-15'],
    ['<meta name=x content="text/html; charset=big5"><meta charset=x-user-defined>', 'windows-1252'],
    [`<!doctype html><head><!-- ${'licence '.repeat(200)} --><meta charset=euc-kr></head>`, 'euc-kr'],
    [`<!doctype html><head><script>${'long '.repeat(250)}"<meta charset=big5>"</script></head><body><meta charset=big5>`, 'utf-8'],
    ['<meta charset=no-such-thing>', 'utf-8'],
    ['<p>é</p>', 'utf-8'],
  ])('finds the encoding of %s', (text, encoding) => expect(decodePage(utf8(text)).encoding).toBe(encoding))
})
