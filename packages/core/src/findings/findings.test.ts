import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { defaultRule } from '../naming/index.ts'
import { inlineScripts, parsePage, readPage, registersWorker, undeclaredNames } from '../page/index.ts'
import { solveArrivals } from '../arrival/index.ts'
import { proposeSetUp } from '../proposal/index.ts'
import { aPage, aSite } from '../site/builder.ts'
import { aHeader, aPart, aSurvey } from '../survey/builder.ts'
import { apply, type Item, type Site, type SitePage } from '../site/index.ts'
import { aTried } from '../walk/builder.ts'
import type { Tried } from '../walk/index.ts'
import { openFindings, pageFindings, taskOf } from './index.ts'

const none = { missing: new Set<string>(), undeclared: new Set<string>(), registersWorker: false }
const read = (body: string) => readPage(new TextEncoder().encode(body))
const codes = (body: string, missing: string[] = []) =>
  pageFindings(read(body), {
    missing: new Set(missing),
    undeclared: undeclaredNames(inlineScripts(parsePage(new TextEncoder().encode(body)).tree)),
    registersWorker: registersWorker(inlineScripts(parsePage(new TextEncoder().encode(body)).tree)),
  }).map((f) => `${f.severity} ${f.code} ${f.line}:${f.column}`)

it('reports each fault with its place', () =>
  expect(
    codes(
      `<nav><a href="#gone">a</a>\n<a href="#ABOUT">b</a><a href="#dup">c</a></nav>
<section id="about"><h2>A</h2></section>
<section id="my work"><h2>B</h2></section><section id="2nd"><h2>C</h2></section>
<section id=dup><p>No heading here, only words.</p></section><p id=dup>x</p><p id=x1><p id=x1>
<img src="lost.png">`,
      ['lost.png'],
    ),
  ).toEqual([
    'error link-broken 1:6',
    'error link-case 2:1',
    'error id-space 4:1',
    'warning id-selector 4:43',
    'warning heading-missing 5:1',
    'error id-duplicate 5:62',
    'warning id-duplicate 5:86',
    'warning asset-missing 6:1',
  ]))

it('reports links without address once, menu items one by one', () => {
  const nav =
    '<title>Kiln, a pottery</title><a href="#"><img alt=""></a><a href="#">Kiln</a><nav><a href="#!">About</a><a href="#a">A</a><a href="#b">B</a></nav>'
  const body = `${nav}<section id=a><h2>A</h2><a href="#!">One</a> <a href="#!">Two</a> <a href="#">Up we go</a></section><section id=b><h2>B</h2></section>`
  expect(pageFindings(read(body), none).map((f) => f.message)).toEqual([
    '“About” leads nowhere: its address is a placeholder. Choose its target in Menus, or remove it.',
    '2 links (“One”, “Two”) have no address yet: pressing one does nothing.',
    '1 link (“Up we go”) has no address yet: pressing it goes to the top of the page.',
  ])
})

it('ignores IDs that an earlier handover gave for former ones and points', () => {
  const page = readFileSync(join(process.cwd(), 'e2e/pages/field/renamed/index.html'), 'utf8')
  expect(codes(page)).toEqual([])
  // Given by hand, one is the page's own.
  expect(codes(page.replace('<h2 id="20">', '<h2>').replace('<p class="over">', '<p class="over" id="20">'))).toEqual([
    expect.stringContaining('id-selector'),
  ])
})

it('reports nothing for a sound page', () =>
  expect(
    codes('<nav><a href="#a">A</a><a href="#b">B</a></nav><section id=a><h2>A</h2></section><section id=b><h2>B</h2></section>'),
  ).toEqual([]))

it.each([
  ['<p id="">', 'warning id-empty'],
  ['<p id="#work">', 'error id-hash'],
  ['<p id="Work"><p id="work">', 'warning id-case'],
  ['<p id="top">', 'note id-reserved'],
  ['<p id="TOP">', 'note id-reserved'],
  ['<script>if (window.news) news.open()</script><p id="news">', 'warning id-shadow'],
  ['<a href="#x">x</a><div hidden><p id="x">Words</p></div>', 'error section-hidden'],
  ['<a href="#x">x</a><p id="x" style="color:red; display:none">Words</p>', 'error section-hidden'],
  ['<section id="map"></section>', 'warning section-empty'],
  ['<a href="#x">x</a><details><p id="x">Words</p></details><p hidden=until-found id=y>', ''],
])('%s is %s', (body, found) =>
  expect(
    codes(`<h1>Words</h1>${body}`)
      .map((c) => c.replace(/ \d.*/, ''))
      .join(),
  ).toBe(found),
)

