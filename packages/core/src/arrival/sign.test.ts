import { aPage, aSection } from '../site/builder.ts'
import type { Section } from '../site/index.ts'
import { aHeader, aPart, aSurvey } from '../survey/builder.ts'
import { badness, signOf, solveArrivals, type Sign } from './index.ts'

/** A page of 3,000 px with one section that begins at 1,000, under a header of 80 px, with 20 px of breathing space. */
function seen({ at = 1000, heading = 40, own = 0, over = {} as Partial<Section>, hasBox = true, hides = false }) {
  const section = aSection(1, over)
  const page = aPage({ sections: [section], travel: { smooth: true, breathing: 20, ...(own ? { pageOffsets: true as const } : {}) } })
  const part = aPart({ at: section.at, top: at, bottom: at + 900, hasBox, heading: { top: at + heading, bottom: at + heading + 30 } })
  const survey = aSurvey({ parts: [part], header: aHeader({ rest: 80, moved: 80, height: 80, hides }), padding: own })
  return signOf(solveArrivals(page, survey)[0]!, page, section, survey.screen)
}

it.each<[string, Parameters<typeof seen>[0], Sign]>([
  ['what is right says the gap', {}, { sign: 'clear', px: 20 }],
  ['the first goes to the very top', { at: 0, heading: 60, over: { toTop: true } }, { sign: 'cut', px: 20 }],
  ['the first, with its heading below the header', { at: 0, heading: 100, over: { toTop: true } }, { sign: 'top', px: -80 }],
  ['the page ends before it', { at: 2500 }, { sign: 'short', px: 200 }],
  ['the page’s own offset leaves too little', { own: 10 }, { sign: 'covered', px: 30 }],
  ['the page’s own offset leaves a part of the heading', { own: 25 }, { sign: 'cut', px: 15 }],
  ['the page’s own offset leaves much', { own: 300 }, { sign: 'air', px: 220 }],
  ['its heading is a screen further down', { heading: 900 }, { sign: 'below', px: 200 }],
  ['it was given more room, and has it', { over: { adjust: { by: 90 } } }, { sign: 'clear', px: 110 }],
  ['it was given less than its heading needs', { over: { adjust: { by: -70 } } }, { sign: 'cut', px: 10 }],
  ['it fills the window, and the header covers its heading', { over: { adjust: { by: 'fills' } } }, { sign: 'covered', px: 30 }],
  ['it was given more on other screens', { over: { adjust: { by: 90, off: ['laptop'] } } }, { sign: 'clear', px: 20 }],
  ['its header hides on the way down', { hides: true }, { sign: 'clear', px: 20, fromAbove: 100 }],
  ['it starts at the top, where a header that hides is visible', { at: 90, hides: true }, { sign: 'clear', px: 10 }],
  ['it has no box', { hasBox: false }, { sign: 'still', px: 0 }],
])('says the worst about an arrival: %s', (_, of, expected) => expect(seen(of)).toEqual(expected))

it('finds nothing wrong with a clear one, or one at the top as intended', () => {
  expect([badness('clear'), badness('top')]).toEqual([0, 0])
  expect(badness('covered')).toBeGreaterThan(badness('short'))
})
