import fc from 'fast-check'
import { landing, roomAtEnd, solveArrivals } from '../arrival/index.ts'
import type { Survey } from '../survey/index.ts'
import { aPage, aSection } from '../site/builder.ts'
import type { SitePage } from '../site/index.ts'
import { aHeader, aPart, aSurvey } from '../survey/builder.ts'
import { bellMap, bells, bestBellOffset, currentAt, safeBand } from './index.ts'

/** A page of sections, one under the other, of these heights in px. */
function made(heights: number[], viewport = 800, over: Partial<SitePage> = {}): { page: SitePage; survey: Survey } {
  const tops = heights.map((_, i) => heights.slice(0, i).reduce((a, b) => a + b, 0))
  const total = heights.reduce((a, b) => a + b, 0)
  const sections = heights.map((_, i) => aSection(i, { at: i, id: `s${i}`, toTop: i === 0 }))
  return {
    page: aPage({ sections, travel: { smooth: true, breathing: 20 }, highlight: { bellOffset: 60 }, ...over }),
    survey: aSurvey({
      height: viewport,
      pageHeight: total,
      maxScroll: Math.max(0, total - viewport),
      parts: tops.map((top, at) => aPart({ at, top, bottom: top + heights[at]! })),
      header: aHeader({ at: 0, height: 70, rest: 70, moved: 50 }),
    }),
  }
}
const heights = fc.array(fc.integer({ min: 20, max: 2500 }), { minLength: 1, maxLength: 12 })

describe('the current section', () => {
  it('is the last whose top has crossed the line', () => {
    const sorted = bells([0, 1000, 2000], 100, 5000)
    expect([0, 899, 900, 1899, 1900, 5000].map((s) => currentAt(sorted, s))).toEqual([0, 0, 1, 1, 2, 2])
  })
  it('gives sections near the page’s end a stretch of their own', () => {
    const sorted = bells([0, 1900, 1950, 2000], 100, 1200)
    expect(sorted.map((b) => b.bell)).toEqual([-100, 1080, 1120, 1160])
  })
  it('is the first on a page that doesn’t scroll', () => expect(currentAt(bells([0, 300, 500], 100, 0), 0)).toBe(0))
  it('is none before the first', () => expect(currentAt(bells([900, 2000], 100, 3000), 100)).toBe(-1))

  it('isn’t ours for script-built content', () => {
    const { page, survey } = made([1000, 2000])
    const targets = [{ id: 'late', top: 1500, bottom: 1900, movedTop: 1500 }]
    const map = bellMap(page, { ...survey, built: { menus: [], headings: [], targets } })
    expect(map.map((s) => s.section)).toEqual([page.sections[0]!.key, page.sections[1]!.key, null])
  })

  it('covers every position exactly once, with a stretch for every section and the last at the bottom', () =>
    fc.assert(
      fc.property(heights, (h) => {
        const { page, survey } = made(h)
        const map = bellMap(page, survey)
        expect(map[0]!.start).toBe(0)
        expect(map.at(-1)!.end).toBe(survey.maxScroll)
        map.slice(1).forEach((s, i) => expect(s.start).toBe(map[i]!.end))
        if (survey.maxScroll > 0) expect(map.at(-1)!.section).toBe(`s${h.length - 1}`)
      }),
    ))
})

describe('the best bell line', () => {
  it('lets every link that arrives light its item', () =>
    fc.assert(
      fc.property(heights, (h) => {
        const { page, survey } = made(h.map((x, i) => x + 200 + i * 0.37))
        const band = safeBand(page, [survey])
        fc.pre(band.low < band.high)
        const bellOffset = bestBellOffset(page, [survey])
        expect([bellOffset >= band.low, bellOffset < band.high]).toEqual([true, true])
        const best = { ...page, highlight: { bellOffset } }
        const map = bellMap(best, survey)
        const pulled = map.filter((s) => s.start > survey.maxScroll - 40 * h.length)
        for (const a of solveArrivals(best, survey)) {
          if (a.shortfall > 0 || page.sections.find((s) => s.key === a.section)!.toTop) continue
          const at = map.filter((s) => s.start <= a.land).at(-1)!
          // Those that the end pulls in may take the place of one that just reaches it; their own clicks are pinned.
          if (!pulled.includes(at)) expect(at.section).toBe(a.section)
        }
      }),
    ))
})

it('keeps the best bell line in a band narrower than a pixel', () => {
  // The second is less than a pixel high.
  const { page, survey } = made([900.3, 0.4, 900, 3000])
  const band = safeBand(page, [survey])
  expect(band.high - band.low).toBeLessThan(1)
  const best = bestBellOffset(page, [survey])
  expect([best >= band.low, best < band.high]).toEqual([true, true])
})

describe('arrivals', () => {
  it.each([
    [100.5, 1000, 1, 101],
    [100.49, 1000, 1, 100],
    [-20, 1000, 1, 0],
    [1200, 1000, 1, 1000],
    [100.3, 1000, 2, 100.5],
  ])('%d of at most %d at scale %d stops at %d', (wanted, most, scale, land) => expect(landing(wanted, most, scale)).toBe(land))

  it('lie within the page, with the header’s state on arrival', () =>
    fc.assert(
      fc.property(heights, (h) => {
        const { page, survey } = made(h)
        const arrivals = solveArrivals(page, survey)
        for (const a of arrivals) expect(a.land >= 0 && a.land <= survey.maxScroll).toBe(true)
        arrivals.forEach((a, i) => {
          if (i && a.shortfall === 0 && survey.parts[i]!.top > 70) expect(a.land).toBe(survey.parts[i]!.top - 50 - 20)
        })
        expect(roomAtEnd(arrivals)).toBe(Math.max(...arrivals.map((a) => a.shortfall)))
      }),
    ))

  it('count the header as tall where it still is', () => {
    const { page, survey } = made([300, 2000, 2000])
    expect(solveArrivals(page, { ...survey, near: [{ at: 1, cover: 70 }] })[1]!.land).toBe(300 - 70 - 20)
  })
  it('name the headings that the header covers', () => {
    const { page, survey } = made([300, 2000], 800, { travel: { smooth: true, breathing: -100 } })
    survey.parts[1]!.heading = { top: 310, bottom: 340 }
    expect(solveArrivals(page, survey)[1]!.heading).toBe('covered')
  })
})
