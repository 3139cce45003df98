import type { Motion } from '../../contract/index.ts'
import type { Survey } from '../../survey/index.ts'
import { defaultRule } from '../../naming/index.ts'
import { readPage } from '../../page/index.ts'
import { proposeSetUp } from '../../proposal/index.ts'
import { type HeaderChoice, type Section, type SitePage } from '../../site/index.ts'
import { aMenu, twoScreens } from '../../site/builder.ts'
import { aHeader, aPart, aSurvey } from '../../survey/builder.ts'
import { idSelector, pageEdits, pageStyle } from '../index.ts'

const reading = readPage(
  new TextEncoder().encode(
    '<!doctype html><meta charset=utf-8><header><b>Name</b></header><section><h2>One</h2><p>words</p></section><section id="two"><h2>Two</h2></section>',
  ),
)
const survey = (screen: string, over: Partial<Survey> = {}): Survey => aSurvey({ screen, ...over })
const header = aHeader({ at: reading.header, moved: 50 })

/** As one line, without its comments. */
const flat = (css: string) => css.replace(/\/\*.*?\*\//gs, '').replace(/\s+/g, ' ')

function style(surveys: Record<string, Survey>, change: Partial<SitePage> = {}): string {
  const page = { key: 'p', file: 'a.html', source: '', title: '', ...proposeSetUp(reading, Object.values(surveys), defaultRule), ...change }
  return flat(pageStyle({ page, pages: [page], reading, screens: twoScreens, surveys, named: [], runtime: () => '' }, []))
}

describe('the style', () => {
  it('has each screen’s header at rest, because none shrinks without script', () => {
    const css = style(
      { laptop: survey('laptop', { header }), phone: survey('phone', { header: { ...header, rest: 60, moved: 60 } }) },
      { menus: [] },
    )
    expect(css).toContain('html:root { --wb-header: 80px; scroll-padding-top: calc(var(--wb-header) + 24px) !important; }')
    expect(css).toContain('@media (max-width: 835px) { html:root { --wb-header: 60px; } }')
  })
  it('scrolls smoothly except with reduced motion', () => {
    expect(style({})).toMatch(
      /html:root { scroll-behavior: auto; } @media \(prefers-reduced-motion: no-preference\) { html:root { scroll-behavior: smooth; } }/,
    )
    expect(style({}, { travel: { smooth: false, breathing: 0 } })).not.toContain('smooth')
  })
  it('has no rule without an effect', () => {
    const jumps = { laptop: survey('laptop'), phone: survey('phone') }
    expect(style(jumps)).not.toContain('scroll-behavior: auto')
    expect(style({ ...jumps, phone: survey('phone', { smooth: true }) })).toContain('html:root { scroll-behavior: auto; }')
    // Until it's measured, the page may scroll smoothly.
    expect(style({ laptop: survey('laptop') })).toContain('scroll-behavior: auto')
    const found = (mark: 'line' | 'edge') => ({
      menus: [{ ...aMenu([]), form: { kind: 'found' as const, elements: [], mark } }],
    })
    expect(style(jumps, found('line'))).not.toMatch(/forced-colors|data-wb-within/)
    expect(style(jumps, found('edge'))).toMatch(/forced-colors: active\) { \[data-wb-menu\] a\[aria-current="true"\] {/)
    expect(style(jumps, { menus: [], header: null })).not.toContain('[data-wb-header]')
  })
  it('lets the header go on some screens, and changes it on scroll on others', () => {
    const surveys = { laptop: survey('laptop', { header }), phone: survey('phone', { header: { ...header, position: 'fixed' } }) }
    const css = (over: Partial<HeaderChoice>) =>
      style(surveys, { menus: [], header: { at: header.at!, keep: null, backing: null, ...over } })
    expect(css({ off: ['phone'] })).toContain('@media (max-width: 835px) { [data-wb-header] { position: absolute !important; } }')
    expect(css({ off: ['laptop'] })).toContain(
      '@media (min-width: 835.02px) { [data-wb-header] { position: relative !important; inset: auto !important; } }',
    )
    // Where it is gone nothing covers.
    expect(css({ off: ['phone'] })).toContain('@media (max-width: 835px) { html:root { --wb-header: 0px; } }')
    expect(css({ onScroll: { after: 40, shadow: true, away: true, off: ['laptop'] } })).toMatch(
      /@media \(max-width: 835px\) { \[data-wb-moves\]\[data-wb-at~="moved"\] { box-shadow: .* !important; } \[data-wb-moves\]\[data-wb-at~="away"\]:not\(:focus-within\) { translate: 0 -120% !important; } }/,
    )
    expect(css({ onScroll: { after: 40, clear: true } })).toContain('[data-wb-at~="top"] { background: transparent !important;')
    expect(css({ backing: 'rgb(1 2 3 / 50%)' })).toContain('[data-wb-header] { background-color: rgb(1 2 3 / 50%) !important; }')
  })
  it('shrinks the header by its padding, with a margin that compensates', () => {
    const at = header.at!
    const css = (gives: typeof header.gives) => {
      const surveys = { laptop: survey('laptop', { header: { ...header, moved: 80, gives } }), phone: survey('phone') }
      return style(surveys, { menus: [], header: { at, keep: null, backing: null, onScroll: { after: 40, small: 15 } } })
    }
    expect(css({ at, top: 20.5, bottom: 10, margin: { side: 'bottom', own: 4 } })).toContain(
      '@media (min-width: 835.02px) { [data-wb-moves][data-wb-at~="moved"] { padding-top: 10.5px !important; padding-bottom: 5px !important; margin-bottom: 19px !important; } }',
    )
    expect(css({ at: at + 1, top: 20, bottom: 0, margin: null })).toContain(
      '[data-wb-moves][data-wb-at~="moved"] [data-wb-gives="1"] { padding-top: 5px !important; padding-bottom: 0px !important; }',
    )
    expect(css(null)).not.toContain('{ padding-top')
  })
  it('starts the first section under the header, with space for it', () => {
    const first = reading.candidates[0]!.at
    const parts = (lead: number) => [aPart({ at: first, top: lead, bottom: 400, lead })]
    const css = (lead: number, frame: number) =>
      style(
        { laptop: survey('laptop', { header, parts: parts(lead) }) },
        { menus: [], header: { at: header.at!, keep: null, backing: null, under: [{ screen: 'laptop', head: 12, frame }] } },
      )
    expect(css(80, 0)).toContain(
      '{ margin-top: -80px !important; padding-top: 92px !important; min-height: 100vh !important; min-height: 100svh !important; }',
    )
    expect(css(80, 30)).toContain('min-height: calc(100svh - 110px) !important;')
    // Where it lies under the header by itself it stays as it is, but for its height.
    expect(css(0, 0)).toMatch(/:root #\w+ { min-height: 100vh !important; min-height: 100svh !important; }/)
  })
  it('gives single links their own motion, the link’s before its menu’s, and smooth only on request', () => {
    const { menus } = proposeSetUp(reading, [], defaultRule)
    const [menu] = menus
    const [first, ...others] = menu!.items
    const css = (travel: SitePage['travel'], ofMenu: Motion, ofItem: Motion) =>
      style({}, { travel, menus: [{ ...menu!, motion: ofMenu, items: [{ ...first!, motion: ofItem }, ...others] }] })
    expect(css({ smooth: true, breathing: 0 }, 'smooth', 'jump')).toMatch(
      /no-preference\) { html:root:has\(\[data-wb-motion="smooth"\] a:is\(:hover, :focus\), .* { scroll-behavior: smooth; } } html:root:has\(a\[data-wb-motion="jump"\]:is\(:hover, :focus\)\) { scroll-behavior: auto; }/,
    )
    expect(css({ smooth: false, breathing: 0 }, 'jump', { easing: 'linear', ms: 200 })).toMatch(
      /{ scroll-behavior: auto; } @media \(prefers-reduced-motion: no-preference\) { html:root:has\(.*a\[data-wb-motion\^="timed"\]/,
    )
  })
  it('sends the first section to the top, and removes the page’s margins of others', () => {
    const part = aPart({ at: reading.candidates.find((c) => c.id === 'two')!.at, top: 900, bottom: 1000, margin: 70 })
    const css = style({ laptop: survey('laptop', { parts: [part] }) })
    expect(css).toContain(':root #one { scroll-margin-top: 100vh !important; }')
    expect(css).toContain(':root #two { scroll-margin-top: 0 !important; }')
  })
  it('gives all sections another breathing space on some screens', () => {
    const surveys = { laptop: survey('laptop', { header }), phone: survey('phone', { header }) }
    const css = style(surveys, { travel: { smooth: true, breathing: 24, breathes: [{ screen: 'phone', px: 0 }] } })
    expect(css).toMatch(/html:root {[^}]*scroll-padding-top: calc\(var\(--wb-header\) \+ 24px\) !important;/)
    expect(css).toContain('@media (max-width: 835px) { html:root { scroll-padding-top: calc(var(--wb-header) + 0px) !important; } }')
    expect(style(surveys, { travel: { smooth: true, breathing: 24 } }).match(/scroll-padding-top/g)).toHaveLength(1)
  })
  it('compensates the offset for focusable elements in the header, by screen', () => {
    const surveys = { laptop: survey('laptop', { header }), phone: survey('phone', { header }) }
    const css = style(surveys, { travel: { smooth: true, breathing: 24, breathes: [{ screen: 'phone', px: 10 }] } })
    const rules = css.match(/:is\(\[data-wb-header\], [^{]*{ scroll-margin-top: [^;]*; }/g)
    expect(rules!.map((r) => r.slice(r.indexOf('{')))).toEqual([
      '{ scroll-margin-top: calc(-24px - var(--wb-header)) !important; }',
      '{ scroll-margin-top: calc(-10px - var(--wb-header)) !important; }',
    ])
    // By the page’s own offsets nothing is written.
    expect(style(surveys, { travel: { smooth: true, breathing: 0, pageOffsets: true }, menus: [] })).not.toContain(':is([data-wb-header]')
  })
  it.each([
    [
      'a section',
      '<section id="end"><h2>End</h2><p>words</p></section>',
      ':root #end { padding-bottom: calc(12px + max(0px, 100vh - 500px)) !important; }',
    ],
    ['a heading in running text', '<h2 id="end">End</h2><p>words</p>', ':root body::after {'],
    ['an anchor in a heading', '<h2><a name="end">End</a></h2><p>words</p>', ':root body::after {'],
    ['a heading in a block of its own', '<div><h2 id="end">End</h2></div><p>words</p>', ':root body::after {'],
    [
      'an anchor in a section',
      '<section><header><h2><a name="end"></a>End</h2></header><p>words</p></section>',
      ':root [data-wb-room]::after {',
    ],
    [
      'a heading in a cell of a table',
      '<table><tr><td><h2 id="end">End</h2></td></tr><tr><td>words</td></tr></table>',
      ':root body::after {',
    ],
  ])('adds space at the end after everything of %s', (_, last, rule) => {
    const part = (id: string) => `<section id="${id}"><h2>${id}</h2><p>Some words that make this part weigh something.</p></section>`
    const nav = ['a', 'b', 'end'].map((id) => `<a href="#${id}">${id}</a>`).join('')
    const its = readPage(new TextEncoder().encode(`<!doctype html><meta charset=utf-8><nav>${nav}</nav>${part('a')}${part('b')}${last}`))
    const setUp = proposeSetUp(its, [], defaultRule)
    const endSpace = { section: setUp.sections.at(-1)!.key, as: 'padding' as const, on: [{ screen: 'laptop', fits: 500, base: 12 }] }
    const page = { key: 'p', file: 'a.html', source: '', title: '', ...setUp, endSpace }
    const css = flat(
      pageStyle(
        { page, pages: [page], reading: its, screens: twoScreens, surveys: { laptop: survey('laptop') }, named: [], runtime: () => '' },
        [],
      ),
    )
    expect(css).toContain(rule)
    if (rule.includes('::after')) expect(css).toContain('height: max(0px, 100vh - 500px) !important;')
  })
  it('gives single sections an extra offset, by screen', () => {
    const surveys = { laptop: survey('laptop'), phone: survey('phone') }
    const adjusted = (of: Partial<Section>, over: Record<string, Survey> = surveys) => {
      const { sections } = proposeSetUp(reading, [], defaultRule)
      return style(over, { sections: sections.map((s) => (s.id === 'two' ? { ...s, ...of } : s)) })
    }
    expect(adjusted({ adjust: { by: 30 } })).toContain(':root #two { scroll-margin-top: 30px !important; }')
    expect(adjusted({ adjust: { by: -12, off: ['phone'] } })).toContain(
      ':root #two { scroll-margin-top: -12px !important; } @media (max-width: 835px) { :root #two { scroll-margin-top: 0px !important; } }',
    )
    expect(adjusted({ adjust: { by: 'fills', off: ['phone'] } })).toContain(
      ':root #two { scroll-margin-top: calc(-24px - var(--wb-header)) !important; } @media (max-width: 835px) { :root #two { scroll-margin-top: 0px !important; } }',
    )
    // Of one that the page moved up, both together.
    const part = aPart({ at: reading.candidates.find((c) => c.id === 'two')!.at, top: 900, bottom: 1000, margin: 70, shift: 50 })
    const shifted = { laptop: survey('laptop', { parts: [part] }), phone: survey('phone', { parts: [part] }) }
    const css = adjusted({ adjust: { by: 30 } }, shifted)
    expect(css.match(/#two {[^}]*}/g)).toEqual(['#two { scroll-margin-top: -20px !important; }'])
    // The very top is the very top, and by the page’s own offsets nothing is written.
    expect(adjusted({ adjust: { by: 30 }, toTop: true })).not.toContain('30px;')
    expect(style(surveys, { travel: { smooth: true, breathing: 0, pageOffsets: true }, header: null, menus: [] })).not.toContain('#two')
  })
  it('makes space for a bar at the top, and none under a fixed header', () => {
    expect(style({})).toContain('html:root { padding-top: 48px; }')
    const menus = [aMenu([], { form: { kind: 'bar', place: 'under-fixed' } })]
    const over = style({}, { menus })
    expect(over).not.toContain('padding-top: 48px')
    expect(over).toContain('top: var(--wb-own)')
  })
  it('keeps a header in view as sticky or fixed', () => {
    for (const keep of ['sticky', 'fixed'] as const)
      expect(style({}, { header: { at: 0, keep, backing: 'rgb(1, 2, 3)' } })).toContain(
        `[data-wb-header="${keep}"] { position: ${keep} !important; top: 0 !important; z-index: 1000; background-color: rgb(1, 2, 3); }`,
      )
  })
})

it.each([
  ['plain-id_1', '#plain-id_1'],
  ['1st', '#\\31 st'],
  ['-2', '#-\\32 '],
  ['a.b:c', '#a\\.b\\:c'],
  ['my work', '#my\\ work'],
  ['ägypten', '#ägypten'],
  ['-', '#\\-'],
])('the selector of “%s” is %s', (id, selector) => expect(idSelector(id)).toBe(selector))

it('lets the script measure what the survey lacks', () => {
  const page = { key: 'p', file: 'a.html', source: '', title: '', ...proposeSetUp(reading, [], defaultRule) }
  const style = pageEdits({
    page,
    pages: [page],
    reading,
    screens: twoScreens,
    surveys: { laptop: survey('laptop', { header }) },
    named: [],
    runtime: () => '',
  }).find((e) => e.kind === 'piece' && e.role === 'style') as { text: string }
  expect(flat(style.text)).toContain('html:root { --wb-grows: -30px; --wb-shifts: 0px; }')
  expect(flat(style.text)).toContain('@media (max-width: 835px) { html:root { --wb-grows: unknown; --wb-shifts: 0px; } }')
})

it('takes a made menu’s colours from the widest screen, in any order', () => {
  const wide = survey('laptop', { color: 'rgb(10, 10, 10)' })
  const narrow = survey('phone', { width: 390, color: 'rgb(90, 90, 90)' })
  expect(style({ laptop: wide, phone: narrow })).toBe(style({ phone: narrow, laptop: wide }))
  expect(style({ phone: narrow, laptop: wide })).toContain('color: rgb(10, 10, 10)')
})

it('gives a shortened label the full title as tooltip', () => {
  const long = readPage(
    new TextEncoder().encode(
      '<!doctype html><meta charset=utf-8><section><h2>Short</h2><p>words</p></section><section><h2>Everything that your workshop needs to know</h2><p>words</p></section>',
    ),
  )
  const page = { key: 'p', file: 'a.html', source: '', title: '', ...proposeSetUp(long, [], defaultRule) }
  const menu = pageEdits({ page, pages: [page], reading: long, screens: twoScreens, surveys: {}, named: [], runtime: () => '' }).find(
    (e) => e.kind === 'piece' && e.role === 'menu',
  ) as { text: string }
  expect(menu.text.match(/title="[^"]*"/g)).toEqual(['title="Everything that your workshop needs to know"'])
})

it('reaches a target by name without an ID', () => {
  const old = readPage(
    new TextEncoder().encode(
      '<!doctype html><meta charset=utf-8><header><nav><a href="#one">1</a><a href="#two">2</a></nav></header><a name="one"></a><h2>One</h2><p>words</p><a name="two"></a><h2>Two</h2><p>words</p>',
    ),
  )
  const page = { key: 'p', file: 'a.html', source: '', title: '', ...proposeSetUp(old, [], defaultRule) }
  page.sections[0]!.toTop = true
  expect(page.sections.map((s) => s.id)).toEqual(['one', 'two'])
  const css = flat(pageStyle({ page, pages: [page], reading: old, screens: twoScreens, surveys: {}, named: [], runtime: () => '' }, []))
  expect(css).toContain(':root a[name="one"] { scroll-margin-top: 100vh !important; }')
})
