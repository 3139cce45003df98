import type { SitePage } from '@waybell/core'
import { jest } from '@jest/globals'
import { aPage, aSection } from '../../../../packages/core/src/site/builder.ts'
import { aPart, aSurvey } from '../../../../packages/core/src/survey/builder.ts'
import { ScreenSync, type Screens } from './screen-sync.ts'

const page: SitePage = aPage({ sections: [aSection(1, { toTop: true }), aSection(2), aSection(3)] })
const on = (screen: string, far: number) =>
  aSurvey({
    screen,
    pageHeight: far * 4,
    maxScroll: far * 3,
    parts: [0, 1, 2].map((i) => aPart({ at: (i + 1) * 10, top: i * far, movedTop: i * far, bottom: (i + 1) * far })),
  })

let screens: Screens
let told: string[]
let step: ScreenSync
beforeEach(() => {
  jest.useFakeTimers()
  screens = { page, shown: 'laptop', surveys: { laptop: on('laptop', 1000), phone: on('phone', 2000) }, others: ['phone'] }
  told = []
  step = new ScreenSync(() => screens, {
    scrollTo: (screen, y) => told.push(`${screen} to ${Math.round(y)}`),
    follow: (screen, hash) => told.push(`${screen} follows ${hash}`),
  })
})
afterEach(() => jest.useRealTimers())

// A section's place is its top without the breathing space.
const [second, there] = [1000 - 24, 2000 - 24]

it('moves the others after a pause, once', () => {
  for (const y of [100, 500, second]) step.scrolled(y)
  expect(told).toEqual([])
  jest.advanceTimersByTime(200)
  expect(told).toEqual([`phone to ${there}`])
})

it('follows a link on all screens, and moves none while that holds', () => {
  step.followed('#id-2')
  for (const y of [300, 700, second, second + 1]) step.scrolled(y)
  jest.advanceTimersByTime(200)
  expect(told).toEqual(['phone follows #id-2'])
  step.scrolled(second + 30)
  jest.advanceTimersByTime(200)
  expect(told).toHaveLength(2)
})

it('syncs by position again if the link isn’t reached', () => {
  step.followed('#gone')
  step.scrolled(500)
  jest.advanceTimersByTime(3000)
  step.scrolled(second)
  jest.advanceTimersByTime(200)
  expect(told).toEqual(['phone follows #gone', `phone to ${there}`])
})

it('moves the others when the visitor scrolls elsewhere before the arrival', () => {
  step.followed('#id-2')
  for (const y of [100, 200]) step.scrolled(y)
  jest.advanceTimersByTime(3000)
  expect(told).toEqual(['phone follows #id-2', 'phone to 405'])
})

it('leaves the others in place when the arrival misses by a little', () => {
  step.followed('#id-2')
  for (const y of [300, second - 20]) step.scrolled(y)
  jest.advanceTimersByTime(3000)
  expect(told).toEqual(['phone follows #id-2'])
})

it('ignores an earlier position when another screen comes into view', () => {
  step.scrolled(500)
  screens = { ...screens, shown: 'phone', others: ['laptop'] }
  jest.advanceTimersByTime(200)
  expect(told).toEqual([])
})

it('lets all screens move by themselves during a walk, and syncs them after it', () => {
  step.scrolled(500)
  const end = step.pause()
  step.scrolled(700)
  step.followed('#id-2')
  jest.advanceTimersByTime(200)
  expect(told).toEqual([])
  step.scrolled(second)
  end()
  jest.advanceTimersByTime(200)
  expect(told).toEqual([`phone to ${there}`])
})
