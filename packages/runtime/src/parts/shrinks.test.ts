import { AHEAD, COVER, GROWS, SHIFTS, type Settings } from '@waybell/core/contract'
import * as shrinks from './shrinks.ts'

/** The page: where it stands, and what its style says, in px. */
const page = { y: 0, said: {} as Record<string, number> }
const style = new Map<string, string>()
jest.mock('../page.ts', () => ({ position: () => page.y, said: (name: string) => page.said[name] ?? 0, viewTop: () => 0, box: {} }))
jest.mock('../elements.ts', () => ({
  root: {
    style: { setProperty: (name: string, value: string) => style.set(name, value), removeProperty: (name: string) => style.delete(name) },
  },
}))

const settings = { bar: 0 } as Settings
/** @param now how far the header reaches */
const look = (y: number, now: number, isMoving = false) => {
  page.y = y
  shrinks.tellApart(
    () => now,
    settings,
    () => isMoving,
  )
  return shrinks.own
}
const screen = (width: number, said: Record<string, number>) => {
  Object.assign(globalThis, { innerWidth: width })
  page.said = said
}

beforeEach(() => {
  shrinks.forgetStates()
  style.clear()
  screen(1280, { [COVER]: 88, [GROWS]: -32, [SHIFTS]: -32 })
})

it('uses measured sizes, at the top and after scrolling', () => {
  expect([look(0, 88), style.get(AHEAD)]).toEqual([56, '32px'])
  expect([look(900, 56), style.get(AHEAD)]).toEqual([56, '0px'])
  expect([look(900, 70, true), look(0, 70, true), look(0, 88)]).toEqual([56, 56, 56])
})

it('doesn’t take a header that hasn’t started to grow for one at rest, however often it looks', () => {
  jest.useFakeTimers()
  look(0, 88)
  for (let turn = 0; turn < 5; turn++) {
    jest.advanceTimersByTime(900)
    expect([look(0, 56), shrinks.ahead]).toEqual([56, 0])
  }
  expect(look(2000, 56)).toBe(56)
  expect([look(0, 88), shrinks.ahead]).toEqual([56, 32])
})

it('learns the change at an unmeasured width', () => {
  look(0, 88)
  screen(1100, { [COVER]: 88, [GROWS]: -32, [SHIFTS]: -32 })
  expect(look(0, 80)).toBe(48)
  expect([look(900, 60), look(0, 80), look(900, 60), look(0, 60), look(0, 80)]).toEqual(Array(5).fill(60))
})

it('does so if its states weren’t measured', () => {
  screen(1280, { [COVER]: 88, [GROWS]: NaN })
  expect([look(0, 88), look(900, 40), look(0, 88)]).toEqual([88, 40, 40])
})

it.each([0, 900])('is itself again once its open menu is closed, at %i px', (y) => {
  look(0, 88)
  look(900, 56)
  look(y, y ? 356 : 388)
  look(y, y ? 56 : 88)
  expect([look(900, 56), look(0, 88)]).toEqual([56, 56])
})
