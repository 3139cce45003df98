import { solveArrivals, type Arrival } from '../arrival/index.ts'
import { aMenu, anItem, aPage, aSection } from '../site/builder.ts'
import { aPart, aSurvey } from '../survey/builder.ts'
import { aTried } from './builder.ts'
import { judge, judgeTried, mayPass, stopsElsewhere, takenLinks, walkPlan, type Tried, type Visit } from './index.ts'

const page = aPage({
  sections: [aSection(1, { toTop: true }), aSection(2), aSection(3, { id: 'a b' })],
  menus: [
    aMenu([anItem(1), anItem(2), { ...anItem(9), label: 'As it came', target: { kind: 'as-is' } }]),
    aMenu([anItem(2), anItem(3)], { key: 'm2', form: { kind: 'steps', place: 'end', text: '', edge: 16 } }),
  ],
})
const plan = walkPlan(page)

it('tries every section from above and below', () =>
  expect(plan.map((s) => [s.hash, s.start, s.isLinked])).toEqual([
    ['#id-1', 'above', true],
    ['#id-1', 'below', true],
    ['#id-2', 'above', true],
    ['#id-2', 'below', true],
    ['#a%20b', 'above', false],
    ['#a%20b', 'below', false],
  ]))

const arrival = (land: number) => ({ land }) as Arrival
const visit = (scroll: number, current: string | null): Visit => ({ scroll, top: 0, covered: 0, current })

it.each([
  ['where it was computed, and marked', 2, arrival(900), visit(900.9, '#id-2'), true],
  ['more than a pixel off', 2, arrival(900), visit(901.2, '#id-2'), false],
  ['with another item marked', 2, arrival(900), visit(900, '#id-1'), false],
  ['at the top, whose own item is marked', 0, arrival(0), visit(0, '#'), true],
  ['where no item leads, with any marked', 4, arrival(900), visit(900, '#id-2'), true],
  ['where nothing was computed', 2, null, visit(0, '#id-2'), false],
])('judges a link that stops %s', (_, n, computed, seen, passed) => expect(judge(plan[n]!, computed, seen).passed).toBe(passed))

