import { parsePage, readParsed } from '../page/index.ts'
import { aMenu, anItem, aPage, aSection } from '../site/builder.ts'
import type { SitePage } from '../site/index.ts'
import { looseLinks } from './index.ts'

const links = [
  '<a href="#one">one</a>',
  '<a href="#gone">gone</a>',
  '<a href="#was">was</a>',
  '<a href="#">soon</a>',
  '<a href="#top">top</a>',
  '<a href="">empty</a>',
  '<a href="more.html#there">there</a>',
  '<a href="more.html#had">had</a>',
  '<a href="more.html#not">not</a>',
  '<a href="other.html#any">other</a>',
  '<a href="https://x.example/">out</a>',
  '<a href="javascript:play()">play</a>',
  '<a href="#two"><img src="x.png" alt="picture"></a>',
]
const source = `<title>Ostrey Sky Week</title><p><a href="#">Ostrey Sky Week</a></p><nav><a href="#one">In a menu</a></nav><p>${links[0]}</p><section id="one"><h2>One</h2>${links.join(' ')}</section><section id="two"><h2>Two</h2>${links[10]}</section>`
const bytes = new TextEncoder().encode(source)
const reading = readParsed(parsePage(bytes), bytes.length, 'index.html')
const at = (text: string, from = 0) => source.indexOf(text, from)
const page: SitePage = aPage({
  sections: [
    aSection(1, { at: at('<section id="one"'), id: 'one', sourceId: 'one', former: ['was'] }),
    aSection(2, { at: at('<section id="two"'), id: 'two', sourceId: 'two' }),
  ],
  menus: [aMenu([anItem(1, at('<a href="#one">In'))], { form: { kind: 'found', elements: [0] } })],
})
const more = aPage({ key: 'p2', file: 'more.html', sections: [aSection(1, { id: 'there', former: ['had'] })] })
const told = (of: SitePage) =>
  looseLinks(of, reading, [of, more]).map(({ link, kind, section, at: by }) => [link.label, kind, section?.id ?? null, by?.id ?? null])

it('says where every link outside menus leads, and where it is', () => {
  expect(told(page)).toEqual([
    ['Ostrey Sky Week', 'here', null, null],
    ['one', 'here', 'one', null],
    ['one', 'here', 'one', 'one'],
    ['gone', 'broken', null, 'one'],
    ['was', 'here', 'one', 'one'],
    ['soon', 'broken', null, 'one'],
    ['top', 'here', null, 'one'],
    ['empty', 'broken', null, 'one'],
    ['there', 'elsewhere', null, 'one'],
    ['had', 'elsewhere', null, 'one'],
    ['not', 'broken', null, 'one'],
    ['other', 'elsewhere', null, 'one'],
    ['out', 'elsewhere', null, 'one'],
    ['play', 'elsewhere', null, 'one'],
    ['picture', 'here', 'two', 'one'],
    ['out', 'elsewhere', null, 'two'],
  ])
})

it('uses their chosen targets', () => {
  const gone = at('<a href="#gone"')
  const given = told({
    ...page,
    links: [
      { at: gone, target: { kind: 'section', section: 's2' } },
      { at: at(links[10]!), target: { kind: 'top' } },
    ],
  })
  expect([given[3], given[12]]).toEqual([
    ['gone', 'here', 'two', 'one'],
    ['out', 'here', null, 'one'],
  ])
})
