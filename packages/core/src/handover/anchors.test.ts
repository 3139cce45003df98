import { defaultRule } from '../naming/index.ts'
import { parsePage, readPage, readParsed } from '../page/index.ts'
import { proposeSetUp } from '../proposal/index.ts'
import { defaultScreens, renameSection, apply, type Section, type Site, type SitePage } from '../site/index.ts'
import { anchorsOf } from './anchors.ts'
import { pageEdits, writePage } from './index.ts'

const bytes = (text: string) => new TextEncoder().encode(text)
function written(source: string, change: (page: SitePage) => SitePage, others: SitePage[] = []): { text: string; page: SitePage } {
  const parsed = parsePage(bytes(source))
  const reading = readParsed(parsed, source.length, 'index.html')
  const page = change({ key: 'p1', file: 'index.html', source: '', title: '', ...proposeSetUp(reading, [], defaultRule) })
  const edits = pageEdits({ page, pages: [page, ...others], reading, screens: defaultScreens, surveys: {}, runtime: '' })
  return { text: new TextDecoder().decode(writePage(bytes(source), parsed, edits).bytes), page }
}
const renamed = (id: string) => (page: SitePage) => {
  const site: Site = { format: 'way-bell-site', version: 2, name: '', rule: defaultRule, screens: defaultScreens, pages: [page] }
  return apply(site, renameSection('p1', page.sections[0]!, id)).site.pages[0]!
}
const point = (at: number, shift: number): Section => ({
  key: 'pt',
  at,
  point: { shift },
  title: 'Here',
  id: 'here',
  own: null,
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

it('puts a former ID behind everything, over the section that had it, and takes its links along', () => {
  const { text } = written(source, renamed('projects'))
  expect(text).toContain('<section data-wb-anchor="1" id="projects">')
  expect(text.match(/href="#projects"/g)).toHaveLength(2)
  expect(text).toContain('<meta data-wb="anchor" name="way-bell" content="anchor" id="work">')
  expect(text).toContain('#work { position-anchor: --wb-1 !important; top: anchor(top) !important;')
})

it('puts a point before an element, shifted', () => {
  const { text } = written(source, withPoint(-12.5))
  expect(text).toContain('<section data-wb-anchor="1" id="team">')
  expect(text).toMatch(/#here \{ position-anchor: --wb-1 !important; top: calc\(anchor\(top\) \+ -12.5px\)/)
  expect(text).toContain('content="anchor" id="here">')
})

it('leaves out a former ID that an element has now', () => {
  const reading = readPage(bytes(source))
  const page = { key: 'p1', file: 'index.html', source: '', title: '', ...proposeSetUp(reading, [], defaultRule) }
  page.sections[0]!.former = ['team', 'old']
  expect(anchorsOf(page, reading).map((a) => a.id)).toEqual(['old'])
})

it('finds former IDs and points again, and writes the same page a second time', () => {
  const first = written(source, (p) => withPoint(20)(renamed('projects')(p)))
  const second = written(first.text, (p) => p)
  expect(second.page.sections.map((s) => [s.id, s.former, s.point?.shift])).toEqual([
    ['projects', ['work'], undefined],
    ['here', [], 20],
    ['team', [], undefined],
  ])
  expect(second.text).toBe(first.text)
})

it('takes links of another page of the site along', () => {
  const other: SitePage = { ...written(source, renamed('projects')).page, key: 'p2', file: 'sub/more.html' }
  const links =
    '<p><a href="sub/more.html#work">a</a> <a href="./sub/more.html?x#work">b</a> <a href="sub/more.html#projects">c</a> <a href="more.html#work">d</a> <a href="sub/more.html">e</a></p>'
  const { text } = written(source + links, (p) => p, [other])
  expect([...text.matchAll(/<a href="([^"]*more[^"]*)"/g)].map((m) => m[1])).toEqual([
    'sub/more.html#projects',
    './sub/more.html?x#projects',
    'sub/more.html#projects',
    'more.html#work',
    'sub/more.html',
  ])
})

it('takes away a former ID that was forgotten, and keeps the others where they stand', () => {
  const first = written(source, (p) => renamed('b')(renamed('a')(p)))
  const second = written(first.text, (p) => ({ ...p, sections: p.sections.map((s, i) => (i ? s : { ...s, former: ['a'] })) }))
  expect(second.text).not.toContain('id="work"')
  expect(second.text).toContain('content="anchor" id="a">')
  expect(second.text.match(/<meta data-wb/g)).toHaveLength(1)
})

it('takes labels and descriptions along with an ID that was changed', () => {
  const { text } = written(
    source.replace('</nav>', '</nav><p aria-describedby="x work" data-go="#work">') + '<label for=team>',
    renamed('projects'),
  )
  expect(text).toContain('aria-describedby="x projects" data-go="#projects"')
  expect(text).toContain('<label for=team>')
})