describe('a tried link', () => {
  const survey = aSurvey({
    pageHeight: 5000,
    maxScroll: 4200,
    parts: page.sections.map((s, i) => aPart({ at: s.at, top: 1000 * i, movedTop: 1000 * i, bottom: 1000 * i + 1000 })),
  })
  const land = solveArrivals(page, survey)[1]!.land
  const right = aTried({ id: 'id-2', label: page.menus[0]!.items[1]!.label, scroll: land })
  it.each<[string, Partial<Tried>, string | null, RegExp]>([
    ['stops where it was computed', {}, null, /^$/],
    ['goes to the top, and is meant to', { id: '', href: '#top', scroll: 0 }, null, /^$/],
    ['stops elsewhere', { scroll: land + 24 }, 'off', /24 px below/],
    ['stops elsewhere, since a script wants it', { scroll: land - 40, isTaken: true }, 'off', /40 px above.*page script handles the press/],
    ['stops elsewhere, with its target where it should be', { scroll: land + 24, top: solveArrivals(page, survey)[1]!.top }, null, /^$/],
    [
      'stops elsewhere, with its target elsewhere',
      { scroll: land + 24, top: solveArrivals(page, survey)[1]!.top - 24 },
      'off',
      /24 px below/,
    ],
    ['finds nothing', { target: 'missing', id: 'gone' }, 'nowhere', /no “#gone”/],
    ['leads to what has no box', { target: 'hidden' }, 'no-box', /hidden/],
    ['arrives under something', { coveredBy: '“#bar”' }, 'covered', /under “#bar”/],
    ['arrives out of sight', { coveredBy: '' }, 'covered', /out of sight/],
    ['stops where it was computed from below too', { below: { scroll: land, top: null, coveredBy: null } }, null, /^$/],
    [
      'stops elsewhere from below',
      { below: { scroll: land - 70, top: null, coveredBy: null } },
      'off',
      /70 px above its place when followed from further down$/,
    ],
    [
      'arrives under what comes back on the way up',
      { below: { scroll: land, top: null, coveredBy: '“.bar”' } },
      'covered',
      /under “.bar” when followed from further down/,
    ],
    [
      'arrives out of sight from below, its target in its place',
      { below: { scroll: land - 70, top: solveArrivals(page, survey)[1]!.top, coveredBy: '' } },
      'covered',
      /out of sight when/,
    ],
    ['is not lit', { mark: 'absent' }, 'unlit', /isn’t marked/],
    ['is lit, and nobody sees it', { mark: 'unseen' }, 'unseen', /styles win/],
    ['moves the page sideways', { isSideways: true }, 'sideways', /sideways/],
    ['is not lit, and is no item', { mark: 'absent', label: 'The site’s name' }, null, /^$/],
    ['is not lit, and is left as it is', { mark: 'absent', label: 'As it came' }, null, /^$/],
    ['leads to what is no section', { id: 'other', href: '#other', scroll: 77 }, null, /^$/],
  ])('that %s', (_, over, fault, why) => {
    const [verdict] = judgeTried(page, survey, [{ ...right, ...over }])
    expect(verdict!.fault).toBe(fault)
    expect(verdict!.why).toMatch(why)
  })
})

it('can’t be compared if the page doesn’t move', () => {
  const parts = page.sections.map((s, i) => aPart({ at: s.at, top: 1000 * i, bottom: 1000 * i + 1000, hasBox: i !== 1 }))
  const survey = aSurvey({ pageHeight: 5000, maxScroll: 4200, parts })
  const [verdict] = judgeTried(page, survey, [aTried({ id: 'id-2', label: 'Item 2', scroll: 1262, coveredBy: '“main”' })])
  expect(verdict).toMatchObject({ fault: 'covered', why: 'arrives under “main”' })
})

it('says which links a page script handles, and how far off it leaves them', () => {
  const survey = aSurvey({
    pageHeight: 5000,
    maxScroll: 4200,
    parts: page.sections.map((s, i) => aPart({ at: s.at, top: 1000 * i, movedTop: 1000 * i, bottom: 1000 * i + 1000 })),
  })
  const land = solveArrivals(page, survey).map((a) => a.land)
  const one = (n: number, over: Partial<Tried> = {}) => aTried({ id: `id-${n}`, label: `Item ${n}`, scroll: land[n - 1]!, ...over })
  const taken = (laptop: Tried[], phone: Tried[] = []) => takenLinks(page, { laptop: survey, phone: survey }, { laptop, phone })
  expect(taken([one(1), one(2)])).toEqual({ links: 0, off: 0, isPutRight: true, worst: null })
  expect(taken([one(1), one(2, { isTaken: true })])).toEqual({ links: 1, off: 0, isPutRight: true, worst: null })
  const [here, there] = [one(2, { isTaken: true, astray: -30 }), one(2, { isTaken: true, astray: 66 })]
  expect(taken([here], [there])).toEqual({ links: 1, off: 1, isPutRight: true, worst: { label: 'Item 2', screen: 'phone', by: 66 } })
  const off = one(3, { id: 'a b', isTaken: true, scroll: land[2]! - 90 })
  expect(taken([here, off])).toEqual({ links: 2, off: 2, isPutRight: false, worst: { label: 'Item 3', screen: 'laptop', by: -90 } })
})

it('repeats only what a busy machine may have caused', () => {
  const survey = aSurvey({ parts: [1, 2, 3].map((n) => aPart({ at: page.sections[n - 1]!.at, top: n * 900, bottom: n * 900 + 900 })) })
  const again = (over: Partial<Tried>) =>
    mayPass(judgeTried(page, survey, [{ ...aTried({ id: 'id-2', label: 'Item 2', scroll: 0 }), ...over }])[0]!)
  expect(again({})).toBe(true)
  expect(again({ isTaken: true })).toBe(false)
  expect(again({ target: 'missing' })).toBe(false)
  expect(again({ target: 'hidden' })).toBe(false)
})

it('takes a page for changed if its links stop elsewhere, unless a script does that', () => {
  const survey = aSurvey({ parts: [1, 2, 3].map((n) => aPart({ at: page.sections[n - 1]!.at, top: n * 900, bottom: n * 900 + 900 })) })
  const { land, top } = solveArrivals(page, survey)[1]!
  const another = (over: Partial<Tried>) =>
    stopsElsewhere(judgeTried(page, survey, [aTried({ id: 'id-2', label: 'Item 2', scroll: land, top, ...over })])[0]!)
  expect(another({})).toBe(false)
  // Where it should, on a page that has grown above it; and not where it should.
  expect(another({ scroll: land + 500 })).toBe(true)
  expect(another({ scroll: land + 500, top: top - 500 })).toBe(true)
  expect(another({ scroll: land + 500, top: top - 500, isTaken: true })).toBe(false)
  expect(another({ scroll: land + 500, leftOpen: { menu: null, by: null } })).toBe(false)
  expect(another({ target: 'missing' })).toBe(false)
})
