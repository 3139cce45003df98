/** Which pages get the script that corrects arrivals, and the reason that their script says. */
import { defaultRule } from '../../naming/index.ts'
import { readPage, type PageReading } from '../../page/index.ts'
import { proposeSetUp } from '../../proposal/index.ts'
import { twoScreens } from '../../site/builder.ts'
import type { SitePage } from '../../site/index.ts'
import { aHeader, aPart, aSurvey } from '../../survey/builder.ts'
import type { Survey } from '../../survey/index.ts'
import { anInput } from '../builder.ts'
import { pageEdits, type ScriptPart } from '../index.ts'

const links = '<a href="#work">Work</a><a href="#team">Team</a><a href="#help">Help</a>'
const sections = ['work', 'team', 'help'].map((id) => `<section id="${id}"><h2>${id}</h2></section>`).join('')
const source = `<!doctype html><title>T</title><header><nav>${links}</nav></header>${sections}`

/** What the script is made of on a page whose header covers 60 px at every position, and why it corrects arrivals. */
function scriptOf(html: string, over: Partial<Survey> = {}, change: (page: SitePage) => SitePage = (page) => page, screens = twoScreens) {
  const reading: PageReading = readPage(new TextEncoder().encode(html))
  const header = aHeader({ at: reading.header!, position: 'fixed', height: 60, rest: 60, moved: 60 })
  const parts = reading.candidates.map(({ at }, i) => aPart({ at, top: 100 + 900 * i, bottom: 1000 + 900 * i }))
  const survey = (screen: string) => aSurvey({ screen, parts, header, ...over })
  const surveys = Object.fromEntries(twoScreens.map(({ key }) => [key, survey(key)]))
  const page = change({ key: 'p1', file: 'a.html', source: '', title: '', ...proposeSetUp(reading, Object.values(surveys), defaultRule) })
  let said: { parts: readonly ScriptPart[]; why: string | null } | null = null
  pageEdits(anInput(page, reading, { surveys, screens, runtime: (parts, why) => ((said = { parts, why }), '') }))
  return said as { parts: readonly ScriptPart[]; why: string | null } | null
}

it('only marks where CSS lands every link', () => {
  expect(scriptOf(source)).toEqual({ parts: ['header'], why: null })
})

it('knows links to the page’s top only where there are some', () => {
  const html = source.replace(links, `<a href="#">Home</a>${links}`)
  expect(scriptOf(html)!.parts).toEqual(['header', 'tops'])
})

const header = (moved: number) => ({
  header: aHeader({ at: readPage(new TextEncoder().encode(source)).header!, position: 'fixed', height: 60, rest: 60, moved }),
})
const part = readPage(new TextEncoder().encode(source)).candidates[0]!

it('measures no header that covers nothing, and leaves one that covers on some screens only to the other script', () => {
  expect(scriptOf(source, { header: null })!.parts).toEqual([])
  const off = (page: SitePage): SitePage => ({ ...page, header: page.header && { ...page.header, off: ['phone'] } })
  expect(scriptOf(source, {}, off)!.why).toBe('the header covers the page on some screens only')
})

it.each<[string, string, Partial<Survey>]>([
  ['the header changes its height on scroll', source, header(40)],
  ['page scripts may move the page', `${source}<script>1</script>`, {}],
  ['page scripts may move the page', source, { rewrites: true }],
  ['page scripts may move the page', source, { isHeld: true }],
  ['a section is sticky', source, { parts: [aPart({ at: part.at, top: 0, bottom: 900, sticks: true })] }],
  ['the page scrolls in an element', source, { scroller: { at: null, height: 800 } }],
  ['pictures have no size until they are loaded', source, { pictures: [{ at: 5, width: 10, height: 10, fits: false }] }],
  ['parts are laid out late', source, { estimates: [{ at: part.at, height: 900, said: 100 }] }],
  ['a section has no place of its own on some screen', source, { parts: [aPart({ at: part.at, top: 0, bottom: 0, hasBox: false })] }],
  ['links are written in an unusual way', source.replace('<title>', '<base href="https://example.com/"><title>'), {}],
  ['links are written in an unusual way', source.replaceAll('work"', '100%"'), {}],
  ['links are written in an unusual way', source.replace('#work', '#%77ork'), {}],
  ['links are written in an unusual way', source.replace('<section id="work">', '<section><a name="work"></a>'), {}],
])('corrects arrivals because %s', (why, html, over) => {
  const said = scriptOf(html, over)!
  expect(said.why).toBe(why)
  expect(said.parts[0]).toBe('arrivals')
})

it('corrects arrivals on screens that were not measured, and for motions of its own', () => {
  const other = { ...twoScreens[0]!, key: 'other' }
  expect(scriptOf(source, {}, undefined, [...twoScreens, other])!.why).toBe('the page was not measured on every screen')
  const timed = (page: SitePage): SitePage => ({ ...page, travel: { ...page.travel, address: 'replace' } })
  expect(scriptOf(source, {}, timed)!.why).toBe('links have motions or addresses of their own')
})
