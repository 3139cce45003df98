/** Heights of what is laid out late: decided by the one press, written by screen, read again, and taken away. */
import { defaultRule } from '../../naming/index.ts'
import { parsePage, readParsed } from '../../page/index.ts'
import { proposeSetUp } from '../../proposal/index.ts'
import { openFindings } from '../../findings/index.ts'
import { aSite } from '../../site/builder.ts'
import { apply, type SitePage } from '../../site/index.ts'
import { aPart, aSurvey } from '../../survey/builder.ts'
import { wrongEstimates, type Survey } from '../../survey/index.ts'
import { anInput } from '../builder.ts'
import { pageEdits, writePage } from '../index.ts'

const source =
  '<!doctype html><title>T</title><nav><a href="#a">A</a> <a href="#b">B</a></nav><section id="a"><h2>A</h2></section><section id="b"><h2>B</h2></section>'

function broughtIn(text: string, said = 300) {
  const bytes = new TextEncoder().encode(text)
  const parsed = parsePage(bytes)
  const reading = readParsed(parsed, bytes.length, 'index.html')
  const [a, b] = ['a', 'b'].map((id) => text.lastIndexOf('<section', text.indexOf(`id="${id}"`)))
  const on = (screen: string, width: number, heights: [number, number]): Survey =>
    aSurvey({
      screen,
      width,
      parts: [a!, b!].map((at, n) => aPart({ at, top: 100 + n * 900, bottom: 1000 + n * 900 })),
      estimates: [a!, b!].map((at, n) => ({ at, height: heights[n]!, said })),
    })
  const surveys = { laptop: on('laptop', 1280, [812.5, 300]), phone: on('phone', 390, [1600, 300.5]) }
  const page: SitePage = {
    key: 'p1',
    file: 'index.html',
    source: 'a',
    title: '',
    ...proposeSetUp(reading, Object.values(surveys), defaultRule),
  }
  const handOver = (as: SitePage) => new TextDecoder().decode(writePage(bytes, parsed, pageEdits(anInput(as, reading, { surveys }))).bytes)
  const found = (as: SitePage) =>
    openFindings(
      {
        site: aSite(as),
        page: as,
        reading,
        undeclared: new Set(),
        known: new Set(),
        named: { styles: [], scripts: [] },
        surveys,
        tried: {},
      },
      [],
    ).filter((f) => f.code === 'estimate-wrong')
  return { page, surveys, handOver, found, a: a! }
}
const first = broughtIn(source)

it('writes wrong estimates by screen, and reads them back', () => {
  expect(wrongEstimates(Object.values(first.surveys))).toEqual([first.a])
  expect(first.page.travel.estimates).toBe(true)
  const home = first.handOver(first.page)
  expect(home).toMatch(/<section data-wb-estimate="1" id="a">[\s\S]*<section id="b">/)
  expect(home).toContain('contain-intrinsic-height: auto 812.5px !important;')
  expect(home).toContain('contain-intrinsic-height: auto 1600px !important;')
  const again = broughtIn(home)
  expect(again.page.travel.estimates).toBe(true)
  expect(again.handOver(again.page)).toBe(home)
})

it('leaves it to the page and reports it, and is undone by a press', () => {
  const own = apply(aSite(first.page), { type: 'travel/estimates', page: 'p1' }).site.pages[0]!
  expect(first.handOver(own)).not.toMatch(/data-wb-estimate|contain-intrinsic/)
  const again = broughtIn(first.handOver(first.page))
  const left = apply(aSite(again.page), { type: 'travel/estimates', page: 'p1' }).site.pages[0]!
  expect(again.handOver(left)).not.toMatch(/<section data-wb-estimate|contain-intrinsic/)
  const [told] = first.found(own)
  expect(told).toMatchObject({ where: { at: first.a }, fix: { label: 'Set the height of 1 part' } })
  expect(first.found(apply(aSite(own), told!.fix!.command).site.pages[0]!)).toEqual([])
})

it('writes nothing if the page’s estimate is right', () => {
  const right = broughtIn(source, 300)
  const surveys = [aSurvey({ estimates: [{ at: right.a, height: 300.4, said: 300 }] })]
  expect(wrongEstimates(surveys)).toEqual([])
})
