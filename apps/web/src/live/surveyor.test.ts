import type { ToAgent } from '@waybell/agent/types'
import type { PageEdit, Screen, SitePage } from '@waybell/core'
import { aSurvey } from '../../../../packages/core/src/survey/builder.ts'
import type { Channel } from './channel.ts'
import { Surveyor, type Surveying } from './surveyor.ts'

const laptop: Screen = { key: 'laptop', name: 'Laptop', width: 1280, height: 800, touch: false }
const desk: Screen = { key: 'desk', name: 'Desk', width: 1920, height: 1080, touch: false }
const page = { key: 'p1', sections: [], menus: [] } as unknown as SitePage
const edit = {} as PageEdit

/** Measures in a page that answers at once. */
class Measured {
  readonly asked: string[] = []
  readonly told: Parameters<Surveying['onSurvey']>[] = []
  readonly tried: SitePage[] = []
  readonly states: string[] = []
  /** The page says that its survey is the one it gave last. */
  isSame = false
  props: Surveying
  readonly surveyor: Surveyor

  constructor(over: Partial<Surveying>) {
    this.props = {
      screens: [laptop],
      shown: 'laptop',
      request: {} as Surveying['request'],
      edits: [],
      of: page,
      stale: new Set(),
      onSurvey: (...taken) => this.told.push(taken),
      onTried: (_, of) => this.tried.push(of),
      onState: (state) => this.states.push(state),
      ...over,
    }
    const ask = (kind: string, make: (turn: number) => ToAgent) => {
      const asked = make(0)
      const screen = 'request' in asked ? asked.request.screen : ''
      this.asked.push([asked.type, screen].filter(Boolean).join(' '))
      return Promise.resolve({ type: kind, turn: 0, survey: this.isSame ? null : aSurvey({ screen }), isRestless: false })
    }
    const frame = { style: {} } as HTMLIFrameElement
    this.surveyor = new Surveyor(frame, { ask, isOpen: true } as unknown as Channel, () => this.props)
  }

  /** @returns what was asked of the page for this */
  async after(change: () => void): Promise<string[]> {
    const before = this.asked.length
    change()
    await new Promise((done) => setTimeout(done, 20))
    return this.asked.slice(before)
  }

  set(over: Partial<Surveying>): void {
    this.props = { ...this.props, ...over }
    this.surveyor.follow()
  }
}

beforeAll(() => void Object.assign(globalThis, { requestAnimationFrame: (done: () => void) => setTimeout(done, 0) }))

it('measures an added screen, and no known ones', async () => {
  const all = new Measured({ stale: new Set(['laptop']) })
  expect(await all.after(() => all.surveyor.begin())).toEqual(['probe laptop'])
  expect(await all.after(() => all.set({ screens: [laptop, desk], stale: new Set(['desk']) }))).toEqual(['probe desk'])
  expect([...new Set(all.told.map(([survey]) => survey.screen))]).toEqual(['laptop', 'desk'])
})

it('shows an edit before measuring stale screens, and measures nothing for an edit without effect', async () => {
  const all = new Measured({ stale: new Set(['laptop']) })
  await all.after(() => all.surveyor.begin())
  expect(await all.after(() => all.set({ edits: [edit], stale: new Set(['laptop']) }))).toEqual(['patch', 'remeasure laptop'])
  expect(await all.after(() => all.set({ edits: [edit], stale: new Set() }))).toEqual(['patch'])
})

it('returns the same survey when the page reports no change', async () => {
  const all = new Measured({ stale: new Set(['laptop']) })
  await all.after(() => all.surveyor.begin())
  all.isSame = true
  await all.after(() => all.set({ edits: [edit], stale: new Set(['laptop']) }))
  expect(all.told.length).toBeGreaterThan(1)
  expect(new Set(all.told.map(([survey]) => survey)).size).toBe(1)
})

it('refuses “unchanged” from a page without an earlier survey', async () => {
  const all = new Measured({ stale: new Set(['laptop']) })
  all.isSame = true
  await all.after(() => all.surveyor.begin())
  expect(all.told).toEqual([])
  expect(all.states.at(-1)).toBe('silent')
})

it('tries no links while any screen is stale', async () => {
  const all = new Measured({ stale: new Set(['phone']) })
  await all.after(() => all.surveyor.begin())
  expect(all.tried).toEqual([])
  await all.after(() => all.set({ stale: new Set() }))
  expect(all.tried).toEqual([page])
})
