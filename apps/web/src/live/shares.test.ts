import fc from 'fast-check'
import { MOST_FRAMES, sharesOf } from './shares.ts'

const some = fc.uniqueArray(fc.integer({ min: 0, max: 15 }), { minLength: 1 }).map((ns) => ns.map((n) => ({ key: `s${n}` })))
const held = (shares: { key: string }[][]) => new Map(shares.flatMap((share, n) => share.map((s) => [s.key, n])))

it('gives each screen one frame, which stays while others come and go', () =>
  fc.assert(
    fc.property(some, some, (before, after) => {
      const was = held(sharesOf(before, new Map()))
      const now = sharesOf(after, was)
      expect(
        now
          .flat()
          .map((s) => s.key)
          .sort(),
      ).toEqual(after.map((s) => s.key).sort())
      for (const [n, share] of now.entries()) for (const { key } of share) expect(was.get(key) ?? n).toBe(n)
    }),
  ))

it('gives new screens to the frames with fewest', () =>
  fc.assert(
    fc.property(some, (screens) => {
      const sizes = sharesOf(screens, new Map()).map((share) => share.length)
      expect(sizes).toHaveLength(MOST_FRAMES)
      expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1)
    }),
  ))
