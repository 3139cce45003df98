import { defaultRule } from '../naming/index.ts'
import { parsePage, readPage } from '../page/index.ts'
import { aHeader, aPart, aSurvey } from '../survey/builder.ts'
import type { PageMark, Survey, SurveyMenu } from '../survey/index.ts'
import { aPage } from '../site/builder.ts'
import { defaultScreens, isFound, type FoundForm } from '../site/index.ts'
import { pageEdits, writePage } from '../handover/index.ts'
import { leftAsItIs, proposeSetUp } from './index.ts'

const text = '<p>Some words that make this part weigh something on the page.</p>'
const read = (body: string) => readPage(new TextEncoder().encode(`<!doctype html><meta charset=utf-8><body>${body}`))
const sections = (...titles: string[]) => titles.map((t) => `<section><h2>${t}</h2>${text}</section>`).join('')
const propose = (body: string, surveys: Survey[] = []) => proposeSetUp(read(body), surveys, defaultRule)

const targets = (body: string) => {
  const { menus, sections } = propose(body)
  return menus[0]!.items.map((i) => [
    i.label,
    i.target.kind === 'section' ? sections.find((s) => s.key === (i.target as { section: string }).section)!.id : i.target.kind,
  ])
}

const header = aHeader({ at: 5, position: 'static', height: 60, rest: 0, moved: 0, canStay: true, transparent: true })
const survey = (over: Partial<Survey>): Survey => aSurvey({ pageHeight: 4000, maxScroll: 3200, ...over })

