/** Offsets that are found hold on every screen at once. */
import fc from 'fast-check'
import { aPage, aSection } from '../site/builder.ts'
import type { SitePage } from '../site/index.ts'
import { aHeader, aPart, aSurvey } from '../survey/builder.ts'
import type { Survey } from '../survey/index.ts'
import { leastAdjust, leastBreathing, solveArrivals } from './index.ts'

/** Four sections of 900 px, the first below the header; their headings begin up to 80 px below their tops. */
const aScreen = fc.record({
  header: fc.integer({ min: 0, max: 120 }),
  headings: fc.array(fc.integer({ min: 0, max: 80 }), { minLength: 4, maxLength: 4 }),
})
const screens = fc.array(aScreen, { minLength: 1, maxLength: 12 }).map((all) =>
  all.map(({ header, headings }, n): Survey => {
    const parts = headings.map((below, i) => {
      const top = 200 + i * 900
      return aPart({ at: (i + 1) * 10, top, bottom: top + 900, heading: { top: top + below, bottom: top + below + 30 } })
    })
    return aSurvey({
      screen: `s${n}`,
      parts,
      maxScroll: 6000,
      pageHeight: 6800,
      header: aHeader({ rest: header, moved: header, height: header }),
    })
  }),
)
const sections = [1, 2, 3, 4].map((n) => aSection(n))
const pageWith = (travel: Partial<SitePage['travel']>): SitePage => aPage({ sections, travel: { smooth: true, breathing: 0, ...travel } })
const hidden = (page: SitePage, surveys: readonly Survey[]): number =>
  surveys.flatMap((s) => solveArrivals(page, s)).filter((a) => a.heading === 'covered' || a.heading === 'cut').length

it('the smallest breathing space covers no heading on any screen, and less would', () =>
  fc.assert(
    fc.property(screens, (surveys) => {
      const least = leastBreathing(pageWith({}), surveys)
      expect(hidden(pageWith({ breathing: least }), surveys)).toBe(0)
      expect(hidden(pageWith({ breathing: least - 1 }), surveys)).toBeGreaterThan(0)
    }),
  ))

it('each screen’s smallest does so there, whatever the others have', () =>
  fc.assert(
    fc.property(screens, (surveys) => {
      const breathes = surveys.map((s) => ({ screen: s.screen, px: leastBreathing(pageWith({}), [s]) }))
      expect(hidden(pageWith({ breathing: -400, breathes }), surveys)).toBe(0)
    }),
  ))

it('one that fills the window starts at the viewport’s top, whatever covers it', () =>
  fc.assert(
    fc.property(screens, fc.nat(3), fc.integer({ min: -40, max: 200 }), (surveys, n, breathing) => {
      const filled = sections.map((s, i) => (i === n ? { ...s, adjust: { by: 'fills' as const, off: ['s1'] } } : s))
      const page = { ...pageWith({ breathing }), sections: filled }
      for (const survey of surveys) {
        const [own, plain] = [page, pageWith({ breathing })].map((p) => solveArrivals(p, survey)[n]!)
        expect(own!.top).toBe(survey.screen === 's1' ? plain!.top : 0)
      }
      // What it does is no reason for more room above the others.
      expect(leastBreathing(page, surveys)).toBeLessThanOrEqual(leastBreathing(pageWith({ breathing }), surveys))
    }),
  ))

it('a section’s smallest offset does so, in any order of screens', () =>
  fc.assert(
    fc.property(screens, fc.nat(3), (surveys, n) => {
      const page = pageWith({ breathing: 24, breathes: [{ screen: 's0', px: 8 }] })
      const by = leastAdjust(page, sections[n]!, surveys)
      const own = { ...page, sections: sections.map((s, i) => (i === n ? { ...s, adjust: { by } } : s)) }
      expect(hidden(own, surveys)).toBe(0)
      const turned = [...surveys].reverse()
      expect(leastAdjust(page, sections[n]!, turned)).toBe(by)
      expect(leastBreathing(page, turned)).toBe(leastBreathing(page, surveys))
    }),
  ))
