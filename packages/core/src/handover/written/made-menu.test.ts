/** Menus that are made: written, read back, and written the same again. */
import fc from 'fast-check'
import { defaultRule } from '../../naming/index.ts'
import { parsePage, readParsed, undoSplices } from '../../page/index.ts'
import { formKinds, newForm } from '../../menus/index.ts'
import { proposeSetUp } from '../../proposal/index.ts'
import { isMade, type Item, type MadeMenu, type MadeMenuForm, type MenuLook, type SitePage, type Shown } from '../../site/index.ts'
import { twoScreens } from '../../site/builder.ts'
import { anInput } from '../builder.ts'
import { pageEdits, writePage } from '../index.ts'

const SOURCE = `<!doctype html><html lang="en"><head><title>Four</title></head><body><header><h1>Four</h1></header>
${['one', 'two', 'three', 'four'].map((id) => `<section id="${id}"><h2>${id}</h2><p>Words that say something.</p></section>`).join('\n')}
<footer><p>The end</p></footer></body></html>`

const utf8 = (text: string) => new TextEncoder().encode(text)
const read = (bytes: Uint8Array) => new TextDecoder().decode(bytes)

function broughtIn(bytes: Uint8Array) {
  const parsed = parsePage(bytes)
  const reading = readParsed(parsed, bytes.length, 'index.html')
  const page: SitePage = { key: 'p1', file: 'index.html', source: '', title: '', ...proposeSetUp(reading, [], defaultRule) }
  return { page, handOver: (as: SitePage) => writePage(bytes, parsed, pageEdits(anInput(as, reading))) }
}

const came = broughtIn(utf8(SOURCE))
const handOver = (menus: MadeMenu[]) => came.handOver({ ...came.page, menus })
const written = (menus: MadeMenu[]) => read(handOver(menus).bytes)
const keyOf = (id: string) => came.page.sections.find((s) => s.id === id)!.key

const item = (label: string, over: Partial<Item> = {}): Item => ({
  key: label,
  label,
  target: { kind: 'section', section: keyOf('one') },
  links: [],
  ...over,
})
const aMade = (kind: MadeMenuForm['kind'], items: Item[], over: Partial<MadeMenu> = {}): MadeMenu => ({
  key: 'm1',
  name: 'Parts',
  form: newForm(kind, [], []),
  items,
  ...over,
})
const navOf = (text: string) => /<nav data-wb="menu"[^]*?<\/nav>/.exec(text)![0]

const label = fc.oneof(
  fc.string({ minLength: 1, maxLength: 20 }),
  fc.constantFrom('<b>&amp;"\'', 'ראשי', '🎐 Bells', 'a'.repeat(300), '  ', 'x=1 y=2'),
)
const section = fc.constantFrom('one', 'two', 'three', 'four').map(keyOf)
const anItem = fc.record(
  {
    label,
    target: fc.oneof(
      section.map((key): Item['target'] => ({ kind: 'section', section: key })),
      fc.constant<Item['target']>({ kind: 'top' }),
      fc.constant<Item['target']>({ kind: 'outside', address: 'https://ostrey.example/?a=1&b="2"', newTab: true }),
      fc.constant<Item['target']>({ kind: 'group' }),
    ),
    depth: fc.constantFrom(1, 2, 3),
    tooltip: fc.constantFrom('More & more'),
    lang: fc.constantFrom('fr'),
    off: fc.constantFrom<string[]>(['phone'], ['laptop', 'phone']),
  },
  { requiredKeys: ['label', 'target'] },
)
const shown = fc.record(
  {
    from: section,
    after: fc.integer({ min: 1, max: 100000 }),
    until: section,
    off: fc.constant(['phone']),
    holds: fc.constantFrom('visit', 'browser'),
    small: fc.record({ upTo: fc.integer({ min: 300, max: 900 }), as: fc.constantFrom('folds', 'scrolls', 'away', 'same') }),
  },
  { requiredKeys: [] },
) as fc.Arbitrary<Shown>
const anyForm = fc.constantFrom<MadeMenuForm>(
  { kind: 'bar', place: 'in-header' },
  { kind: 'bar', place: 'top' },
  { kind: 'rail', side: 'right', stands: 'over', width: 90, edge: 0 },
  { kind: 'marks', side: 'left', labels: 'all', edge: 3 },
  { kind: 'footer', layout: 'columns', edge: 9 },
  { kind: 'floating', side: 'left', edge: 12 },
  { kind: 'contents', layout: 'columns', width: 333, edge: 1 },
  { kind: 'corner', side: 'left', edge: 7 },
)
const colour = fc.constantFrom('#001122', '#ffffff')
const look = fc.record(
  {
    ink: colour,
    ground: colour,
    opacity: fc.integer({ min: 0, max: 100 }),
    letters: fc.constantFrom('upper', 'as-typed'),
    corner: fc.constant(7),
    shadow: fc.constantFrom('soft', 'none'),
    states: fc.record(
      { current: fc.constantFrom({ mark: 'dome' }, { ink: '#123456', weight: 'bold' }), held: fc.constant({ opacity: 3 }) },
      { requiredKeys: ['current'] },
    ),
  },
  { requiredKeys: [] },
) as fc.Arbitrary<MenuLook>
const menus = fc.array(
  fc.record({
    form: anyForm,
    name: label,
    items: fc.array(anItem, { maxLength: 8 }),
    shown: fc.option(shown, { nil: undefined }),
    look: fc.option(look, { nil: undefined }),
  }),
  {
    minLength: 1,
    maxLength: 3,
  },
)