describe('the one press', () => {
  it('matches items of a found menu by hash, by case, and by label', () =>
    expect(
      targets(`<header><nav><a href="#work">Things</a><a href="#TEAM">Us</a><a href="#">Pricing</a><a href="#">Find us</a><a href="shop.html">Shop</a><a href="#">Log in</a></nav></header>
        <section id=work><h2>Our work</h2>${text}</section><section id=team><h2>People</h2>${text}</section>${sections('Prices', 'How to find us')}`),
    ).toEqual([
      ['Things', 'work'],
      ['Us', 'team'],
      ['Pricing', 'prices'],
      ['Find us', 'how-to-find-us'],
      ['Shop', 'as-is'],
      ['Log in', 'as-is'],
    ]))

  it.each(['', ' id="name"'])('doesn’t take the menu’s own bar for its first link’s target', (id) =>
    expect(
      targets(
        `<div role="navigation" id="side"><div${id}><a href="/">Kettles</a></div><ul><li><a href="#pots">Pots</a></li><li><a href="#pans">Pans</a></li></ul></div>
        <section id=pots><h2>Pots</h2>${text}</section><section id=pans><h2>Pans</h2>${text}</section>`,
      ),
    ).toEqual([
      ['Kettles', 'as-is'],
      ['Pots', 'pots'],
      ['Pans', 'pans'],
    ]),
  )

  it('matches by class if an ID was meant', () =>
    expect(
      targets(
        `<nav><a href="#">FAQ</a><a href="#">Rooms</a></nav><section class="faq"><h2>Good to know</h2>${text}</section>${sections('Rooms')}`,
      )[0],
    ).toEqual(['FAQ', 'good-to-know']))

  it.each([
    ['around its words', '<h2><a name="$">W</a></h2>'],
    ['before its words', '<h2><a name="$"></a>W</h2>'],
    ['behind its words', '<h2>W<a id="$"></a></h2>'],
    ['around its words, within other markup', '<h2><font><b><span id="$">W</span></b></font></h2>'],
    ['in a section', '<section><div><h2><a name="$"></a>W</h2></div>T</section>'],
    ['in a section with an ID that no menu leads to', '<section id="s$"><h2><a name="$"></a>W</h2>T</section>'],
    ['in a heading with an ID that no menu leads to', '<h2 id="h$"><a name="$"></a>W</h2>'],
    ['in a smaller heading', '<h2>More of it</h2>T<h3><a id="$"></a>W</h3>'],
  ])('takes an anchor in a heading, %s, for its section', (_, part) => {
    const parts = ['gate', 'pond', 'mill'].map((id) => part.replaceAll('$', id).replace('T', text).replace('W', `The ${id}`) + text)
    const { sections, menus } = propose(
      `<nav>${['gate', 'pond', 'mill'].map((id) => `<a href="#${id}">To ${id}</a>`).join('')}</nav>${parts.join('')}`,
    )
    const named = sections.filter((s) => s.title !== 'More of it')
    expect(named.map((s) => [s.title, s.id, s.sourceId])).toEqual(['gate', 'pond', 'mill'].map((id) => [`The ${id}`, id, id]))
    expect(menus[0]!.items.map((i) => i.target)).toEqual(named.map((s) => ({ kind: 'section', section: s.key })))
  })

  it('separates a section and an anchor in its heading if the menu leads to both', () =>
    expect(
      targets(
        `<nav><a href="#a">A</a><a href="#b">B</a><a href="#c">C</a></nav><section id="a"><h2><a name="b"></a>Rooms</h2>${text}</section><section id="c"><h2>Boats</h2>${text}</section>`,
      ),
    ).toEqual([
      ['A', 'a'],
      ['B', 'b'],
      ['C', 'c'],
    ]))

  it('takes a paragraph of links for a menu, but not with text or fewer links', () => {
    const row = (p: string) =>
      propose(`<h1>Us</h1>${p}${sections('Rooms', 'Boats', 'Fish')}`).menus.map((m) => isFound(m) && m.items.map((i) => i.label))
    const [a, b, c] = ['Rooms', 'Boats', 'Fish'].map((t) => `<a href="#">${t}</a>`)
    expect(row(`<p>[ ${a} | <b>${b}</b> · ${c} ]</p>`)).toEqual([['Rooms', 'Boats', 'Fish']])
    expect(row(`<p>See ${a}, ${b} and ${c}.</p>`)).toEqual([false])
    expect(row(`<p>${a} | ${b}</p>`)).toEqual([false])
    expect(row(`<nav><p>${a}</p><p>${b}</p></nav>`)).toEqual([['Rooms', 'Boats']])
    expect(row(`<ul><li><p>${a}</p></li><li><p>${b}</p></li></ul>`)).toEqual([['Rooms', 'Boats']])
  })

  it('leaves links to the whole page at the top, and links called home', () => {
    const page = (links: string) => propose(`<body id="all"><nav>${links}</nav>${sections('Rooms', 'Boats')}`).menus[0]!.items
    expect(page('<a href="#all">Back home</a><a href="#rooms">Rooms</a>')[0]).toMatchObject({ target: { kind: 'top' } })
    expect(page('<a href="#!">Home</a><a href="#!">Rooms</a><a href="#!">Gone</a>')).toMatchObject([
      { target: { kind: 'top' }, assumed: true },
      { target: { kind: 'section' } },
      { target: { kind: 'as-is' } },
    ])
  })

  it('makes no second menu beside a script-built one, and keeps its IDs', () => {
    const body = sections('One', 'Two')
    const [one, two] = read(body).candidates.map((c) => c.at)
    const link = (label: string, href: string, target: number | undefined) => ({ label, href, target: target!, arrives: true })
    const menus = [{ at: null, links: [link('One', '#a%20b', one), link('Two', '#two-2', two)] }]
    const setUp = propose(body, [survey({ built: { menus, headings: [], targets: [] } })])
    expect(setUp.menus).toEqual([])
    expect(setUp.sections.map((s) => s.id)).toEqual(['a b', 'two-2'])
  })

  it('leaves a link to a script-built target alone', () => {
    const body = `<nav><a href="#one">Rooms</a><a href="#late">Boats</a></nav><section id=one><h2>Rooms</h2>${text}</section>${sections('Boats')}`
    const targets = [{ id: 'late', top: 900, bottom: 1200, movedTop: 900 }]
    const items = (built: Survey['built']) => propose(body, [survey({ built })]).menus[0]!.items.map((i) => i.target.kind)
    expect(items({ menus: [], headings: [], targets })).toEqual(['section', 'as-is'])
    expect(items({ menus: [], headings: [], targets: [] })).toEqual(['section', 'section'])
  })

  it('makes a menu of all sections for a page without one', () => {
    const { menus } = propose(`<header><h1>Logo</h1></header>${sections('One', 'Two')}`)
    expect(menus).toMatchObject([{ form: { kind: 'bar' }, items: [{ label: 'One' }, { label: 'Two' }] }])
  })

  it('doesn’t take links in a footer or text for a menu', () =>
    expect(
      propose(
        `${sections('One', 'Two')}<p><a href="#a">a</a> <a href="#b">b</a></p><footer><ul><li><a href="#">One</a><li><a href="#">Two</a></ul></footer>`,
      ).menus[0]!.form.kind,
    ).toBe('bar'))

  it('doesn’t take a table of contents for the header menu', () =>
    expect(
      propose(
        `<header><a href="/">Home</a></header><main><h1>Guide</h1>${text}<nav><a href="#a">A</a><a href="#b">B</a></nav><h2 id=a>A</h2>${text}<h2 id=b>B</h2>${text}</main>`,
      ).menus[0]!.form.kind,
    ).toBe('bar'))

  it('matches items by position if the menu follows the page’s parts', () => {
    const menu = (second: string) => `<header><nav><a href="#a">Rope</a><a href="#">${second}</a><a href="#c">Nets</a></nav></header>`
    const parts = `<section id=a><h2>Rope</h2>${text}</section><section><h2>What floats</h2>${text}</section><section id=c><h2>Nets</h2>${text}</section>`
    const { menus, sections: all } = propose(menu('Corks') + parts)
    expect(menus[0]!.items[1]).toMatchObject({ target: { kind: 'section', section: all[1]!.key }, assumed: true })
    // With a part more, nothing says which is meant.
    expect(propose(menu('Corks') + parts + sections('More')).menus[0]!.items[1]!.target.kind).toBe('as-is')
  })

  it('lists openers in an entry, and leaves them there', () => {
    const reading = read(
      `<header><ul><li><a href="#a">One</a></li><li>Food <ul><li><a href="#b">Menu</a></li><li><a href="#c">Wine</a></li></ul></li></ul></header>${['a', 'b', 'c'].map((id) => `<section id=${id}><h2>${id}</h2>${text}</section>`).join('')}`,
    )
    const { menus } = proposeSetUp(reading, [], defaultRule)
    expect(menus[0]!.items.map((i) => i.label)).toEqual(['One', 'Food', 'Menu', 'Wine'])
    const page = aPage({ ...proposeSetUp(reading, [], defaultRule) })
    const edits = pageEdits({ page, pages: [page], reading, screens: defaultScreens, surveys: {}, named: [], runtime: () => '' })
    expect(edits.filter((e) => e.kind === 'entries' || e.kind === 'exchange' || e.kind === 'label')).toEqual([])
  })

  it('keeps a header in view, with a background', () => {
    const body = `<header><nav><a href="#">One</a><a href="#">Two</a></nav></header>${sections('One', 'Two')}`
    const at = read(body).header!
    expect(propose(body, [survey({ header: { ...header, at } })]).header).toEqual({ at, keep: 'sticky', backing: 'rgb(255, 255, 255)' })
    expect(propose(body, [survey({ header: { ...header, at, position: 'absolute' } })]).header!.keep).toBe('fixed')
    expect(propose(body, [survey({ header: { ...header, at, canStay: false } })]).header!.keep).toBeNull()
    expect(propose(body, [survey({ header: { ...header, at, position: 'sticky', rest: 60, moved: 60 } })]).header!.keep).toBeNull()
  })

  it('sends the first section to the top, unless it starts further down', () => {
    const body = sections('One', 'Two')
    const part = aPart({ at: read(body).candidates[0]!.at, top: 0, bottom: 0, movedTop: 0 })
    expect(propose(body, [survey({ parts: [{ ...part, top: 90 }] })]).sections.map((s) => s.toTop)).toEqual([true, false])
    expect(propose(body, [survey({ parts: [{ ...part, top: 1500 }] })]).sections[0]!.toTop).toBe(false)
  })
})