const site = (page: SitePage): Site => aSite(page)
const surveys = {}
const undeclared = new Set<string>()
const known = new Set<string>()
const named = { styles: [] as string[], scripts: [] as string[] }
function opened(body: string, change: (page: SitePage) => SitePage = (p) => p) {
  const reading = read(body)
  const page = change({ key: 'p1', file: 'index.html', source: '', title: '', ...proposeSetUp(reading, [], defaultRule) })
  return {
    reading,
    page,
    all: pageFindings(reading, none),
    open: openFindings({ site: site(page), page, reading, undeclared, known, named, surveys, tried: {} }, pageFindings(reading, none)),
  }
}

it('closes a finding when the work resolves it', () => {
  const { all, open } = opened(
    '<nav><a href="#">One</a><a href="#tow">Two</a></nav><p><a href="#one">x</a> <a href="#three">y</a></p><section><h2>One</h2></section><section><h2>Two</h2></section>',
  )
  expect(all.map((f) => f.code)).toEqual(['item-nowhere', 'link-broken', 'link-broken', 'link-broken'])
  const isTold = (f: { code: string }) => f.code !== 'item-likely'
  expect(open.filter(isTold).map((f) => f.message)).toEqual([expect.stringContaining('#three')])
})

it('fixes a bad section ID by a command that closes the finding', () => {
  const body = '<section id="my work"><h2>Work</h2></section><section id="2nd"><h2>B</h2></section><section><h2>C</h2></section>'
  const { page, reading, open, all } = opened(body)
  expect(open.map((f) => f.fix?.label)).toEqual(['Rename to “my-work”', 'Rename to “section-2nd”'])
  const fixed = open.reduce((s, f) => apply(s, f.fix!.command).site, site(page))
  expect(openFindings({ site: fixed, page: fixed.pages[0]!, reading, undeclared, known, named, surveys, tried: {} }, all)).toEqual([])
  expect(fixed.pages[0]!.sections[0]!.former).toEqual(['my work'])
})

it('reports a former ID that something else has now, and forgets it on request', () => {
  const body = '<section><h2>A</h2></section><section><h2>B</h2></section><p id="news">x</p>'
  const { page, open } = opened(body, (p) => ({
    ...p,
    sections: p.sections.map((s, i) => ({ ...s, former: i ? ['a', 'news', 'old'] : [] })),
  }))
  expect(open.map((f) => f.message)).toEqual([expect.stringContaining('the section “A”'), expect.stringContaining('the p on line 1')])
  expect(apply(site(page), open[1]!.fix!.command).site.pages[0]!.sections[1]!.former).toEqual(['a', 'old'])
})

it.each([
  ["if ('serviceWorker' in navigator) navigator.serviceWorker.register('/sw.js')", ['note service-worker 1:1']],
  ["navigator.serviceWorker\n  .register('sw.js')", ['note service-worker 1:1']],
  ["console.log(navigator.serviceWorker); form.register('name')", []],
])('reports a service worker: %s', (script, expected) =>
  expect(codes(`<h1>A</h1><script>${script}</script>`).filter((c) => c.includes('worker'))).toEqual(expected),
)

it.each([
  ['<base href="/">', ['warning base-address 1:1']],
  ['<base target="_blank">', []],
])('reports a page whose hashes lead elsewhere: %s', (base, expected) =>
  expect(codes(`<head>${base}</head><h1>A</h1>`).filter((c) => c.includes('base'))).toEqual(expected),
)

it('reports a section without a place on a screen', () => {
  const { page, reading } = opened(
    '<meta name=viewport content="width=device-width"><section><h2>A</h2></section><section><h2>B</h2></section>',
  )
  const survey = aSurvey({ parts: page.sections.map((s, i) => aPart({ at: s.at, top: i * 900, bottom: 2000, hasBox: i === 0 })) })
  const open = openFindings({ site: site(page), page, reading, undeclared, known, named, tried: {}, surveys: { phone: survey } }, [])
  expect(open).toMatchObject([
    { code: 'section-hidden', severity: 'warning', message: 'Links to “B” do nothing on “Phone”: the section is hidden there.' },
  ])
})

