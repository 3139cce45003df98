/**
 * Tabs, and a server that delays, refuses, loses and repeats answers: at the end each tab shows what the server has, and what a tab showed as stored is
 * on the server in the order in which it was made there.
 */
import { apply, clash, defaultRule, defaultScreens, type Change, type Command, type Site } from '@waybell/core'
import * as fc from 'fast-check'
import type { ChangeOf } from '../api.ts'
import { Session } from './session.ts'

const page = (key: string) => ({
  key,
  file: `${key}.html`,
  source: '',
  title: key,
  sections: [],
  menus: [],
  header: null,
  travel: { smooth: true, breathing: 0 },
  highlight: { bellOffset: 0 },
})
const site: Site = {
  format: 'way-bell-site',
  version: 4,
  name: 'Old',
  rule: defaultRule,
  screens: defaultScreens,
  pages: [page('p1'), page('p2')],
}

type Stored = Change & { idempotencyKey: string; isStanding: boolean }

/** As the real one: what another tab changed since the base stands, and a change is taken back once. */
class ModelServer {
  document = site
  log: Stored[] = []

  change({ idempotencyKey, baseVersion, tab, command, undoes }: ChangeOf & { command: Command; undoes: number | null }): Response {
    const repeated = this.log.find((c) => c.idempotencyKey === idempotencyKey)
    if (repeated) return Response.json({ version: repeated.version })
    const taken = this.log.find((c) => c.version === undoes)
    const isRefused =
      this.log.some((c) => c.version > baseVersion && c.tab !== tab && clash(c.command, command)) ||
      (undoes !== null && !taken?.isStanding) ||
      (taken && this.stack('undo').some((c) => c.version > taken.version && !this.isBefore(c, taken) && clash(c.command, command)))
    if (isRefused) return Response.json({ code: 'conflict', message: 'no' }, { status: 409 })
    const { site: document, inverse } = apply(this.document, command)
    if (undoes === null) for (const c of this.stack('redo')) c.isStanding = false
    if (taken) taken.isStanding = false
    this.document = document
    const version = this.log.length + 1
    this.log.push({ idempotencyKey, version, command, inverse, undoes, tab, isStanding: true })
    return Response.json({ version })
  }

  state() {
    return {
      key: 'k',
      document: this.document,
      version: this.log.length,
      stacks: { undo: this.stack('undo'), redo: this.stack('redo') },
    }
  }

  private isBefore(c: Stored, taken: Stored): boolean {
    return this.stack('redo').includes(taken) && c.undoes !== null && c.undoes > taken.version
  }

  private stack(name: 'undo' | 'redo'): Stored[] {
    const isUndo = (c: Stored): boolean => c.undoes === null || !isUndo(this.log[c.undoes - 1]!)
    return this.log.filter((c) => c.isStanding && isUndo(c) === (name === 'undo'))
  }
}

/** What becomes of a request: answered, answered by “not now”, lost on the way there, lost on the way back, or had twice. */
type Fate = 'answered' | 'busy' | 'lost' | 'unheard' | 'twice'

interface Request {
  url: string
  body: string | undefined
  done: (response: Response) => void
  failed: (error: Error) => void
}

/** Requests wait until their fate is said, in any order. */
class Line {
  readonly open: Request[] = []
  constructor(private readonly server: ModelServer) {}

  readonly fetch = ((url: string, init?: RequestInit) =>
    new Promise((done, failed) => this.open.push({ url, body: init?.body as string | undefined, done, failed }))) as unknown as typeof fetch

  meet(n: number, fate: Fate): void {
    const [request] = this.open.splice(n % this.open.length, 1)
    const { url, body, done, failed } = request!
    if (fate === 'busy') return done(Response.json({ code: 'busy', message: 'not now' }, { status: 503 }))
    if (fate === 'unheard') return failed(new TypeError('network'))
    const answer = () =>
      body ? this.server.change(JSON.parse(body) as Parameters<ModelServer['change']>[0]) : Response.json(this.server.state())
    expect(url).toMatch(/^\/api\/sites\/k(\/changes)?$/)
    const response = answer()
    if (fate === 'twice') answer()
    if (fate === 'lost') failed(new TypeError('network'))
    else done(response)
  }
}

interface Made {
  command: Command
  wasStored: boolean
}

class Tab {
  readonly told: string[] = []
  readonly made: Made[] = []
  readonly session: Session
  constructor(server: ModelServer) {
    // As it comes over the network: nothing of it is shared.
    this.session = new Session('k', structuredClone(server.state()), (message) => this.told.push(message))
    this.session.subscribe(() => {
      if (this.session.snapshot().storing === 'stored') for (const one of this.made) one.wasStored = true
    })
  }
  run(command: Command): void {
    this.made.push({ command, wasStored: false })
    this.session.run(command)
  }
}

type Step =
  | { do: 'name'; tab: number; of: 'site' | 'p1' | 'p2' }
  | { do: 'undo' | 'redo' | 'told'; tab: number }
  | { do: 'meet'; n: number; fate: Fate }
  | { do: 'wait' }

