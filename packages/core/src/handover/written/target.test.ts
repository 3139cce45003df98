/** Links to places of the page that it would follow in another tab: written so that they stay, and told of where they are none of a menu's. */
import { openFindings, pageFindings } from '../../findings/index.ts'
import { defaultRule } from '../../naming/index.ts'
import { parsePage, readParsed } from '../../page/index.ts'
import { proposeSetUp } from '../../proposal/index.ts'
import { aMenu, anItem, aSite } from '../../site/builder.ts'
import { apply, type SitePage } from '../../site/index.ts'
import { anInput } from '../builder.ts'
import { pageEdits, writePage } from '../index.ts'

const sections = ['a', 'b', 'c'].map((id) => `<section id="${id}"><h2>${id.toUpperCase()}</h2><p>Words</p></section>`).join('')

function broughtIn(links: string, loose = '', head = '') {
  const bytes = new TextEncoder().encode(`<!doctype html><title>T</title>${head}<nav>${links}</nav>${sections}<p>${loose}</p>`)
  const parsed = parsePage(bytes)
  const reading = readParsed(parsed, bytes.length, 'index.html')
  const page: SitePage = { key: 'p1', file: 'index.html', source: 'a', title: '', ...proposeSetUp(reading, [], defaultRule) }
  const written = (as = page) => {
    const html = new TextDecoder().decode(writePage(bytes, parsed, pageEdits(anInput(as, reading))).bytes)
    return [...html.matchAll(/<a ([^>]*)>/g)].map(([, said]) =>
      said!
        .replace(/ ?data-wb[^ >]*/g, '')
        .split(' ')
        .filter(Boolean)
        .sort()
        .join(' '),
    )
  }
  const known = { undeclared: new Set<string>(), known: new Set<string>(), named: { styles: [], scripts: [] }, surveys: {}, tried: {} }
  const asItCame = pageFindings(reading, { missing: new Set(), undeclared: new Set(), registersWorker: false })
  const told = (as = page) => openFindings({ site: aSite(as), page: as, reading, ...known }, asItCame).find((f) => f.code === 'link-leaves')
  return { page, written, told }
}
const a = (id: string, more = '') => `<a href="${id}"${more}>${id.slice(1).toUpperCase()}</a>`

it.each([
  [' target="_blank"', ' target="_self"'],
  [' target=new', ' target="_self"'],
  // Whatever its case, this one stays where it is.
  [' target="_SELF"', ' target="_SELF"'],
  [' target=""', ' target=""'],
  ['', ''],
])('an item with%s has%s when it is handed over', (was, is) => {
  const { written, told } = broughtIn(a('#a', was) + a('#b') + a('#c'))
  expect(written()[0]).toBe(`href="#a"${is}`)
  expect(told()).toBeUndefined()
})

it('opens all items on this page if the base says otherwise; other links stay', () => {
  const { page, written } = broughtIn(a('#a') + a('#b') + '<a href="https://x.example/">X</a>', '', '<base target="_blank">')
  expect(written()).toEqual(['href="#a" target="_self"', 'href="#b" target="_self"', 'href="https://x.example/"'])
  const items = page.sections.map(({ key, id }, i) => ({ ...anItem(i + 1), label: id, target: { kind: 'section' as const, section: key } }))
  const made = { ...page, menus: [aMenu(items)], travel: { ...page.travel, skip: 'To the page' } }
  const stay = written(made).filter((tag) => tag.endsWith('target="_self"'))
  expect(stay).toEqual(['a', 'a', 'b', 'c'].map((id) => `href="#${id}" target="_self"`))
})

it('reports links outside menus once, and one press makes them stay', () => {
  const { page, written, told } = broughtIn(
    a('#a') + a('#b') + a('#c'),
    `See ${a('#a', ' target=_blank')} for what is there, or else ${a('#b', ' target=_blank')} and ${a('#c')}.`,
  )
  expect(told()).toMatchObject({ message: '2 links (“A”, “B”) lead to this page but open in another tab.' })
  expect(told()!.fix!.label).toBe('Open 2 links on this page')
  const { site, inverse } = apply(aSite(page), told()!.fix!.command)
  const next = site.pages[0]!
  expect(written(next).slice(3)).toEqual(['href="#a" target="_self"', 'href="#b" target="_self"', 'href="#c"'])
  expect(told(next)).toBeUndefined()
  expect(apply(site, inverse).site.pages[0]).toEqual(page)
})
