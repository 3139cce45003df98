/** Sizes of pictures, there and back: written, read again, kept through a new version, and taken away. */
import { SIZED_RULE } from '../../contract/index.ts'
import { defaultRule } from '../../naming/index.ts'
import { parsePage, readParsed } from '../../page/index.ts'
import { proposeSetUp } from '../../proposal/index.ts'
import { revisePage, reviewRevision } from '../../revision/index.ts'
import type { SitePage } from '../../site/index.ts'
import { anInput } from '../builder.ts'
import { pageEdits, writePage } from '../index.ts'

const source =
  '<!doctype html><title>T</title><nav><a href="#a">A</a> <a href="#b">B</a></nav><section id="a"><h2>A</h2><img src="one.png" alt="One"></section><section id="b"><h2>B</h2><img src="two.png" alt="Two"></section>'

function broughtIn(text: string) {
  const bytes = new TextEncoder().encode(text)
  const parsed = parsePage(bytes)
  const reading = readParsed(parsed, bytes.length, 'index.html')
  const page: SitePage = { key: 'p1', file: 'index.html', source: 'a', title: '', ...proposeSetUp(reading, [], defaultRule) }
  const handOver = (as: SitePage) => new TextDecoder().decode(writePage(bytes, parsed, pageEdits(anInput(as, reading))).bytes)
  const at = (src: string) => text.indexOf(`<img`, text.lastIndexOf('<', text.indexOf(src)))
  return { version: { parsed, reading }, page, handOver, at }
}
const first = broughtIn(source)
const sized = (page: SitePage) => ({ ...page, pictures: [{ at: first.at('one.png'), width: 900, height: 600 }] })

it('writes them with a rule that leaves the height to the page, and reads them back', () => {
  const home = first.handOver(sized(first.page))
  expect(home).toMatch(/<img data-wb-sized width="900" height="600" src="one.png" alt="One">/)
  expect(home).toContain('<img src="two.png" alt="Two">')
  expect(home).toContain(SIZED_RULE)
  const again = broughtIn(home)
  expect(again.page.pictures).toEqual([{ at: again.at('one.png'), width: 900, height: 600 }])
  expect(again.handOver(again.page)).toBe(home)
})

it('removes them, and keeps the page’s own', () => {
  const { pictures, ...bare } = broughtIn(first.handOver(sized(first.page))).page
  expect(pictures).toHaveLength(1)
  const home = broughtIn(first.handOver(sized(first.page))).handOver(bare as SitePage)
  expect(home).toContain('<img src="one.png" alt="One">')
  expect(home).not.toContain('data-wb-sized')
  const own = broughtIn(source.replace('alt="Two"', 'alt="Two" width="30" height="20"'))
  expect(own.page.pictures).toBeUndefined()
  expect(own.handOver(own.page)).toContain('alt="Two" width="30" height="20"')
})

it.each([
  ['moved down by a text', source.replace('<h2>A', '<h2>More of A'), true],
  ['with another file', source.replace('one.png', 'other.png'), false],
  ['with a size of its own', source.replace('alt="One"', 'alt="One" width="9" height="6"'), false],
  ['as it was handed over', first.handOver(sized(first.page)), true],
])('keeps them in a new version, unless the file or the page changed: %s', (_, text, isKept) => {
  const next = broughtIn(text)
  const page = sized(first.page)
  const review = reviewRevision(page, first.version, next.version)
  const decisions = { sections: Object.fromEntries(review.rows.map((r) => [r.section, r.to?.at ?? null])), added: [] }
  const { revision } = revisePage(page, first.version, next.version, decisions, { source: 'b', title: '' }, defaultRule)
  expect(revision.pictures).toEqual(isKept ? [{ at: text.indexOf('<img'), width: 900, height: 600 }] : undefined)
})