const tabs = fc.nat({ max: 2 })
const step: fc.Arbitrary<Step> = fc.oneof(
  { weight: 4, arbitrary: fc.record({ do: fc.constant('name' as const), tab: tabs, of: fc.constantFrom('site', 'p1', 'p2') }) },
  { weight: 3, arbitrary: fc.record({ do: fc.constantFrom('undo', 'redo', 'told'), tab: tabs }) },
  {
    weight: 6,
    arbitrary: fc.record({
      do: fc.constant('meet' as const),
      n: fc.nat({ max: 5 }),
      fate: fc.constantFrom<Fate>('answered', 'answered', 'answered', 'busy', 'lost', 'unheard', 'twice'),
    }),
  },
  { weight: 3, arbitrary: fc.constant({ do: 'wait' as const }) },
)

beforeEach(() => jest.useFakeTimers())
afterEach(() => jest.useRealTimers())

it('whatever tabs and server do, everything shown as stored is on the server, and in the end all tabs agree', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(step, { maxLength: 60 }), async (steps) => {
      const server = new ModelServer()
      const line = new Line(server)
      globalThis.fetch = line.fetch
      const open = [new Tab(server), new Tab(server), new Tab(server)]
      let names = 0
      for (const one of steps) {
        if (one.do === 'name') {
          const name = `n${++names}`
          open[one.tab]!.run(
            one.of === 'site' ? { type: 'site/rename', name } : { type: 'travel/breathing', page: one.of, breathing: names },
          )
        } else if (one.do === 'told') open[one.tab]!.session.follow(server.log.length)
        else if (one.do === 'undo' || one.do === 'redo') open[one.tab]!.session[one.do]()
        else if (one.do === 'meet' && line.open.length) line.meet(one.n, one.fate)
        await jest.advanceTimersByTimeAsync(one.do === 'wait' ? 1600 : 1)
        checkStored(server, open)
      }
      for (let i = 0; i < 400; i++) {
        while (line.open.length) line.meet(0, 'answered')
        await jest.advanceTimersByTimeAsync(1600)
        for (const { session } of open) session.follow(server.log.length)
        await jest.advanceTimersByTimeAsync(1)
        if (!line.open.length && open.every(({ session }) => session.snapshot().storing === 'stored')) break
      }
      checkStored(server, open)
      for (const { session } of open) {
        expect(session.snapshot()).toMatchObject({ storing: 'stored', reason: null })
        expect(session.snapshot().document).toEqual(server.document)
      }
    }),
    { numRuns: 300 },
  )
})

/** Each that was shown as stored is in the log once, in the order in which it was made, unless its tab was told of it. */
function checkStored(server: ModelServer, open: readonly Tab[]): void {
  for (const { made, told, session } of open) {
    // A change whose answer was lost isn't put on top of itself.
    const own = session.snapshot().stacks.undo.flatMap((c) => (c.undoes === null ? [JSON.stringify(c.command)] : []))
    expect(new Set(own).size).toBe(own.length)
    const places = made.flatMap(({ command, wasStored }) =>
      wasStored ? [server.log.findIndex((c) => c.undoes === null && JSON.stringify(c.command) === JSON.stringify(command))] : [],
    )
    expect(places.filter((at) => at < 0).length).toBeLessThanOrEqual(told.length)
    const found = places.filter((at) => at >= 0)
    expect(found).toEqual([...found].sort((a, b) => a - b))
    expect(new Set(found).size).toBe(found.length)
  }
}

it('undo in one tab leaves other tabs’ changes alone', async () => {
  const server = new ModelServer()
  const line = new Line(server)
  globalThis.fetch = line.fetch
  const [mine, other] = [new Tab(server), new Tab(server)]
  const settle = async () => {
    for (let i = 0; i < 20; i++) {
      while (line.open.length) line.meet(0, 'answered')
      await jest.advanceTimersByTimeAsync(10)
    }
  }
  other.run({ type: 'travel/breathing', page: 'p1', breathing: 7 })
  await settle()
  // Before this one was told, and before its own change is answered.
  mine.run({ type: 'site/rename', name: 'Mine' })
  mine.session.undo()
  await settle()
  expect([server.document.name, server.document.pages[0]!.travel.breathing]).toEqual(['Old', 7])
  expect(mine.session.snapshot().stacks.undo).toEqual([])
  mine.session.undo()
  await settle()
  expect(mine.session.snapshot().document.pages[0]!.travel.breathing).toBe(7)
  expect(mine.told).toEqual([])
})

it('one tab undoes and redoes all its changes, although answers come late', async () => {
  const server = new ModelServer()
  const line = new Line(server)
  globalThis.fetch = line.fetch
  const tab = new Tab(server)
  const settle = async () => {
    for (let i = 0; i < 40; i++) {
      while (line.open.length) line.meet(0, 'answered')
      await jest.advanceTimersByTimeAsync(10)
    }
  }
  for (let n = 1; n <= 6; n++) tab.run({ type: 'site/rename', name: `n${n}` })
  for (let n = 0; n < 3; n++) tab.session.undo()
  await settle()
  for (let n = 0; n < 3; n++) tab.session.undo()
  for (let n = 0; n < 2; n++) tab.session.redo()
  await settle()
  expect(server.document.name).toBe('n2')
  for (let n = 0; n < 4; n++) tab.session.redo()
  await settle()
  expect([server.document.name, tab.session.snapshot().document.name, tab.told]).toEqual(['n6', 'n6', []])
})