describe('made menus', () => {
  it('are written and read back in any order and nesting, to the byte, and removed', () => {
    fc.assert(
      fc.property(menus, (drawn) => {
        const made = drawn
          .filter((m, i) => m.form.kind !== 'bar' || drawn.findIndex((o) => o.form.kind === 'bar') === i)
          .map(({ shown: where, look: looks, items, ...m }, i): MadeMenu => {
            const keyed = items.map((it, n): Item => ({ key: `${i}-${n}`, links: [], ...it }))
            return {
              key: `m${i + 1}`,
              ...m,
              ...(where && Object.keys(where).length && { shown: where }),
              ...(looks && Object.keys(looks).length && { look: looks }),
              items: keyed,
            }
          })
        const once = handOver(made)
        expect(read(undoSplices(once.bytes, once.splices))).toBe(SOURCE)
        const again = broughtIn(once.bytes)
        const back = again.page.menus.filter(isMade)
        const saidOf = (page: SitePage, { name, form, shown: where, look: looks }: MadeMenu) => {
          const idOf = (key: string | undefined) => page.sections.find((s) => s.key === key)?.id
          return { name, form, looks, where: where && { ...where, from: idOf(where.from), until: idOf(where.until) } }
        }
        expect(back.map((m) => saidOf(again.page, m))).toEqual(made.map((m) => saidOf(came.page, m)))
        // What leads somewhere is there, in its order; nothing has come to it.
        const leads = (m: MadeMenu) => m.items.flatMap((i) => (i.target.kind === 'group' ? [] : i.label))
        expect(back.map(leads)).toEqual(made.map(leads))
        expect(read(again.handOver(again.page).bytes)).toBe(read(once.bytes))
        expect(read(again.handOver({ ...again.page, menus: [] }).bytes)).not.toContain('<nav')
      }),
      { numRuns: 300 },
    )
  })

  it('are lists of links in a nav with a name', () => {
    const text = written([
      aMade('rail', [item('One'), item('Two & more', { depth: 1, lang: 'fr', tooltip: 'All "of" it' }), item('Three')]),
    ])
    expect(navOf(text)).toBe(
      [
        '<nav data-wb="menu" data-wb-menu aria-label="Parts" data-wb-made="1 rail side=left stands=beside width=200 edge=16">',
        '<details class="wb-fold"><summary>Parts</summary>',
        '<ul class="wb-items">',
        '<li><a href="#one">One</a>',
        '<ul>',
        '<li><a href="#one" title="All &quot;of&quot; it" lang="fr">Two &amp; more</a></li>',
        '</ul></li>',
        '<li><a href="#one">Three</a></li>',
        '</ul>',
        '</details>',
        '</nav>',
      ].join('\n'),
    )
  })

  it('nest within their form’s levels, each item at most one deeper than the one before', () => {
    const items = [item('A', { depth: 3 }), item('B', { depth: 5 }), item('C', { depth: 5 }), item('D', { depth: 1 })]
    const lists = (kind: MadeMenuForm['kind']) => navOf(written([aMade(kind, items)])).match(/<ul/g)!.length
    expect([lists('contents'), lists('bar'), lists('marks')]).toEqual([3, 2, 1])
  })

  it('open groups of a bar by press, leave a list’s open, and write no empty ones', () => {
    const items = [item('Rooms', { target: { kind: 'group' } }), item('Sea', { depth: 1 }), item('Empty', { target: { kind: 'group' } })]
    const [bar, contents] = [navOf(written([aMade('bar', items)])), navOf(written([aMade('contents', items)]))]
    expect(bar).toContain('<details class="wb-group"><summary>Rooms</summary>')
    expect(contents).toContain('<li><span class="wb-words">Rooms</span>')
    expect(bar + contents).not.toContain('Empty')
    const linked = navOf(written([aMade('bar', [item('Rooms'), item('Sea', { depth: 1 })])]))
    expect(linked).toContain('<a href="#one">Rooms</a><details class="wb-group"><summary class="wb-more" aria-label="Rooms"></summary>')
  })

  it('have their look in each state, and their form’s otherwise', () => {
    const said: MenuLook = {
      ink: '#102030',
      ground: '#ffffff',
      opacity: 50,
      letters: 'upper',
      states: {
        current: { mark: 'dot', backing: '#ff0000', opacity: 20, weight: 'bold' },
        visited: { ink: '#333333', weight: 'bold' },
        hover: { line: 'none' },
      },
    }
    const text = written([aMade('rail', [item('One')], { look: said })])
    const style = /<style[^]*<\/style>/.exec(text)![0].replace(/\s+/g, ' ')
    const nav = 'html:root nav[data-wb="menu"][data-wb-made^="1 "]'
    expect(style).toContain('background: rgba(255, 255, 255, 0.5); color: rgb(16, 32, 48);')
    expect(style).toContain(`${nav} { text-transform: uppercase; }`)
    // Of a visited link a browser takes the colour alone.
    expect(style).toContain(`${nav} a:visited { color: rgb(51, 51, 51); }`)
    expect(style).toContain(`${nav} :is(a, summary):hover { text-decoration: none; }`)
    expect(style).toMatch(
      /a\[aria-current="true"\] \{ font-weight: bold; background-color: rgba\(255, 0, 0, 0\.2\); box-shadow: none; background-image: radial-gradient\(circle, currentColor/,
    )
    expect(text).toContain('look=ink:#102030;ground:#ffffff;opacity:50;letters:upper visited=ink:#333333;weight:bold current=mark:dot;')
    // What nobody may have written is not taken.
    const bad = text.replace('ink:#102030', 'ink:red}').replace('opacity:50', 'opacity:500')
    expect(broughtIn(utf8(bad)).page.menus[0]!.look).toEqual({ ...said, ink: undefined, opacity: undefined })
  })

  it('go where their form does', () => {
    const header = { at: SOURCE.indexOf('<header'), keep: null, backing: null }
    const behind = (form: MadeMenuForm) => {
      const menu = { ...aMade(form.kind, [item('One')]), form }
      const text = read(came.handOver({ ...came.page, header, menus: [menu] }).bytes)
      return text
        .slice(text.indexOf('</nav>') + 6)
        .trim()
        .slice(0, 9)
    }
    const forms: MadeMenuForm[] = [
      ...(['contents', 'footer', 'rail', 'marks', 'floating'] as const).map((kind) => newForm(kind, [], [])),
      { kind: 'bar', place: 'top' },
      { kind: 'bar', place: 'in-header' },
      { kind: 'bar', place: 'after-header' },
    ]
    expect(forms.map(behind)).toEqual(
      ['<section ', '</body></', '<header d', '<header d', '<header d', '<header d', '</header>', '<section '].map((s) => s.slice(0, 9)),
    )
  })

  it('move when their form’s place changes, and stay for other settings', () => {
    const footer = aMade('footer', [item('One')])
    const as = (form: MadeMenuForm, from: typeof came) =>
      read(from.handOver({ ...from.page, menus: from.page.menus.filter(isMade).map((m) => ({ ...m, form })) }).bytes)
    const moved = as(newForm('rail', [], []), broughtIn(handOver([footer]).bytes))
    expect(moved).toMatch(/<body><nav/)
    const by = utf8(written([footer]).replace(/(<footer>)([^]*)(<nav[^]*<\/nav>)/, '$3$1$2'))
    const kept = as({ kind: 'footer', layout: 'columns', edge: 2 }, broughtIn(by))
    expect(kept).toMatch(/<\/nav><footer>/)
  })

  it('are off the chosen screens, in their ranges of widths', () => {
    const style = (menu: MadeMenu) => /<style[^]*<\/style>/.exec(written([menu]))![0].replace(/\s+/g, ' ')
    const nav = 'html:root nav[data-wb="menu"][data-wb-made^="1 "]'
    const [laptop, phone] = twoScreens
    const half = (laptop!.width + phone!.width) / 2
    expect(style(aMade('marks', [item('One')], { shown: { off: ['laptop'] } }))).toContain(
      `@media (min-width: ${half + 0.02}px) { ${nav} { display: none; } }`,
    )
    const small = style(aMade('bar', [item('One')], { shown: { small: { upTo: 400, as: 'away' } } }))
    expect(small).toContain(`@media (max-width: ${half}px) { ${nav} { display: none; } html:root { padding-top: 0px; } }`)
    // Where it is away it covers nothing beyond the header that nobody measured.
    expect(small).toMatch(new RegExp(`@media \\(max-width: ${half}px\\) \\{ html:root \\{ --wb-header: 64px;`))
    expect(style(aMade('bar', [item('One'), item('Two', { off: ['phone'] })]))).toContain(
      `@media (max-width: ${half}px) { html:root [data-wb-off~="phone"] { display: none !important; } }`,
    )
  })

  it('link each section to the next item’s target, and are read back', () => {
    const to = (id: string, over: Partial<Item> = {}) => item(id, { target: { kind: 'section', section: keyOf(id) }, ...over })
    const away = item('Shop', { target: { kind: 'outside', address: 'https://ostrey.example/', newTab: true } })
    for (const text of ['', 'On & on']) {
      const form: MadeMenuForm = { kind: 'steps', place: 'foot', text, edge: 4 }
      // Not by the third section, and from the last to another site.
      const steps = aMade('steps', [to('one'), to('two', { tooltip: 'More' }), to('four'), away], { form, name: 'The path' })
      const once = handOver([steps])
      const html = read(once.bytes)
      const under = (id: string) => new RegExp(`<section id="${id}">.*?</section>`, 's').exec(html)![0]
      const says = (label: string) => (text ? ` aria-label="On &amp; on: ${label}">On &amp; on</a>` : `>${label}</a>`)
      expect(under('one')).toContain(
        `</p><p data-wb="step" data-wb-made="1.1 steps place=foot text=${text.replace(/[ ]/g, '%20').replace('&', '&amp;')} edge=4 name=The%20path of=one"><a href="#two" title="More"${says('two')}</p></section>`,
      )
      expect(under('two')).toContain(`<a href="#four"${says('four')}`)
      expect(under('three')).not.toContain('<a')
      expect(under('four')).toContain(text ? 'target="_blank" rel="noopener">On &amp; on</a>' : 'target="_blank" rel="noopener">Shop</a>')
      const again = broughtIn(once.bytes)
      expect(again.page.menus.map((m) => [m.name, m.form, m.items.map((i) => [i.label, i.tooltip])])).toEqual([
        [
          'The path',
          form,
          [
            ['one', undefined],
            ['two', 'More'],
            ['four', undefined],
            ['Shop', undefined],
          ],
        ],
      ])
      expect(read(again.handOver(again.page).bytes)).toBe(html)
      expect(read(again.handOver({ ...again.page, menus: [] }).bytes)).not.toContain('data-wb="step"')
    }
  })

  it('go before the next section for a bare heading', () => {
    const headings = broughtIn(
      utf8('<!doctype html><html lang=en><title>H</title><body><h2 id=a>A</h2><p>Words of it.</p><h2 id=b>B</h2><p>Words of it.</p>'),
    )
    const items = headings.page.sections.map((s) => item(s.title, { target: { kind: 'section', section: s.key } }))
    const html = read(headings.handOver({ ...headings.page, menus: [aMade('steps', items)] }).bytes)
    expect(html).toMatch(/<p>Words of it\.<\/p><p data-wb="step"[^>]*><a href="#b">B<\/a><\/p><h2 id=b>/)
  })

  it('have every form', () => expect(formKinds).toEqual(['bar', 'contents', 'corner', 'floating', 'footer', 'marks', 'rail', 'steps']))
})