it('reports sections out of view at the side, and a menu of buttons', () => {
  const nav = '<nav><button data-to="#a">A</button><button data-to="#b">B</button></nav>'
  const { page, reading } = opened(
    `${nav}<section id=a><h2>A</h2></section><section id=b><h2>B</h2></section><section id=c><h2>C</h2></section>`,
  )
  const besides = (left: number) => page.sections.map((s, i) => aPart({ at: s.at, top: 0, bottom: 800, left: i * left }))
  const codesOf = (left: number) => {
    const surveys = { laptop: aSurvey({ parts: besides(left) }) }
    return openFindings({ site: site(page), page, reading, undeclared, known, named, surveys, tried: {} }, []).map(
      (f) => `${f.severity} ${f.code}`,
    )
  }
  expect(codesOf(1280)).toContain('error lies-sideways')
  // Columns are seen side by side.
  expect(codesOf(400)).not.toContain('error lies-sideways')
  expect(codesOf(400)).toContain('warning menu-of-buttons')
})

it('compares a menu’s order with measured positions', () => {
  const nav = '<nav><a href="#b">B</a><a href="#a">A</a></nav>'
  const { page, reading } = opened(`${nav}<section id=a><h2>A</h2></section><section id=b><h2>B</h2></section>`)
  const told = (tops: number[]) => {
    const parts = page.sections.map((s, i) => aPart({ at: s.at, top: tops[i]!, bottom: tops[i]! + 500 }))
    const input = { site: site(page), page, reading, undeclared, known, named, surveys: { laptop: aSurvey({ parts }) }, tried: {} }
    return openFindings(input, []).map((f) => f.code)
  }
  expect(told([0, 900])).toEqual(['order-of-page'])
  expect(told([900, 0])).toEqual([])
})

it('reports script-built content, even alone', () => {
  const reading = read('<div id=app></div>')
  const menus = [{ at: null, links: [{ label: 'Beans', href: '#beans', target: null, arrives: true }] }]
  const page = aPage({ sections: [], menus: [] })
  const surveys = { laptop: aSurvey({ built: { menus, headings: ['Beans we buy'], targets: [] } }) }
  const [only, ...more] = openFindings({ site: site(page), page, reading, undeclared, known, named, surveys, tried: {} }, [])
  expect(only).toMatchObject({ code: 'built-by-scripts', message: expect.stringContaining('1 heading (“Beans we buy”)') })
  expect(more).toEqual([])
})

it('reports a section that starts where another does, so it never rings', () => {
  const { page, reading } = opened('<section><h2>A</h2></section><section><h2>B</h2></section><section><h2>C</h2></section>')
  const parts = page.sections.map((s, i) => aPart({ at: s.at, top: [0, 900, 900][i]!, bottom: 2000 }))
  const open = openFindings(
    { site: site(page), page, reading, undeclared, known, named, surveys: { laptop: aSurvey({ parts }) }, tried: {} },
    [],
  )
  expect(open).toMatchObject([{ code: 'never-current', severity: 'note', where: { screen: 'laptop', section: page.sections[1]!.key } }])
  expect(taskOf(open[0]!.code)).toBe('highlight')
})

it('reports a menu order that its markup can’t take, once it changes', () => {
  const broken = '<nav><table><tr><td><a href="#a">A</a></td></tr><a href="#b">B</a></table></nav>'
  const body = `${broken}<section id="a"><h2>A</h2></section><section id="b"><h2>B</h2></section>`
  const order = (change: (items: Item[]) => Item[]) => {
    const { page, reading } = opened(body, (p) => ({ ...p, menus: p.menus.map((m) => ({ ...m, items: change(m.items) })) }))
    expect(reading.menus.map((m) => m.tree)).toEqual([null])
    return openFindings({ site: site(page), page, reading, undeclared, known, named, surveys, tried: {} }, [])
      .filter((f) => f.code === 'menu-order')
      .map((f) => `${f.code} ${f.line}`)
  }
  expect(order((items) => items)).toEqual([])
  expect(order((items) => [...items].reverse())).toEqual(['menu-order 1'])
  expect(order((items) => items.slice(1))).toEqual(['menu-order 1'])
  expect(order((items) => [...items, { ...items[0]!, key: 'new', links: [] }])).toEqual(['menu-order 1'])
})

