import fc from 'fast-check'
import { travelTime } from './index.ts'

it('takes no time for a jump, the browser’s for smooth scrolling, at most 1.5 s', () => {
  expect(travelTime('jump', 4000)).toBe(0)
  expect(travelTime('smooth', 0)).toBe(0)
  // A frame of a sixtieth of a second for each root of a px.
  expect(travelTime('smooth', 3600)).toBeCloseTo(1000)
  expect([8100, 20000].map((px) => travelTime('smooth', px))).toEqual([1500, 1500])
})

it('takes its duration, or one that grows with the distance', () => {
  expect(travelTime({ easing: 'linear', ms: 400 }, 9000)).toBe(400)
  fc.assert(
    fc.property(fc.nat(20000), fc.nat(20000), (a, b) => {
      const motion = { easing: 'ease-out', ms: 200, most: 900 } as const
      const [near, far] = [Math.min(a, b), Math.max(a, b)].map((px) => travelTime(motion, px))
      expect(near).toBeGreaterThanOrEqual(200)
      expect(far).toBeLessThanOrEqual(900)
      expect(near).toBeLessThanOrEqual(far!)
    }),
  )
})
