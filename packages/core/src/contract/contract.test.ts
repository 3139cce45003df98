import fc from 'fast-check'
import {
  coversEdge,
  EASINGS,
  indicated,
  motionText,
  readMotion,
  readSettings,
  roleOf,
  timeOf,
  type Motion,
  type Piecelike,
} from './index.ts'

const piece = (tag: string, attributes: Record<string, string>, text = '', children: string[] = []): Piecelike => ({
  tag,
  attributes: new Map(Object.entries(attributes)),
  text,
  children,
})
const settings = JSON.stringify({
  sections: ['a'],
  toTop: [],
  breathing: 24,
  bellOffset: 24,
  former: [
    { was: '1', now: 'a' },
    { was: '0', now: 'a' },
  ],
  points: [],
})

describe('a piece of ours', () => {
  it('is recognised by element, attributes and content', () => {
    expect(roleOf(piece('script', { type: 'application/json', 'data-wb': 'settings' }, settings))).toBe('settings')
    expect(roleOf(piece('style', { 'data-wb': 'style' }, '\nhtml:root { --wb-header: 0px; }'))).toBe('style')
    expect(roleOf(piece('nav', { 'data-wb': 'menu', 'data-wb-menu': '', 'aria-label': 'Bereiche' }, '', ['a', 'a']))).toBe('menu')
    expect(roleOf(piece('meta', { 'data-wb': 'anchor', name: 'way-bell', content: 'anchor', id: 'x' }))).toBe('anchor')
  })

  it.each([
    ['another value', piece('section', { 'data-wb': 'intro' })],
    ['no value of its own', piece('section', { 'data-wb': 'toString' })],
    ['another element', piece('div', { 'data-wb': 'style' }, '--wb-header:')],
    ['other content', piece('script', { type: 'application/json', 'data-wb': 'settings' }, '{"volume":3}')],
    ['no content', piece('style', { 'data-wb': 'style' })],
    ['content of a menu of the page’s own', piece('nav', { 'data-wb': 'menu', 'data-wb-menu': '' }, '', ['ul'])],
    ['a lack of our other attributes', piece('nav', { 'data-wb': 'menu' }, '', ['a'])],
  ])('isn’t one with %s', (_, el) => expect(roleOf(el)).toBeNull())
})

it('reads former IDs in order, numeric ones too, and as earlier handovers wrote them', () => {
  expect(readSettings(settings)!.former).toEqual([
    { was: '1', now: 'a' },
    { was: '0', now: 'a' },
  ])
  const earlier = { sections: ['a', 'p'], toTop: [], breathing: 0, bellOffset: 0, former: { was: 'a' }, points: { p: [2, -8] } }
  expect(readSettings(JSON.stringify(earlier))).toMatchObject({
    former: [{ was: 'was', now: 'a' }],
    points: [{ id: 'p', anchor: 2, below: -8 }],
  })
})

describe('a motion', () => {
  it.each<Motion>(['jump', 'smooth', { easing: 'linear', ms: 100 }, { easing: 'ease-in-out', ms: 200, most: 2000 }])(
    'reads what it writes: %j',
    (motion) => expect(readMotion(motionText(motion))).toEqual(motion),
  )
  it.each([
    '',
    'slow',
    'timed',
    'timed bounce 300',
    'timed linear 50',
    'timed linear x',
    'timed linear 300.5',
    'timed linear 300 9000',
    'timed linear 300 x',
  ])('reads no other text: “%s”', (text) => expect(readMotion(text)).toBeNull())
  it('takes longer for a longer distance, within its limits', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 100, max: 2000 }),
        fc.integer({ min: 0, max: 1900 }),
        fc.nat(30000),
        fc.nat(30000),
        (ms, more, a, b) => {
          const most = Math.min(2000, ms + more)
          const [near, far] = [Math.min(a, b), Math.max(a, b)].map((d) => timeOf({ easing: 'linear', ms, most }, d))
          expect(near).toBeGreaterThanOrEqual(ms)
          expect(far).toBeGreaterThanOrEqual(near!)
          expect(far).toBeLessThanOrEqual(most)
        },
      ),
    ))
  it.each(Object.entries(EASINGS))('starts at its start, ends at its goal, and never goes back: %s', (_, ease) => {
    const way = Array.from({ length: 101 }, (_, i) => ease(i / 100))
    expect([way[0], way[100]]).toEqual([0, 1])
    expect(way).toEqual([...way].sort((a, b) => a - b))
  })
})

it('looks for raw text before decoded text, and the top last', () => {
  const on =
    (...names: string[]) =>
    (name: string) =>
      names.find((n) => n === name)
  expect(indicated('a%20b', on('a b', 'a%20b'))).toEqual({ kind: 'element', element: 'a%20b' })
  expect(indicated('a%20b', on('a b'))).toEqual({ kind: 'element', element: 'a b' })
  expect(indicated('Top', on('top'))).toEqual({ kind: 'top' })
  expect(indicated('top', on('top'))).toEqual({ kind: 'element', element: 'top' })
  expect(indicated('%', on())).toEqual({ kind: 'none' })
})

it.each([
  ['a bar', 0, { left: 0, width: 1280, height: 64 }, true],
  ['one below another', 64, { left: 0, width: 1280, height: 40 }, true],
  ['a rail at the side', 0, { left: 0, width: 230, height: 800 }, false],
  ['a bar over a column in the middle', 0, { left: 380, width: 520, height: 54 }, true],
  ['a wide card at the side', 0, { left: 700, width: 560, height: 300 }, false],
  ['a mark in the middle', 0, { left: 600, width: 80, height: 54 }, false],
  ['a panel over everything', 0, { left: 0, width: 1280, height: 800 }, false],
  ['one whose upper row goes out of view', -72, { left: 0, width: 1280, height: 120 }, true],
  ['a first screen whose last row stays', -560, { left: 0, width: 1280, height: 620 }, true],
  ['one that is out of view', -64, { left: 0, width: 1280, height: 64 }, false],
  ['a bar at the bottom', 736, { left: 0, width: 1280, height: 64 }, false],
  ['what does not say where it stays', NaN, { left: 0, width: 1280, height: 64 }, false],
])('%s covers the viewport’s top: %#', (_, inset, bar, covers) => expect(coversEdge(inset, bar, { width: 1280, height: 800 })).toBe(covers))