it('reports a changed ID that the page’s styles and scripts use', () => {
  const { page, reading } = opened('<section id="a"><h2>A</h2></section><section id="b"><h2>B</h2></section>', (p) => ({
    ...p,
    sections: p.sections.map((s) => ({ ...s, id: `${s.id}-new`, former: [s.id] })),
  }))
  const open = openFindings(
    { site: site(page), page, reading, undeclared, tried: {}, known, surveys, named: { styles: ['a'], scripts: ['a', 'c'] } },
    [],
  )
  expect(open).toMatchObject([{ code: 'id-in-use', message: expect.stringContaining('styles and scripts still use “#a”') }])
  expect(apply(site(page), open[0]!.fix!.command).site.pages[0]!.sections[0]).toMatchObject({ id: 'a', former: [] })
})

describe('menu items', () => {
  const section = (id: string) => `<section id="${id}"><h2>${id}</h2><p>Some words of this part.</p></section>`
  const told = (nav: string, ids = 'ab') => {
    const { open } = opened(`<nav>${nav}</nav>${[...ids].map(section).join('')}`)
    return open.map((f) => [f.code, f.fix?.label ?? null])
  }
  const a = (href: string, label: string) => `<a href="${href}">${label}</a>`
  it.each([
    ['leads where it says', a('#a', 'First') + a('#b', 'Second'), []],
    [
      'leads nowhere',
      a('#a', 'First') + a('#b', 'Second') + a('#', 'Journal') + '<a>Diary</a>',
      [
        ['item-nowhere', null],
        ['item-nowhere', null],
      ],
    ],
    ['only opens a list', `<ul><li>${a('#', 'More')}<ul><li>${a('#a', 'First')}</li><li>${a('#b', 'Second')}</li></ul></li></ul>`, []],
    ['leads home', a('#', 'Home') + a('#a', 'First') + a('#b', 'Second'), []],
    ['says one thing for two', a('#a', 'Part') + a('#b', 'Part'), [['label-twice', null]]],
    ['leads to one place twice', a('#a', 'First') + a('#a', 'Again') + a('#b', 'Second'), [['target-twice', 'Remove “Again”']]],
    ['is in another order', a('#b', 'Second') + a('#a', 'First'), [['order-of-page', null]]],
  ])('are reported if %s', (_, nav, codes) => expect(told(nav)).toEqual(codes))

  it('are reported as assumed until confirmed', () => {
    const body = `<nav>${a('#a', 'First')}${a('#', 'Questions')}</nav>${section('a')}<section><h2>Questions people ask</h2><p>Some words of this part.</p></section>`
    const { open, page } = opened(body)
    expect(open.map((f) => [f.code, f.fix?.label])).toEqual([['item-likely', 'Confirm “Questions people ask”']])
    const confirmed = apply(site(page), open[0]!.fix!.command).site.pages[0]!
    expect(confirmed.menus[0]!.items[1]).toEqual({ ...page.menus[0]!.items[1], assumed: undefined })
    expect(opened(body, () => confirmed).open).toEqual([])
  })

  it('reports links outside menus until they have a target', () => {
    const body = `<nav>${a('#a', 'First')}</nav>${section('a')}<p>${a('#', 'Buy')} ${a('#', 'Book')} ${a('#gone', 'Gone')}</p>`
    const { page, open, reading } = opened(body)
    expect(open.map((f) => f.code)).toEqual(['link-placeholder', 'link-broken'])
    const loose = reading.links.slice(1).map((l) => l.at)
    const led = (...at: number[]) => {
      const next = at.reduce((s, n) => apply(s, { type: 'link/target', page: page.key, at: n, target: { kind: 'top' } }).site, site(page))
      return opened(body, () => next.pages[0]!).open.map((f) => f.message)
    }
    expect(led(loose[2]!)).toEqual([expect.stringContaining('2 links (“Buy”, “Book”)')])
    expect(led(loose[0]!, loose[2]!)).toEqual([expect.stringContaining('1 link (“Book”)')])
    expect(led(...loose)).toEqual([])
  })

  it('are reported if another page has the target', () => {
    const { page, reading } = opened(`<nav>${a('#a', 'First')}${a('#rooms', 'Rooms upstairs')}</nav>${section('a')}${section('b')}`)
    const other = { ...page, key: 'p2', file: 'rooms.html', sections: [{ ...page.sections[0]!, id: 'rooms' }] }
    const both = { ...site(page), pages: [page, other] }
    const open = openFindings({ site: both, page, reading, undeclared, known, named, surveys, tried: {} }, [])
    expect(open.map((f) => f.code)).toContain('link-elsewhere')
    const told = open.find((f) => f.code === 'link-elsewhere')!
    expect(told.message).toContain('rooms.html#rooms')
    // One press, and it leads there.
    const fixed = apply(both, told.fix!.command).site
    const after = openFindings({ site: fixed, page: fixed.pages[0]!, reading, undeclared, known, named, surveys, tried: {} }, [])
    expect([told.fix!.label, after.map((f) => f.code).includes('link-elsewhere')]).toEqual(['Link to “rooms.html#rooms”', false])
    // By now a section here has the ID that it asks for.
    const here = { ...page, sections: page.sections.map((s, n) => (n ? { ...s, id: 'rooms' } : s)) }
    const now = openFindings(
      { site: { ...site(here), pages: [here, other] }, page: here, reading, undeclared, known, named, surveys, tried: {} },
      [],
    )
    expect(now.map((f) => f.code)).not.toContain('link-elsewhere')
  })
})

