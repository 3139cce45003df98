import fc from 'fast-check'
import { aPage, aSection } from '../site/builder.ts'
import { aPart, aSurvey } from '../survey/builder.ts'
import type { EndSpace, SitePage } from '../site/index.ts'
import type { Survey } from '../survey/index.ts'
import { roomAtEnd, endSpaceFor, endSpaceOn, solveArrivals } from './index.ts'

const heights = fc.array(fc.integer({ min: 60, max: 900 }), { minLength: 1, maxLength: 6 })
const screens = fc.uniqueArray(fc.integer({ min: 400, max: 1400 }), { minLength: 1, maxLength: 12 })
const PADDING = 20

const page = (count: number, over: Partial<SitePage> = {}): SitePage =>
  aPage({ sections: Array.from({ length: count }, (_, i) => aSection(i + 1)), travel: { smooth: true, breathing: 24 }, ...over })

/** A page of these sections one below the other, with so much more at its end, on screens of these heights. */
function surveysOf(sections: readonly number[], screens: readonly number[], more: (height: number) => number = () => 0): Survey[] {
  return screens.map((height) => {
    let top = 0
    const parts = sections.map((h, i) => {
      const room = i === sections.length - 1 ? more(height) : 0
      const part = aPart({ at: aSection(i + 1).at, top, bottom: top + h + room, foot: PADDING + room })
      top = part.bottom
      return part
    })
    const page = { pageHeight: Math.max(top, height), ownHeight: top, maxScroll: Math.max(0, top - height) }
    return aSurvey({ screen: `s${height}`, height, parts, ...page })
  })
}

const short = (of: SitePage, surveys: readonly Survey[]) => surveys.map((s) => roomAtEnd(solveArrivals(of, s)))

it('is enough on every screen, and no more on any', () =>
  fc.assert(
    fc.property(heights, screens, fc.constantFrom<EndSpace['as']>('padding', 'height'), (sections, sizes, as) => {
      const before = surveysOf(sections, sizes)
      const room = endSpaceFor(page(sections.length), before, as)
      const missing = short(page(sections.length), before)
      if (!room) return expect(missing.every((n) => n < 1)).toBe(true)
      const left = (height: number) => Math.max(0, height - room.on.find((o) => o.screen === `s${height}`)!.fits)
      const after = surveysOf(sections, sizes, left)
      const done = page(sections.length, { endSpace: room })
      expect(short(done, after).every((n) => n < 1)).toBe(true)
      // Where it does not fill the screen, that is to be filled first.
      const whole = sections.reduce((sum, h) => sum + h, 0)
      sizes.forEach((height, i) => expect(left(height)).toBeLessThanOrEqual(Math.ceil(missing[i]!) + 1 + Math.max(0, height - whole)))
      expect(after.map((s) => endSpaceOn(done, s))).toEqual(sizes.map(left))
    }),
  ))

it('asked again for more, counts its earlier space as its own', () => {
  const sections = [900, 200]
  const first = endSpaceFor(page(2), surveysOf(sections, [800]), 'padding')!
  const after = surveysOf(sections, [800], (height) => height - first.on[0]!.fits)
  // More breathing space, and so less room: nothing is missing then, and with less there is.
  const more = page(2, { endSpace: first, travel: { smooth: true, breathing: -16 } })
  const second = endSpaceFor(more, after, 'padding')!
  expect(second.on[0]).toEqual({ screen: 's800', fits: first.on[0]!.fits - 40, base: PADDING })
  expect(endSpaceFor(more, after, 'height')!.on[0]!.base).toBe(200)
})

it('is enough for larger text too, which follows the screen of its size', () => {
  const [usual, larger] = [surveysOf([900, 200], [800]), surveysOf([1300, 340], [800])]
  for (const as of ['padding', 'height'] as const) {
    const room = endSpaceFor(page(2), [...larger, ...usual], as)!
    expect(room).toEqual(endSpaceFor(page(2), [...usual, ...larger], as))
    expect(room.on).toHaveLength(1)
    for (const [of, sections] of [
      [usual, [900, 200]],
      [larger, [1300, 340]],
    ] as const) {
      const own = as === 'padding' ? PADDING : sections[1]!
      const left = Math.max(0, room.on[0]!.base + Math.max(0, 800 - room.on[0]!.fits) - own)
      expect([
        short(page(2), of)[0]! >= 1,
        short(
          page(2, { endSpace: room }),
          surveysOf(sections, [800], () => left),
        )[0]! < 1,
      ]).toEqual([true, true])
    }
  }
})

it('does not depend on the order of the screens', () =>
  fc.assert(
    fc.property(heights, screens, (sections, sizes) => {
      const [one, other] = [sizes, [...sizes].reverse()].map((order) =>
        endSpaceFor(page(sections.length), surveysOf(sections, order), 'padding'),
      )
      const sorted = (room: EndSpace | null | undefined) => room?.on.toSorted((a, b) => (a.screen < b.screen ? -1 : 1))
      expect(sorted(one)).toEqual(sorted(other))
    }),
  ))

it('is never held by points or elements without a box', () => {
  const [survey] = surveysOf([900, 200], [800])
  const point = aSection(2, { point: { shift: 0 } })
  expect(endSpaceFor(aPage({ sections: [aSection(1), point] }), [survey!], 'padding')!.section).toBe('s1')
  const bare = { ...survey!, parts: survey!.parts.map((p) => ({ ...p, hasBox: false })) }
  expect(endSpaceFor(page(2), [bare], 'padding')).toBeNull()
})
