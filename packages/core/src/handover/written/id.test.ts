/** Empty targets that a page moved up: told of, removed, and what that changes in what is written. */
import { openFindings } from '../../findings/index.ts'
import { defaultRule } from '../../naming/index.ts'
import { parsePage, readParsed } from '../../page/index.ts'
import { proposeSetUp } from '../../proposal/index.ts'
import { revisePage, reviewRevision } from '../../revision/index.ts'
import { aSite } from '../../site/builder.ts'
import { apply, type SitePage } from '../../site/index.ts'
import { aPart, aSurvey } from '../../survey/builder.ts'
import { anInput } from '../builder.ts'
import { pageEdits, writePage } from '../index.ts'

const source =
  '<!doctype html><title>T</title><nav><a href="#a">A</a> <a href="#b">B</a> <a href="#c">C</a></nav>' +
  '<span id="a"></span><div class="x"><h2>A</h2><p>Words</p></div><a name="b"></a><div class="x"><h2>B</h2><p>Words</p></div>' +
  '<section id="c"><h2>C</h2><p>Words</p></section>'

function broughtIn(text: string) {
  const bytes = new TextEncoder().encode(text)
  const parsed = parsePage(bytes)
  const reading = readParsed(parsed, bytes.length, 'index.html')
  const page: SitePage = { key: 'p1', file: 'index.html', source: 'a', title: '', ...proposeSetUp(reading, [], defaultRule) }
  const shift = (at: number) => (text.startsWith('<section', at) ? 0 : 90)
  const surveys = {
    laptop: aSurvey({ parts: page.sections.map(({ at }, i) => aPart({ at, top: i * 500, bottom: i * 500 + 400, shift: shift(at) })) }),
  }
  const input = anInput(page, reading, { surveys })
  const handOver = (as: SitePage) => {
    const edits = pageEdits({ ...input, page: as, pages: [as] })
    return { html: new TextDecoder().decode(writePage(bytes, parsed, edits).bytes), edits }
  }
  const found = (as: SitePage, styles: string[] = []) =>
    openFindings(
      {
        site: aSite(as),
        page: as,
        reading,
        undeclared: new Set(),
        known: new Set(),
        named: { styles, scripts: [] },
        surveys,
        tried: {},
      },
      [],
    ).find((f) => f.code === 'target-shifted')
  return { version: { parsed, reading }, page, handOver, found }
}
const first = broughtIn(source)
const removed = apply(aSite(first.page), first.found(first.page)!.fix!.command)

it('reports those whose IDs no style uses, and not with the page’s own offsets', () => {
  expect(first.found(first.page)!.fix!.label).toBe('Remove the 2 shifted targets')
  expect(first.found(first.page, ['a'])!.fix!.label).toBe('Remove the shifted target')
  expect(first.found({ ...first.page, travel: { ...first.page.travel, pageOffsets: true } })).toBeUndefined()
  expect(first.found(removed.site.pages[0]!)).toBeUndefined()
})

it('gives their IDs or names to their blocks, which then have no offset', () => {
  const before = first.handOver(first.page).html
  expect(before).toMatch(/scroll-margin-top: -90px/)
  expect(before).toMatch(/"shifted": \[\s+"b"\s+\]/)
  const { html } = first.handOver(removed.site.pages[0]!)
  expect(html).toContain('<span></span><div id="a" class="x">')
  expect(html).toContain('<a></a><div id="b" class="x">')
  expect(html).not.toMatch(/scroll-margin-top: -90px|"shifted"/)
})

it('can be undone', () => {
  const back = apply(removed.site, removed.inverse).site.pages[0]!
  expect(back).toEqual(first.page)
  expect(first.handOver(back).html).toBe(first.handOver(first.page).html)
})

it('is unchanged in a new version with the targets, and the page’s own after a handover', () => {
  const page = removed.site.pages[0]!
  const next = broughtIn(source.replace('<title>T', '<title>A longer title'))
  const { rows } = reviewRevision(page, first.version, next.version)
  const sections = Object.fromEntries(rows.map((r) => [r.section, r.to?.at ?? null]))
  const command = revisePage(page, first.version, next.version, { sections, added: [] }, { source: 'b', title: 'T' }, defaultRule)
  expect(next.handOver({ ...page, ...command.revision }).html).toContain('<span></span><div id="a" class="x">')
  const again = broughtIn(first.handOver(page).html)
  expect(again.page.sections.map(({ id, sourceId, block }) => [id, sourceId, block])).toEqual([
    ['a', 'a', undefined],
    ['b', 'b', undefined],
    ['c', 'c', undefined],
  ])
})