it('reports links that arrive correctly, but elsewhere than computed', () => {
  const { page, reading } = opened(
    '<nav><a href="#a">First</a> <a href="#b">Second</a></nav><section id="a"><h2>A</h2></section><section id="b"><h2>B</h2></section>',
  )
  const parts = page.sections.map((s, i) => aPart({ at: s.at, top: 900 * i, movedTop: 900 * i, bottom: 900 * i + 900 }))
  const laptop = aSurvey({ parts, pageHeight: 1500, maxScroll: 700 })
  const [, arrival] = solveArrivals(page, laptop)
  const told = (over: Partial<Tried>) => {
    const tried = { laptop: [aTried({ id: 'b', label: 'Second', scroll: 1100, ...over })] }
    return openFindings({ site: site(page), page, reading, undeclared, known, named, surveys: { laptop }, tried }, []).map((f) => [
      f.code,
      f.severity,
      f.message,
    ])
  }
  // The page could not go so far when it was measured.
  const shown = told({ top: arrival!.top - arrival!.shortfall })
  expect(shown.filter(([code]) => code!.startsWith('link-'))).toEqual([
    ['link-drifts', 'note', expect.stringContaining('400 px below where computed')],
  ])
  const taken = told({ top: arrival!.top - arrival!.shortfall, isTaken: true }).find(([code]) => code === 'link-drifts')
  expect(taken![2]).toContain('a page script handles the press')
  expect(told({ top: 500 }).map(([code]) => code)).toContain('link-tried')
})

it('reports tried links that are wrong, with screens and place', () => {
  const { page, reading } = opened(
    '<nav><a href="#a">First</a>\n<a href="#b">Second</a></nav><section id="a"><h2>A</h2></section><section id="b"><h2>B</h2></section>',
  )
  const parts = page.sections.map((s, i) => aPart({ at: s.at, top: 900 * i, movedTop: 900 * i, bottom: 900 * i + 900 }))
  const laptop = aSurvey({ parts, pageHeight: 4000, maxScroll: 3200 })
  const seen = (id: string, label: string, scroll: number, over: Partial<Tried> = {}) => aTried({ id, label, scroll, ...over })
  const told = (tried: Tried[]) =>
    openFindings(
      {
        site: site(page),
        page,
        reading,
        undeclared,
        known,
        named,
        surveys: { laptop, phone: laptop },
        tried: { laptop: tried, phone: tried },
      },
      [],
    )
      .filter((f) => f.code === 'link-tried' || f.code === 'presses-taken')
      .map((f) => `${f.line} ${f.message}${f.fix ? ` [${f.fix.label}]` : ''}`)
  const land = solveArrivals(page, laptop).map((a) => a.land)
  expect(told([seen('a', 'First', land[0]!), seen('b', 'Second', land[1]!)])).toEqual([])
  expect(told([seen('a', 'First', land[0]!), seen('b', 'Second', land[1]! - 30)])).toEqual([
    '2 “Second” stops 30 px above its place (on every screen).',
  ])
  const taken = { isTaken: true }
  expect(told([seen('a', 'First', land[0]!, taken), seen('b', 'Second', land[1]! - 30, taken)])).toEqual([
    '2 “Second” stops 30 px above its place, because a page script handles the press (on every screen). [Handle presses instead of the page’s script]',
  ])
  expect(told([seen('a', 'First', land[0]!, taken), seen('b', 'Second', land[1]!, { ...taken, astray: 66 })])).toEqual([
    '1 A page script handles 2 links and stops up to 66 px too low (“Second” on “Laptop”); the page then jumps into place. [Handle presses instead of the page’s script]',
  ])
  // What has no target is told where it stands.
  expect(told([seen('gone', 'Third', 0, { target: 'missing' })])).toEqual([])
})

