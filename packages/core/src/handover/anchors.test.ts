import { defaultRule } from '../naming/index.ts'
import { parsePage, readPage, readParsed } from '../page/index.ts'
import { knownOf } from '../findings/index.ts'
import { proposeSetUp } from '../proposal/index.ts'
import { reviewRevision, revisePage } from '../revision/index.ts'
import { renameSection, apply, type Section, type Site, type SitePage } from '../site/index.ts'
import { twoScreens } from '../site/builder.ts'
import { anInput } from './builder.ts'
import { aPart, aSurvey } from '../survey/builder.ts'
import type { Survey } from '../survey/index.ts'
import { anchorsOf } from './anchors.ts'
import { handoverPlan, layoutOf, pageEdits, writePage } from './index.ts'

const bytes = (text: string) => new TextEncoder().encode(text)
function written(
  source: string,
  change: (page: SitePage) => SitePage,
  { others = [], surveys = {}, named = [] }: { others?: SitePage[]; surveys?: Record<string, Survey>; named?: readonly string[] } = {},
): { text: string; page: SitePage } {
  const parsed = parsePage(bytes(source))
  const reading = readParsed(parsed, source.length, 'index.html')
  const page = change({ key: 'p1', file: 'index.html', source: '', title: '', ...proposeSetUp(reading, [], defaultRule) })
  const edits = pageEdits(anInput(page, reading, { pages: [page, ...others], surveys, named }))
  return { text: new TextDecoder().decode(writePage(bytes(source), parsed, edits).bytes), page }
}
const renamed = (id: string) => (page: SitePage) => {
  const site: Site = { format: 'way-bell-site', version: 4, name: '', rule: defaultRule, screens: twoScreens, pages: [page] }
  return apply(site, renameSection('p1', page.sections[0]!, id, new Set(['20', '3', 'a']))).site.pages[0]!
}
const point = (at: number, shift: number): Section => ({
  key: 'pt',
  at,
  point: { shift },
  title: 'Here',
  id: 'here',
  sourceId: null,
  former: [],
  heading: null,
  depth: 0,
  toTop: false,
})
const withPoint = (shift: number) => (page: SitePage) => ({
  ...page,
  sections: [point(page.sections[1]!.at, shift), ...page.sections].sort((a, b) => a.at - b.at),
})

const source =
  '<nav><a href="#work">Work</a><a href="#team">Team</a></nav><section id="work"><h2>Work</h2><a href="#work">up</a></section><section id="team"><h2>Team</h2></section>\n'

