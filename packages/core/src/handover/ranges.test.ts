import fc from 'fast-check'
import type { Screen } from '../site/index.ts'
import { aSurvey } from '../survey/builder.ts'
import { mediaQuery } from './viewports.ts'
import { forScreens } from './written/css.ts'
import { byDecisions, from, joined, only, rangesOf, saidAnew } from './ranges.ts'

const screen = (width: number, height: number): Screen => ({ key: `${width}x${height}`, name: '', width, height, touch: false })
const usual = [screen(390, 844), screen(820, 1180), screen(1280, 800), screen(1920, 1080), screen(844, 390)]

const queryOf = (...range: Parameters<typeof only>) => mediaQuery(only(...range))

/** As a browser takes a media query, of what stands in ours. */
const matches = (text: string | null, width: number, height: number): boolean =>
  text === '' ||
  !!text?.split(', ').some((one) =>
    one.split(' and ').every((part) => {
      const [, name, value] = /^\(([\w-]+): ([\w.]+)\)$/.exec(part)!
      const bound = parseFloat(value!)
      if (name === 'orientation') return (value === 'landscape') === width > height
      const of = name!.endsWith('width') ? width : height
      return name!.startsWith('max') ? of <= bound : of >= bound
    }),
  )
const sizes = fc.tuple(fc.integer({ min: 200, max: 2600 }), fc.integer({ min: 200, max: 1600 }))
const anyScreens = fc.uniqueArray(sizes, { minLength: 1, maxLength: 12, selector: String }).map((all) => all.map(([w, h]) => screen(w, h)))

it('gives the usual ranges for two screens', () => {
  const [wide, narrow] = rangesOf([screen(390, 844), screen(1280, 800)])
  expect([from(wide!), queryOf(wide!), from(narrow!), queryOf(narrow!)]).toEqual([
    '',
    '(min-width: 835.02px)',
    '(max-width: 835px)',
    '(max-width: 835px)',
  ])
})

it('gives a landscape phone its own range, and a tablet of its width the tablet’s', () => {
  const goesBy = (width: number, height: number) => rangesOf(usual).find((r) => matches(queryOf(r), width, height))!.screen.key
  expect([goesBy(844, 390), goesBy(834, 1194), goesBy(932, 430), goesBy(390, 420), goesBy(1280, 700)]).toEqual([
    '844x390',
    '820x1180',
    '844x390',
    '390x844',
    '1280x800',
  ])
})

it('gives every screen its own range, and every viewport one', () =>
  fc.assert(
    fc.property(anyScreens, sizes, (screens, [width, height]) => {
      const ranges = rangesOf(screens)
      const by = (w: number, h: number) => ranges.filter((r) => matches(queryOf(r), w, h)).map((r) => r.screen.key)
      for (const s of screens) expect(by(s.width, s.height)).toEqual([s.key])
      expect(by(width, height)).toHaveLength(1)
      // The last that holds is the one that holds alone.
      expect(ranges.findLast((r) => matches(from(r), width, height))!.screen.key).toBe(by(width, height)[0])
    }),
  ))

it('gives larger text the range of its size’s screen', () =>
  fc.assert(
    fc.property(anyScreens, sizes, fc.integer({ min: 101, max: 200 }), (screens, [width, height], text) => {
      const larger = { ...screen(width, height), key: 'larger', text }
      const all = [larger, ...screens]
      expect(rangesOf(all)).toEqual(rangesOf(screens))
      const measured = Object.fromEntries(all.map(({ key, width, height }) => [key, aSurvey({ screen: key, width, height })]))
      const said = byDecisions(measured, all)
      const by = rangesOf(screens).find((r) => matches(queryOf(r), width, height))!.screen.key
      expect(said).toEqual({ ...measured, larger: { ...measured['larger'], screen: by } })
      // What was computed of them stands as long as nothing changed.
      expect(byDecisions(measured, all)['larger']).toBe(said['larger'])
    }),
  ))

it('limits a range in height in as few words as can be', () => {
  const [wide, , , low] = rangesOf([screen(1280, 800), screen(820, 1180), screen(390, 844), screen(844, 390)])
  expect([
    queryOf(wide!, { over: 331 }),
    queryOf(wide!, { over: 600 }),
    queryOf(wide!, { upTo: 300 }),
    queryOf(low!, { over: 600 }),
  ]).toEqual([
    // Portrait viewports of that width are higher than that.
    '(min-width: 1050.02px) and (min-height: 595.02px)',
    '(min-width: 1050.02px) and (min-height: 600.02px)',
    null,
    null,
  ])
  fc.assert(
    fc.property(anyScreens, sizes, fc.integer({ min: 200, max: 1600 }), (screens, [w, h], limit) => {
      for (const range of rangesOf(screens)) {
        const isIn = matches(queryOf(range), w, h)
        expect(matches(queryOf(range, { over: limit }), w, h)).toBe(isIn && h > limit)
        expect(matches(queryOf(range, { upTo: limit }), w, h)).toBe(isIn && h <= limit)
      }
    }),
  )
})

it('writes one block for each text, for the ranges that it is for', () => {
  const texts = fc.array(fc.constantFrom('a', 'b', null), { minLength: 12, maxLength: 12 })
  const limits = fc.array(fc.constantFrom(0, 500, 900), { minLength: 12, maxLength: 12 })
  fc.assert(
    fc.property(anyScreens, texts, limits, sizes, (screens, texts, px, [w, h]) => {
      const ranges = rangesOf(screens)
      const i = ranges.findIndex((r) => matches(queryOf(r), w, h))
      const blocks = forScreens(ranges, texts.slice(0, ranges.length), { is: 'upTo', px }).map((block) => {
        const [, query = '', text = block] = /^@media (.*) {\n {2}(.)\n}$/.exec(block) ?? []
        return { query, text }
      })
      expect(new Set(blocks.map((b) => b.text)).size).toBe(blocks.length)
      const meant = texts[i] && (!px[i] || h <= px[i]) ? [texts[i]] : []
      expect(blocks.filter((b) => matches(b.query, w, h)).map((b) => b.text)).toEqual(meant)
    }),
  )
})

it('writes a figure again when it differs, and never a wrong one', () =>
  fc.assert(
    fc.property(
      anyScreens,
      fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 12, maxLength: 12 }),
      sizes,
      (screens, figures, [w, h]) => {
        const ranges = rangesOf(screens)
        const meant = figures[ranges.findIndex((r) => matches(queryOf(r), w, h))]
        expect(saidAnew(ranges, figures.slice(0, ranges.length)).findLast(({ range }) => matches(from(range), w, h))!.figure).toBe(meant)
        expect(
          joined(ranges, figures.slice(0, ranges.length))
            .filter(({ range }) => matches(queryOf(range), w, h))
            .map((j) => j.figure),
        ).toEqual([meant])
      },
    ),
  ))