it('reports a menu that stays open over its targets, once for all its links', () => {
  const { page, reading } = opened(
    '<header><button>Menu</button><nav><a href="#a">First</a>\n<a href="#b">Second</a></nav></header><section id="a"><h2>A</h2></section><section id="b"><h2>B</h2></section>',
  )
  const parts = page.sections.map((s, i) => aPart({ at: s.at, top: 900 * i, movedTop: 900 * i, bottom: 900 * i + 900 }))
  const phone = aSurvey({ parts, pageHeight: 4000, maxScroll: 3200 })
  const [one, two] = solveArrivals(page, phone).map((a) => a.land) as [number, number]
  const told = (...over: Partial<Tried>[]) => {
    const tried = [
      aTried({ id: 'a', label: 'First', scroll: one, ...over[0] }),
      aTried({ id: 'b', label: 'Second', scroll: two, ...over[1] }),
    ]
    return openFindings({ site: site(page), page, reading, undeclared, known, named, surveys: { phone }, tried: { phone: tried } }, [])
      .filter((f) => f.code === 'menu-left-open' || f.code === 'link-tried')
      .map((f) => ({ said: `${f.code}: ${f.message}`, command: f.fix?.command }))
  }
  const [menu] = page.menus
  const leftOpen = { menu: menu!.form.kind === 'found' ? menu!.form.elements[0]! : null, by: 7 }
  expect(told({ leftOpen }, { leftOpen })).toEqual([])
  expect(told({ leftOpen, coveredBy: '' }, { leftOpen, scroll: two + 60 })).toEqual([
    {
      said: 'menu-left-open: The menu “Header menu” stays open after pressing 2 links (“First”, “Second”) and covers or shifts their targets (on “Phone”).',
      command: { type: 'menu/shut-by', page: page.key, menu: menu!.key, by: 7 },
    },
  ])
  const unsaid = { leftOpen: { menu: null, by: null }, coveredBy: '' }
  expect(told({ ...unsaid, label: 'Another' }).map((f) => f.said)).toEqual([expect.stringContaining('A menu built by a script stays open')])
  expect(told(unsaid)).toEqual([{ said: expect.stringMatching(/“Header menu” .*\(on “Phone”\)\.$/), command: undefined }])
  expect(told({ leftOpen: { ...leftOpen, by: null }, coveredBy: '' })[0]!.said).toContain('Its button is built by a script')
  // A script that takes the press and stops elsewhere is reported that.
  expect(told({ leftOpen, isTaken: true, scroll: one + 60 }).map((f) => f.said)).toEqual([
    expect.stringContaining('link-tried: “First” stops 60 px'),
  ])
})

it('reports a header that takes more than a sixth of a screen, or isn’t kept in view for that', () => {
  const { page, reading } = opened(
    '<header id="h"><nav><a href="#a">A</a><a href="#b">B</a></nav></header><section id="a"><h2>A</h2></section><section id="b"><h2>B</h2></section>',
  )
  const at = reading.header!
  const on = (height: number, position: 'static' | 'sticky') => {
    const kept: SitePage = { ...page, header: { at, keep: position === 'static' ? 'sticky' : null, backing: null } }
    const reach = position === 'sticky' ? height : 0
    const header = aHeader({ at, position, height, rest: reach, moved: reach, canStay: position === 'static' })
    const parts = page.sections.map((s, i) => aPart({ at: s.at, top: 300 + 900 * i, bottom: 1200 + 900 * i }))
    const laptop = aSurvey({ header, parts })
    return openFindings({ site: site(kept), page: kept, reading, undeclared, known, named, surveys: { laptop }, tried: {} }, []).map(
      (f) => f.severity,
    )
  }
  expect([on(120, 'sticky'), on(140, 'sticky'), on(120, 'static'), on(140, 'static')]).toEqual([[], ['warning'], [], ['note']])
})