/** As one line, without comments. */
const flat = (text: string) => text.replace(/\/\*.*?\*\//gs, '').replace(/\s+/g, ' ')

it('gives a former ID to the section’s heading, and updates its links', () => {
  const { text } = written(source, renamed('projects'))
  expect(text).toContain('<section id="projects"><h2 id="work">Work</h2>')
  expect(text.match(/href="#projects"/g)).toHaveLength(2)
  expect(flat(text)).toContain(':root #work { scroll-margin-top: 100vh !important; }')
  expect(text).not.toContain('anchor')
})

it('lets a former ID arrive where the section starts, on each screen', () => {
  const measured = (text: string) => {
    const { at } = readPage(bytes(text)).candidates.find((c) => c.id === 'team')!
    const partOn = (i: number) => aPart({ at, top: 900, bottom: 1400, heading: { top: 940 + 10 * i, bottom: 990 } })
    return Object.fromEntries(twoScreens.map(({ key }, i) => [key, aSurvey({ screen: key, maxScroll: 3000, parts: [partOn(i)] })]))
  }
  const change = (page: SitePage) => ({ ...page, sections: page.sections.map((s, i) => (i ? { ...s, former: ['crew', 'folk'] } : s)) })
  const { text } = written(source, change, { surveys: measured(source) })
  expect(text).toContain('<section data-wb-anchor="1" id="team"><h2 id="crew">Team</h2>')
  expect(flat(text)).toMatch(
    /:root #crew \{ scroll-margin-top: 40px !important; \} @media \(max-width: 835px\) \{ :root #crew \{ scroll-margin-top: 50px !important; \} \}/,
  )
  // A second one finds the heading taken, and stands in the head.
  expect(text).toContain('content="anchor" id="folk">')
  expect(written(text, (p) => p, { surveys: measured(text) }).text).toBe(text)
})

it('puts a former ID into the head if a style uses it, or the heading has an ID or wasn’t measured', () => {
  const change = (page: SitePage) => ({ ...page, sections: page.sections.map((s) => ({ ...s, former: [`${s.id}-was`] })) })
  for (const [text, named] of [
    [source, ['work-was']],
    [source.replace('<h2>Work', '<h2 id="w">Work'), []],
  ] as const) {
    const out = written(text, change, { named }).text
    expect(out).toContain('<meta data-wb="anchor" name="way-bell" content="anchor" id="work-was">')
    expect(flat(out)).toContain('#work-was { position-anchor: --wb-1 !important; top: anchor(top) !important;')
    expect(out).toContain('content="anchor" id="team-was">')
  }
})

it('leaves an ID alone that was set by hand, although an earlier handover had it for a former one', () => {
  const first = written(source, renamed('projects')).text
  const moved = first.replace('<h2 id="work">Work', '<h2>Work').replace('<h2>Team', '<h2 id="work">Team')
  const { text } = written(moved, (p) => ({ ...p, sections: p.sections.map((s) => ({ ...s, former: [] })) }))
  expect(text).toContain('<h2 id="work">Team')
  expect(text).toContain('<h2>Work')
})

it('makes a point the ID of its element if that has none', () => {
  const plain = source.replace('<section id="team">', '<div class="band"><p>Words</p></div><section id="team">')
  const at = plain.indexOf('<div class')
  const change = (page: SitePage) => ({ ...page, sections: [page.sections[0]!, point(at, 30), page.sections[1]!] })
  const { text } = written(plain, change)
  expect(text).toContain('<div id="here" class="band">')
  expect(flat(text)).toContain(':root #here { scroll-margin-top: -30px !important; }')
  expect(text).toMatch(/"points": \[\s*\{\s*"id": "here",\s*"below": 30\s*\}/)
  expect(text).toMatch(/"shifted": \[\s*"here"\s*\]/)
  const again = written(text, (p) => p)
  expect(again.page.sections.map((s) => [s.id, s.point?.shift])).toEqual([
    ['work', undefined],
    ['here', 30],
    ['team', undefined],
  ])
  expect(again.text).toBe(text)
  // A point that is no longer wanted leaves nothing behind.
  expect(written(text, (p) => ({ ...p, sections: p.sections.filter((s) => !s.point) })).text).toContain('<div class="band">')
})

it('puts a point before an element with an ID into the head', () => {
  const { text } = written(source, withPoint(-12.5))
  expect(text).toContain('<section data-wb-anchor="1" id="team">')
  expect(flat(text)).toMatch(/#here \{ position-anchor: --wb-1 !important; top: calc\(anchor\(top\) \+ -12.5px\)/)
  expect(text).toContain('content="anchor" id="here">')
})

it('drops a former ID that an element has now', () => {
  const reading = readPage(bytes(source))
  const page = { key: 'p1', file: 'index.html', source: '', title: '', ...proposeSetUp(reading, [], defaultRule) }
  page.sections[0]!.former = ['team', 'old']
  expect(
    anchorsOf({ page, pages: [page], reading, screens: twoScreens, surveys: {}, named: [], runtime: () => '' }).map((a) => a.id),
  ).toEqual(['old'])
})

it('finds former IDs and points again, and writes the same page', () => {
  const first = written(source, (p) => withPoint(20)(renamed('projects')(p)))
  const second = written(first.text, (p) => p)
  expect(second.page.sections.map((s) => [s.id, s.former, s.point?.shift])).toEqual([
    ['projects', ['work'], undefined],
    ['here', [], 20],
    ['team', [], undefined],
  ])
  expect(second.text).toBe(first.text)
})

it('updates links of the site’s other pages', () => {
  const other: SitePage = { ...written(source, renamed('projects')).page, key: 'p2', file: 'sub/more.html' }
  const links =
    '<p><a href="sub/more.html#work">a</a> <a href="./sub/more.html?x#work">b</a> <a href="sub/more.html#projects">c</a> <a href="more.html#work">d</a> <a href="sub/more.html">e</a></p>'
  const { text } = written(source + links, (p) => p, { others: [other] })
  expect([...text.matchAll(/<a href="([^"]*more[^"]*)"/g)].map((m) => m[1])).toEqual([
    'sub/more.html#projects',
    './sub/more.html?x#projects',
    'sub/more.html#projects',
    'more.html#work',
    'sub/more.html',
  ])
})

it('updates every address of the same target, on the page and from another', () => {
  const here = written(
    source + '<p><a href="/#work">a</a> <a href="./#work">b</a> <a href="index.html#work">c</a></p>',
    renamed('projects'),
  )
  expect([...here.text.matchAll(/<a href="([^"]*)">[abc]</g)].map((m) => m[1])).toEqual([
    '/#projects',
    './#projects',
    'index.html#projects',
  ])
  const index: SitePage = { ...written(source, renamed('projects')).page, key: 'p2', file: 'index.html' }
  const there = (text: string) => {
    const parsed = parsePage(bytes(text))
    const reading = readParsed(parsed, text.length, 'sub/more.html')
    const page: SitePage = { key: 'p1', file: 'sub/more.html', source: '', title: '', ...proposeSetUp(reading, [], defaultRule) }
    const edits = pageEdits({ page, pages: [page, index], reading, screens: twoScreens, surveys: {}, named: [], runtime: () => '' })
    return new TextDecoder().decode(writePage(bytes(text), parsed, edits).bytes)
  }
  const links = ['/#work', '../#work', '../index.html#work', '/index.html#work', '..#work']
  const text = there(`<section id="x"><h2>X</h2></section>${links.map((l) => `<p><a href="${l}">go</a></p>`).join('')}`)
  expect([...text.matchAll(/<a href="([^"]*)">go</g)].map((m) => m[1])).toEqual(links.map((l) => l.replace('#work', '#projects')))
})

it('gives the subject of every edit', () => {
  const reading = readPage(bytes(source))
  const page = renamed('projects')({ key: 'p1', file: 'index.html', source: '', title: '', ...proposeSetUp(reading, [], defaultRule) })
  const plan = handoverPlan({ page, pages: [page], reading, screens: twoScreens, surveys: {}, named: [], runtime: () => '' })
  const said = plan.map((p) => p.why)
  expect(said).toContain('The ID of the section “Work”.')
  expect(said).toContain('Where the item “Work” leads.')
  expect(said).toContain('Links to the former ID “work” of “Work” still arrive.')
  expect(said.every((why) => /^[A-Z“].*\.$/s.test(why))).toBe(true)
  expect(plan.find((p) => p.why.includes('the item “Work”'))!.for).toEqual({ menu: 'm1', item: 'm1-0' })
})

it('knows which edits affect layout', () => {
  const reading = readPage(bytes(source))
  const page = { key: 'p1', file: 'index.html', source: '', title: '', ...proposeSetUp(reading, [], defaultRule) }
  const of = (over: Partial<SitePage>) => layoutOf({ page: { ...page, ...over }, pages: [page], reading, screens: twoScreens })
  expect(of({ travel: { smooth: false, breathing: 90 }, highlight: { bellOffset: 3 } })).toBe(of({}))
  for (const over of [
    { sections: page.sections.map((s) => ({ ...s, id: `${s.id}-x` })) },
    { header: { at: 0, keep: 'sticky' as const, backing: null } },
    { menus: page.menus.map((m) => ({ ...m, items: [...m.items].reverse() })) },
    { menus: page.menus.map((m) => ({ ...m, form: { kind: 'bar' as const, place: 'top' as const } })) },
  ])
    expect(of(over)).not.toBe(of({}))
})

it('writes the same page again with numeric former IDs', () => {
  const first = written(source, (p) => renamed('now')(renamed('3')(renamed('20')(p))))
  const second = written(first.text, (p) => p)
  expect(second.page.sections[0]!.former).toEqual(['work', '20', '3'])
  expect(second.text).toBe(first.text)
})

it('removes a forgotten former ID, and keeps the others in place', () => {
  const first = written(source, (p) => renamed('b')(renamed('a')(p)))
  const second = written(first.text, (p) => ({ ...p, sections: p.sections.map((s, i) => (i ? s : { ...s, former: ['a'] })) }))
  expect(first.text).toContain('<h2 id="work">')
  expect(first.text).toContain('content="anchor" id="a">')
  expect(second.text).not.toContain('id="work"')
  expect(second.text).toContain('<h2 id="a">')
  expect(second.text).not.toContain('<meta data-wb')
})

it('updates labels and descriptions after an ID changed', () => {
  const { text } = written(
    source.replace('</nav>', '</nav><p aria-describedby="x work" data-go="#work">') + '<label for=team>',
    renamed('projects'),
  )
  expect(text).toContain('aria-describedby="x projects" data-go="#projects"')
  expect(text).toContain('<label for=team>')
})

describe('a handed-over page with targets in the head', () => {
  const recipe =
    '<!doctype html><title>Rye bread</title><nav><ul><li><a href="#flour">Flour</a><li><a href="#oven">Oven</a><li><a href="#tips">Tips</a></ul></nav>' +
    '<article id="flour"><h2 id="f">Flour</h2><p>Sieve it, or see <a href="#oven">the oven</a>.</p></article>' +
    '<article id="tips"><h2 id="t">Tips</h2><p>Wait.</p></article>'
  /** The item “Oven” and a link in the text lead to a point above “Tips”; “Flour” has a former ID. */
  const withOven = (page: SitePage): SitePage => {
    const [flour, tips] = page.sections
    const oven = { ...point(tips!.at, -20), key: 'oven', id: 'oven', title: 'Oven' }
    const menus = page.menus.map((m) => ({
      ...m,
      items: m.items.map((i) => (i.label === 'Oven' ? { ...i, target: { kind: 'section' as const, section: 'oven' } } : i)),
    }))
    return { ...page, menus, sections: [{ ...flour!, former: ['meal'] }, oven, tips!] }
  }
  const first = written(recipe, withOven).text
  const read = () => readPage(bytes(first))

  it('reads links to them as links that arrive', () => {
    expect(first.match(/<meta data-wb="anchor"[^>]*>/g)).toHaveLength(2)
    expect(read().links.map((l) => [l.fragment, l.status])).toEqual([
      ['flour', 'ok'],
      ['oven', 'ok'],
      ['tips', 'ok'],
      ['oven', 'ok'],
    ])
    const parsed = parsePage(bytes(first))
    const { findings } = knownOf({ parsed, reading: read(), missing: new Set(), scripts: [], styles: [] })
    expect(findings.map((f) => f.code)).toEqual([])
    // Without the targets they lead nowhere.
    const bare = readPage(bytes(first.replace(/<meta data-wb="anchor"[^>]*>/g, '')))
    expect(bare.links.filter((l) => l.status === 'broken').map((l) => l.fragment)).toEqual(['oven', 'oven'])
  })
  it('is written again as it is, with one point', () => {
    const again = written(first, (p) => p)
    expect(again.page.sections.map((s) => [s.id, s.former])).toEqual([
      ['flour', ['meal']],
      ['oven', []],
      ['tips', []],
    ])
    expect(again.page.menus[0]!.items.map((i) => i.target)).toEqual(again.page.sections.map((s) => ({ kind: 'section', section: s.key })))
    expect(again.text).toBe(first)
  })
  it('becomes a version of the page it was made from, with one point', () => {
    const version = (text: string) => {
      const parsed = parsePage(bytes(text))
      return { parsed, reading: readParsed(parsed, text.length, 'index.html') }
    }
    // With the point on an element without an ID too.
    for (const source of [recipe, recipe.replace('<article id="tips">', '<div class="band"><p>Pause.</p></div><article id="tips">')]) {
      const at = source.includes('<div') ? source.indexOf('<div') : undefined
      const place = (page: SitePage): SitePage => {
        const next = withOven(page)
        return { ...next, sections: next.sections.map((s) => (s.point && at !== undefined ? { ...s, at } : s)) }
      }
      const { text, page } = written(source, place)
      const [before, after] = [version(source), version(text)]
      const { rows, added } = reviewRevision(page, before, after)
      const decisions = { sections: Object.fromEntries(rows.map((r) => [r.section, r.to?.at ?? null])), added: added.map((f) => f.at) }
      const { revision } = revisePage(page, before, after, decisions, { source: '', title: '' }, defaultRule)
      expect(revision.sections.map((s) => [s.id, s.former])).toEqual(page.sections.map((s) => [s.id, s.former]))
      expect(revision.menus[0]!.items.map((i) => i.target)).toEqual(page.menus[0]!.items.map((i) => i.target))
    }
  })
  it('updates its links when a point or section there gets another ID', () => {
    const change = (page: SitePage) => ({ ...page, sections: page.sections.map((s) => ({ ...s, id: `${s.id}-2`, former: [s.id] })) })
    const { text } = written(first, change)
    expect([...text.matchAll(/href="(#[^"]*)"/g)].map((m) => m[1])).toEqual(['#flour-2', '#oven-2', '#tips-2', '#oven-2'])
    // A link that still has the former ID follows too.
    expect(written(first.replace('see <a href="#oven">', 'see <a href="#meal">'), (p) => p).text).toContain('see <a href="#flour">')
  })
})