describe('a page that has a menu', () => {
  const body = `<header><nav><a href="#one">One</a><a href="#two">Two</a></nav></header>
    <section id="one"><h2>One</h2>${text}</section><section id="two"><h2>Two</h2>${text}</section>`
  const reading = read(body)
  const [one, two] = reading.candidates
  const menu = reading.menus[0]!.at
  const own: PageMark = { on: 'link', name: 'here', followsScroll: true, isRight: true, isSeen: true }
  const onMenu = (over: Partial<SurveyMenu>): SurveyMenu => ({
    at: menu,
    isDrawn: true,
    shows: ['line', 'edge', 'strong'],
    ink: 'rgb(0, 0, 0)',
    grounds: [],
    stays: true,
    slides: false,
    pageMark: null,
    ...over,
  })
  const part = (at: number, top: number, margin = 0) =>
    aPart({ at, top, bottom: top + 900, margin, heading: { top: top + 30, bottom: top + 60 } })
  const sticky = aHeader({ at: reading.header, position: 'sticky', height: 60, rest: 60, moved: 60 })
  const page = (over: Partial<Survey>): Survey =>
    survey({ header: sticky, parts: [part(one!.at, 60), part(two!.at, 960)], menus: [onMenu({})], ...over })
  const press = (...surveys: Survey[]) => proposeSetUp(reading, surveys, defaultRule)
  const markOf = (...surveys: Survey[]) => (press(...surveys).menus.find(isFound)!.form as FoundForm).mark

  it('keeps its own offsets if every link arrives by them, on every screen', () => {
    const right = page({ padding: 70 })
    expect(press(right).travel.pageOffsets).toBe(true)
    expect(press(page({ parts: [part(one!.at, 60, 70), part(two!.at, 960, 70)] })).travel.pageOffsets).toBe(true)
    // Under the header by 60, or on one screen only, or so far below it that nobody can have meant it.
    expect(press(page({ padding: 0 })).travel.pageOffsets).toBeUndefined()
    expect(press(right, page({ screen: 'phone', padding: 0 })).travel.pageOffsets).toBeUndefined()
    expect(press(page({ padding: 500 })).travel.pageOffsets).toBeUndefined()
  })
  it('keeps its own marking if right, and says what was left', () => {
    const works = press(page({ padding: 70, menus: [onMenu({ pageMark: own })] }))
    expect([works.travel.pageOffsets, works.highlight.pageMark]).toEqual([true, true])
    expect(leftAsItIs(aPage(works))).toContain('works already')
    const lacks = press(page({ padding: 70 }))
    expect(leftAsItIs(aPage(lacks))).toContain('What it lacked is added')
    expect(leftAsItIs(aPage(press(page({}))))).toBeNull()
  })
  it('keeps the same when its handover is brought in again', () => {
    const source = `<!doctype html><meta charset=utf-8><body>${body}`
    const parsed = parsePage(new TextEncoder().encode(source))
    for (const menus of [[onMenu({})], [onMenu({ pageMark: own })]]) {
      const setUp = press(page({ padding: 70, menus }))
      // A former ID, so that there are settings in the page whatever it marks itself.
      const sections = setUp.sections.map((s, n) => (n ? s : { ...s, former: ['before'] }))
      const made = aPage({ ...setUp, sections })
      const edits = pageEdits({ page: made, pages: [made], reading, screens: defaultScreens, surveys: {}, named: [], runtime: () => '' })
      const again = readPage(writePage(new TextEncoder().encode(source), parsed, edits).bytes)
      const { travel, highlight } = proposeSetUp(again, [], defaultRule)
      expect([travel, highlight.pageMark]).toEqual([setUp.travel, setUp.highlight.pageMark])
    }
  })
  it('has its own mark class moved, if it shows', () => {
    expect(markOf(page({ menus: [onMenu({ pageMark: { ...own, isRight: false } })] }))).toEqual({ on: 'link', name: 'here' })
    expect(markOf(page({ menus: [onMenu({ pageMark: { ...own, followsScroll: false } })] }))).toEqual({ on: 'link', name: 'here' })
    expect(markOf(page({ menus: [onMenu({ pageMark: { ...own, followsScroll: false, isSeen: false } })] }))).toBeUndefined()
  })
  it('gets the first mark that shows on every screen with the menu', () => {
    expect(markOf(page({ menus: [onMenu({ shows: ['page', 'line'] })] }))).toBe('page')
    expect(markOf(page({ menus: [onMenu({})] }))).toBeUndefined()
    expect(markOf(page({ menus: [onMenu({})] }), page({ screen: 'phone', menus: [onMenu({ shows: ['edge', 'strong'] })] }))).toBe('edge')
    expect(markOf(page({ menus: [onMenu({})] }), page({ screen: 'phone', menus: [onMenu({ isDrawn: false, shows: [] })] }))).toBeUndefined()
    expect(markOf(page({ menus: [onMenu({ shows: [] })] }))).toBe('strong')
  })
  it('has no section that no screen shows, unless its menu leads there', () => {
    const extra = read(body + sections('Thank you'))
    const at = extra.candidates.find((c) => c.title === 'Thank you')!.at
    const parts = (shown: boolean) => [part(one!.at, 60), part(two!.at, 960), { ...part(at, 0), hasBox: shown }]
    const titles = (...screens: boolean[]) =>
      proposeSetUp(
        extra,
        screens.map((shown, n) => page({ screen: `s${n}`, parts: parts(shown) })),
        defaultRule,
      ).sections.map((s) => s.title)
    expect(titles(false, false)).toEqual(['One', 'Two'])
    expect(titles(false, true)).toEqual(['One', 'Two', 'Thank you'])
  })
})