it('shrinks a header that is too tall, or lets it go, and then is silent', () => {
  const { page, reading } = opened(
    '<header id="h"><nav><a href="#a">A</a><a href="#b">B</a></nav></header><section id="a"><h2>A</h2></section><section id="b"><h2>B</h2></section>',
  )
  const at = reading.header!
  const kept: SitePage = { ...page, header: { at, keep: null, backing: null } }
  const parts = page.sections.map((s, i) => aPart({ at: s.at, top: 300 + 900 * i, bottom: 1200 + 900 * i }))
  const told = (padding: number, as: SitePage, large = false) => {
    const gives = { at, top: padding, bottom: padding, margin: null }
    const laptop = aSurvey({ header: aHeader({ at, height: 140, rest: 140, moved: 140, gives }), parts })
    const text = { ...site(as).screens[0]!, key: 'large', name: 'Laptop, large text', text: 150 }
    const on = large ? { ...site(as), screens: [...site(as).screens, text] } : site(as)
    const seen = { [large ? 'large' : 'laptop']: laptop }
    return openFindings({ site: on, page: as, reading, undeclared, known, named, surveys: seen, tried: {} }, [])
  }
  for (const [padding, label] of [
    [12, 'Shrink the header by 7 px on “Laptop” after scrolling'],
    [4, 'Let the header scroll away on “Laptop”'],
  ] as const)
    for (const large of [false, true]) {
      const [found] = told(padding, kept, large)
      expect([found!.code, found!.fix!.label]).toEqual(['header-tall', label])
      const mended = apply(site(kept), found!.fix!.command).site.pages[0]!
      expect(told(padding, mended, large)).toEqual([])
    }
})

it('reports a section that is current for a moment only', () => {
  const { page, reading } = opened('<section><h2>A</h2></section><section><h2>B</h2></section><section><h2>C</h2></section>')
  const parts = page.sections.map((s, i) => aPart({ at: s.at, top: [0, 900, 950][i]!, bottom: 2000 }))
  const laptop = aSurvey({ parts, pageHeight: 4000, maxScroll: 3200 })
  const open = openFindings({ site: site(page), page, reading, undeclared, known, named, surveys: { laptop }, tried: {} }, [])
  expect(open.map((f) => [f.code, f.where.section])).toEqual([['briefly-current', page.sections[1]!.key]])
})

describe('a link in the text with a wrong hash', () => {
  const body = (href: string, label: string) =>
    `<p>See <a href="#${href}">${label}</a>.</p><section id="rooms"><h2>Rooms and beds</h2></section><section id="table"><h2>The table</h2></section>`
  const broken = (href: string, label: string) => opened(body(href, label)).open.find((f) => f.code === 'link-broken')
  it('is offered the likely section, and then arrives there', () => {
    const { page, reading } = opened(body('romos', 'our rooms'))
    const found = broken('romos', 'our rooms')!
    expect(found.fix!.label).toBe('Link it to “Rooms and beds”')
    const mended = apply(site(page), found.fix!.command).site.pages[0]!
    expect(mended.sections[0]).toMatchObject({ id: 'rooms', former: ['romos'] })
    expect(
      openFindings(
        { site: site(mended), page: mended, reading, undeclared, known, named, surveys, tried: {} },
        pageFindings(reading, none),
      ).map((f) => f.code),
    ).not.toContain('link-broken')
  })
  it('is offered nothing without a similar one', () => expect(broken('x9', 'this')!.fix).toBeNull())
})

it('reports openers that can’t be moved', () => {
  const body = `<header><ul><li><a href="#a">One</a></li><li>Food <ul><li><a href="#b">Menu</a></li><li><a href="#c">Wine</a></li></ul></li></ul></header>${['a', 'b', 'c'].map((id) => `<section id=${id}><h2>Part ${id}</h2></section>`).join('')}`
  const inOrder = (labels: string[]) => (page: SitePage) => ({
    ...page,
    menus: page.menus.map((m) => ({ ...m, items: labels.map((l) => m.items.find((i) => i.label === l)!) })),
  })
  const told = (...labels: string[]) => opened(body, inOrder(labels)).open.filter((f) => f.code === 'menu-order').length
  expect(told('One', 'Food', 'Menu', 'Wine')).toBe(0)
  expect(told('Food', 'Wine', 'Menu', 'One')).toBe(0)
  expect(told('Food', 'One', 'Menu', 'Wine')).toBe(1)
})
