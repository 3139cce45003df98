import fc from 'fast-check'
import { CAPTION, placesOf } from './places.ts'

const aScreen = fc.record({ width: fc.integer({ min: 200, max: 3000 }), height: fc.integer({ min: 200, max: 3000 }) })
const screens = fc.array(aScreen, { minLength: 1, maxLength: 12 }).map((all) => all.map((s, i) => ({ key: `s${i}`, ...s })))
const room = fc.record({ width: fc.integer({ min: 320, max: 1600 }), height: fc.integer({ min: 400, max: 1200 }) })

it('fits every screen in the area without overlaps', () =>
  fc.assert(
    fc.property(room, screens, fc.nat(11), (room, screens, n) => {
      const shown = screens[n % screens.length]!.key
      const places = placesOf(room, screens, shown, true)
      expect([1, screens.length]).toContain(places.size)
      expect(places.has(shown)).toBe(true)
      const seen = screens.filter((s) => places.has(s.key))
      const boxes = seen.map((s) => {
        const { left, top, scale } = places.get(s.key)!
        return { left, top, right: left + s.width * scale, bottom: top + s.height * scale + (s.key === shown ? 0 : CAPTION) }
      })
      for (const [i, a] of boxes.entries()) {
        expect(a.left).toBeGreaterThanOrEqual(-0.01)
        expect(a.top).toBeGreaterThanOrEqual(-0.01)
        expect(a.right).toBeLessThanOrEqual(room.width + 0.01)
        expect(a.bottom).toBeLessThanOrEqual(room.height + 0.01)
        for (const b of boxes.slice(0, i))
          expect(a.right <= b.left + 0.01 || b.right <= a.left + 0.01 || a.bottom <= b.top + 0.01 || b.bottom <= a.top + 0.01).toBe(true)
      }
    }),
  ))

const five = [
  { key: 'laptop', width: 1280, height: 800 },
  { key: 'phone', width: 390, height: 844 },
  { key: 'tablet', width: 820, height: 1180 },
  { key: 'desk', width: 1920, height: 1080 },
  { key: 'landscape', width: 844, height: 390 },
]

it.each(five.map((s) => s.key))('leaves little of the area empty with %s in view', (shown) => {
  const room = { width: 646, height: 662 }
  const places = placesOf(room, five, shown, true)
  const drawn = five.reduce((sum, s) => sum + s.width * s.height * places.get(s.key)!.scale ** 2, 0)
  expect(drawn / (room.width * room.height)).toBeGreaterThan(0.55)
})

it('has only the one in view when the others are hidden', () =>
  expect([...placesOf({ width: 646, height: 662 }, five, 'desk', false).keys()]).toEqual(['desk']))