describe('full-height sections', () => {
  const body = sections('Dawn', 'Noon', 'Dusk', 'Night')
  const { candidates } = read(body)
  const screens = [
    { screen: 'laptop', width: 1280, height: 800 },
    { screen: 'phone', width: 390, height: 844 },
  ]
  const bar = aHeader({ at: 5, position: 'fixed', height: 60, rest: 60, moved: 60 })
  /** @param heights of the sections where the viewport is `view` px high */
  const measured = (heights: (view: number) => number[], shown = screens) =>
    shown.map((size) => {
      let top = 0
      const parts = heights(size.height).map((height, i) => aPart({ at: candidates[i]!.at, top, bottom: (top += height) }))
      return aSurvey({ ...size, header: bar, parts, pageHeight: top, maxScroll: top - size.height })
    })
  const offsets = (surveys: Survey[]) => {
    const { travel, sections } = propose(body, surveys)
    return [travel.breathing, ...sections.map((s) => s.adjust?.by ?? 0)]
  }
  it('get no breathing space, all or some', () => {
    expect(offsets(measured((view) => [view, view, view, view]))).toEqual([0, 0, 0, 0, 0])
    expect(offsets(measured((view) => [view - 60, view - 60, view - 60, view - 60]))).toEqual([0, 0, 0, 0, 0])
    expect(offsets(measured((view) => [view, view, 500, view]))).toEqual([24, 0, -24, 0, -24])
  })
  it('may be higher on some screens, but not lower', () => {
    expect(offsets(measured((view) => [view, view, view === 800 ? view : 1300, view]))).toEqual([24, 0, -24, 0, -24])
    const tablet = { screen: 'tablet', width: 820, height: 1180 }
    const three = [...screens, tablet]
    expect(offsets(measured((view) => [view, view, view, view === 844 ? 1300 : view], three))).toEqual([0, 0, 0, 0, 0])
    expect(offsets(measured((view) => [view, view, view, view === 844 ? 400 : view], three))).toEqual([24, 0, -24, -24, 0])
  })
  it('aren’t those that have a viewport’s height by chance', () =>
    expect(offsets(measured(() => [800, 800, 800, 800]))).toEqual([24, 0, 0, 0, 0]))
})
