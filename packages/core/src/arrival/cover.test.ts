import { aMenu, anItem, aPage, aSection } from '../site/builder.ts'
import { aHeader, aPart, aSurvey } from '../survey/builder.ts'
import { steadied } from '../survey/index.ts'
import type { HeaderOnScroll } from '../site/index.ts'
import { coverOf, isKept, shiftOf, smallerBy, solveArrivals, withMade } from './index.ts'

const header = (height: number) => aHeader({ at: 5, position: 'static', height, rest: 0, moved: 0, canStay: true })

describe('a header that is kept in view', () => {
  const page = aPage({ header: { at: 5, keep: 'sticky', backing: null } })
  it.each([
    ['takes a sixth', 800, 133, true],
    ['takes more', 800, 140, false],
    ['takes more of a low screen', 400, 80, false],
  ])('where it %s', (_, height, tall, kept) => {
    const survey = aSurvey({ height, header: header(tall) })
    expect(isKept(page, survey)).toBe(kept)
    expect(coverOf(page, survey).arrival).toBe(kept ? tall : 0)
  })
  it('is assumed without a survey', () => expect(isKept(page, null)).toBe(true))
  it('is false when left to the page', () => expect(isKept(aPage({ header: { at: 5, keep: null, backing: null } }), null)).toBe(false))
})

describe('a header that shrinks', () => {
  const page = aPage({ sections: [aSection(1, { toTop: true }), aSection(2), aSection(3)] })
  const survey = (moved: number[], now = 56) =>
    aSurvey({
      header: aHeader({ rest: 88, moved: now }),
      parts: moved.map((by, i) => aPart({ at: (i + 1) * 10, top: i * 900, bottom: i * 900 + 900, movedTop: i * 900 + by })),
    })
  it('in the flow moves every section up, except one above it', () => {
    expect(shiftOf(page, survey([-32, -32, -32.4]))).toBe(-32)
    expect(shiftOf(page, survey([0, -32, -32]))).toBe(-32)
  })
  it('over the page moves none', () => expect(shiftOf(page, survey([0, 0, 0]))).toBe(0))
  it('is ignored if sections move by different amounts', () => expect(shiftOf(page, survey([0, -32, -8]))).toBe(0))
  it('moves nothing if it keeps its size', () => expect(shiftOf(page, survey([-32, -32, -32], 88))).toBe(0))
})

describe('a header that keeps its space', () => {
  const page = aPage({ sections: [aSection(1, { toTop: true }), aSection(2)] })
  const survey = (makesUp: number | null) =>
    aSurvey({
      header: aHeader({ rest: 88, moved: 56, makesUp }),
      parts: [0, 900].map((top, i) => aPart({ at: (i + 1) * 10, top, bottom: top + 900, movedTop: top - 32 })),
      built: { menus: [], headings: [], targets: [{ id: 'x', top: 400, bottom: 500, movedTop: 368 }] },
    })
  it('moves nothing up, and the page is as long as at rest', () => {
    const seen = steadied(survey(32))
    expect(shiftOf(page, seen)).toBe(0)
    expect(seen).toMatchObject({ maxScroll: 2232, built: { targets: [{ movedTop: 400 }] } })
    expect(solveArrivals(page, seen)[1]).toMatchObject({ land: 900 - 56 - 24, gap: 24 })
    expect(solveArrivals(page, survey(32))[1]).toMatchObject({ land: 900 - 32 - 56 - 24, gap: 24 })
  })
  it('is unchanged if nothing compensates', () => expect(steadied(survey(null))).toEqual(survey(null)))
})

it('counts the part behind a bar at the bottom as hidden', () => {
  const heading = { top: 1650, bottom: 1690 }
  const seen = (bottom: number) =>
    solveArrivals(aPage({ sections: [aSection(2)] }), aSurvey({ bottom, parts: [aPart({ at: 20, top: 900, bottom: 1800, heading })] }))[0]
  expect([seen(0)!.heading, seen(80)!.heading]).toEqual(['clear', 'below'])
  expect(seen(80)!.hidden).toBe(1650 - (900 - 24 + 720))
})

describe('a header with a smaller size on scroll', () => {
  const gives = { at: 6, top: 20, bottom: 12, margin: null }
  const with_ = (moves: Partial<HeaderOnScroll>, over = {}) =>
    aPage({
      sections: [aSection(1, { toTop: true }), aSection(2), aSection(3)],
      header: { at: 5, keep: null, backing: null, onScroll: { after: 60, small: 16, ...moves }, ...over },
    })
  const survey = (over = {}) =>
    aSurvey({
      header: aHeader({ at: 5, rest: 80, moved: 80, gives, ...over }),
      parts: [0, 140, 900].map((top, i) => aPart({ at: (i + 1) * 10, top, bottom: top + 100 })),
    })
  it.each([
    ['by as much as it was given', with_({}), survey(), 16],
    ['by no more than its padding, of which some stays', with_({ small: 100 }), survey(), 28],
    ['not on a screen that it is not for', with_({ off: ['laptop'] }), survey(), 0],
    ['not where it scrolls away', with_({}, { off: ['laptop'] }), survey(), 0],
    ['not where it changes its size by itself', with_({}), survey({ moved: 60 }), 0],
    ['not where it has nothing to give', with_({}), survey({ gives: null }), 0],
    ['not where the page has another on this screen', with_({}), survey({ at: 7 }), 0],
  ])('is smaller %s', (_, page, seen, by) => {
    expect(smallerBy(page, seen)).toBe(by)
    if (by) expect(coverOf(page, seen)).toMatchObject({ ownRest: 80, ownMoved: 80 - by })
  })
  it('has its full size if a link stops before it shrinks', () => {
    const of = (moves: Partial<HeaderOnScroll>) => solveArrivals(with_(moves), survey()).map(({ land, gap }) => [land, gap])
    const breathing = with_({}).travel.breathing
    expect(of({})).toEqual([
      [0, -80],
      [140 - 80 - breathing, breathing],
      [900 - 64 - breathing, breathing],
    ])
    // The first section is 100 px high, and the header 80 of them.
    expect(of({ over: true })[1]).toEqual([140 - 64 - breathing, breathing])
    expect(of({ after: 900 })[2]).toEqual([900 - 80 - breathing, breathing])
  })
})

describe('the made menu', () => {
  const with_ = (place: 'top' | 'under-fixed') =>
    aPage({ sections: [aSection(1)], menus: [{ ...aMenu([anItem(1)]), form: { kind: 'bar', place } }] })
  const long = aSurvey({ pageHeight: 3000, maxScroll: 2200, height: 800, parts: [aPart({ at: 1, top: 100, bottom: 900, movedTop: 100 })] })
  const short = (ownHeight: number) =>
    aSurvey({ pageHeight: 800, ownHeight, maxScroll: 0, height: 800, parts: [aPart({ at: 1, top: 0, bottom: 200, movedTop: 0 })] })
  it('moves the content below it', () =>
    expect(withMade(long, with_('top'))).toMatchObject({
      pageHeight: 3048,
      maxScroll: 2248,
      parts: [{ top: 148, bottom: 948, movedTop: 148 }],
    }))
  it('moves nothing if it lies over the page', () => expect(withMade(long, with_('under-fixed'))).toBe(long))
  it.each([
    ['does not make a page scroll that does not fill the screen with it either', 700, 0],
    ['makes one scroll that nearly fills the screen, whatever there is below its last section', 765, 13],
  ])('%s', (_, own, furthest) => expect(withMade(short(own), with_('top')).maxScroll).toBe(furthest))
})
