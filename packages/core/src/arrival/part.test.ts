import { bellMap, currentAt, bells } from '../highlight/index.ts'
import { aPage, aSection } from '../site/builder.ts'
import type { Section, SitePage } from '../site/index.ts'
import { aHeader, aPart, aSurvey } from '../survey/builder.ts'
import { partsByAt, partOf, solveArrivals } from './index.ts'

const section = (key: string, at: number, shift: number | null): Section =>
  aSection(0, { key, id: key, title: key, at, point: shift === null ? null : { shift } })
const survey = aSurvey({
  pageHeight: 5000,
  maxScroll: 4200,
  parts: [0, 1000, 2000].map((top, i) =>
    aPart({ at: i * 10, top, bottom: top + 1000, movedTop: top - 20, margin: 7, heading: { top: top + 40, bottom: top + 80 } }),
  ),
  header: aHeader({ moved: 60 }),
})
const page = (...sections: Section[]): SitePage =>
  aPage({ sections, travel: { smooth: true, breathing: 20 }, highlight: { bellOffset: 30 } })

describe('a point', () => {
  it('has no size, and lies at its shift from its element’s top', () =>
    expect(partOf(section('p', 10, -150), partsByAt(survey))).toMatchObject({
      top: 850,
      bottom: 850,
      movedTop: 830,
      margin: 0,
      hasBox: true,
    }))
  it('has no place if its element wasn’t measured', () => expect(partOf(section('p', 99, 0), partsByAt(survey))).toBeNull())
  it('is where its link arrives, under header and breathing space', () => {
    const [element, point] = solveArrivals(page(section('e', 10, null), section('p', 10, 200)), survey)
    expect([element!.land, point!.land]).toEqual([980 - 60 - 20, 980 + 200 - 60 - 20])
  })
  it('rings when it crosses the line, whatever element is around it', () => {
    const map = bellMap(page(section('e', 10, null), section('p', 10, 200), section('f', 20, null)), survey)
    expect(map.map((s) => [s.section, s.start])).toEqual([
      [null, 0],
      ['e', 890],
      ['p', 1090],
      ['f', 1890],
    ])
  })
  it('comes before the element below it, by position and not by list order', () => {
    const sorted = bells([1000, 850], 90, 4200)
    expect(sorted.map((b) => b.index)).toEqual([1, 0])
    expect(currentAt(sorted, 800)).toBe(1)
  })
})

describe('a target that the page moved up from its block', () => {
  const lifted = aSurvey({
    pageHeight: 5000,
    maxScroll: 4200,
    padding: 10,
    parts: [aPart({ at: 10, top: 920, bottom: 920, margin: 5, shift: 80 })],
    header: aHeader({ moved: 60 }),
  })
  it('starts where its block does', () => {
    expect(partOf(section('e', 10, null), partsByAt(lifted))).toMatchObject({ top: 1000, movedTop: 1000 })
    expect(solveArrivals(page(section('e', 10, null)), lifted)[0]).toMatchObject({ land: 1000 - 60 - 20, gap: 20 })
  })
  it('is the goal with the page’s own offsets', () => {
    const own = { ...page(section('e', 10, null)), travel: { smooth: true, breathing: 20, pageOffsets: true as const } }
    expect(solveArrivals(own, lifted)[0]).toMatchObject({ land: 920 - 10 - 5, gap: 1000 - 905 - 60 })
  })
})
