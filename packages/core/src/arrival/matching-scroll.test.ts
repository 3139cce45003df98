import fc from 'fast-check'
import { matchingScroll, type Travelled } from './index.ts'

const travelled = (lands: readonly number[], maxScroll: number): Travelled => ({
  maxScroll,
  arrivals: lands.map((land, i) => ({
    section: `s${i}`,
    land: Math.min(land, maxScroll),
    top: 0,
    gap: 0,
    gapFromAbove: 0,
    place: 0,
    shortfall: 0,
    heading: 'clear',
    hidden: 0,
    movesPage: true,
  })),
})

const wide = travelled([0, 800, 1500, 2300], 2400)
const narrow = travelled([0, 1400, 4000, 6000], 6100)

it.each([
  ['the top', 0, 0],
  ['where a link arrives', 1500, 4000],
  ['halfway between two', 1150, 2700],
  ['the end', 2400, 6100],
])('stands at the same place: %s', (_, at, there) => expect(matchingScroll(at, wide, narrow)).toBe(there))

it('ignores sections without a box on one of them', () => {
  const without = { ...narrow, arrivals: narrow.arrivals.map((a) => (a.section === 's2' ? { ...a, movesPage: false } : a)) }
  expect(matchingScroll(1550, wide, without)).toBe(1400 + (750 / 1500) * 4600)
})

it('stays at the top of a page that doesn’t scroll, and leaves the other there', () => {
  expect(matchingScroll(1500, wide, travelled([0, 0, 0, 0], 0))).toBe(0)
  expect(matchingScroll(0, travelled([0, 0, 0, 0], 0), narrow)).toBe(0)
})

const aPage = fc
  .tuple(fc.array(fc.integer({ min: 0, max: 5000 }), { minLength: 4, maxLength: 4 }), fc.integer({ min: 0, max: 5000 }))
  .map(([lands, maxScroll]) => travelled(lands, maxScroll))

it('stays within the page, and never goes back while scrolling down', () =>
  fc.assert(
    fc.property(aPage, aPage, fc.array(fc.integer({ min: 0, max: 5000 })), (from, to, at) => {
      const seen = [...at].sort((a, b) => a - b).map((y) => matchingScroll(Math.min(y, from.maxScroll), from, to))
      return seen.every((y, i) => y >= 0 && y <= to.maxScroll && (i === 0 || y >= seen[i - 1]! - 1e-9))
    }),
  ))

it('is the same position on the same screen', () =>
  fc.assert(
    fc.property(aPage, fc.integer({ min: 0, max: 5000 }), (page, at) => {
      const y = Math.min(at, page.maxScroll)
      return Math.abs(matchingScroll(y, page, page) - y) < 1e-6
    }),
  ))
