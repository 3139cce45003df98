import { defaultRule, defaultScreens, emptyStacks, type Command, type Site } from '@waybell/core'
import { redoName, Session, undoName } from './session.ts'

const site: Site = { format: 'way-bell-site', version: 4, name: 'Old', rule: defaultRule, screens: defaultScreens, pages: [] }
const rename = (name: string): Command => ({ type: 'site/rename', name })

interface Sent {
  idempotencyKey: string
  baseVersion: number
  command: Command
  undoes: number | null
}

/** A server that answers as it is told to, and remembers what it was sent. */
function answering(...answers: (() => Response)[]) {
  const sent: Sent[] = []
  let version = 0
  globalThis.fetch = jest.fn(async (url: string, init?: RequestInit) => {
    if (!init?.body) return Response.json({ key: 'k', document: { ...site, name: 'From the server' }, version: 7, stacks: emptyStacks })
    expect(url).toBe('/api/sites/k/changes')
    sent.push(JSON.parse(init.body as string) as Sent)
    const next = answers.shift()
    return next ? next() : Response.json({ version: ++version })
  }) as unknown as typeof fetch
  return sent
}

const open = (tell: (message: string) => void = () => {}) =>
  new Session('k', { key: 'k', document: site, version: 0, stacks: emptyStacks }, tell)
const settled = async (session: Session) => {
  for (let i = 0; i < 400 && session.snapshot().storing !== 'stored'; i++) await new Promise((done) => setTimeout(done, 10))
}

const moment = () => new Promise((done) => setTimeout(done, 30))

describe('a session', () => {
  it('shows a change at once, and “stored” when it was confirmed', async () => {
    const sent = answering()
    const session = open()
    session.run(rename('New'))
    expect([session.snapshot().document.name, session.snapshot().storing]).toEqual(['New', 'storing'])
    await settled(session)
    expect(session.snapshot().storing).toBe('stored')
    expect(sent.map((s) => s.baseVersion)).toEqual([0])
  })

  it('sends one change at a time, each with the version that was read before it', async () => {
    const sent = answering()
    const session = open()
    for (const name of ['A', 'B']) session.run(rename(name))
    await settled(session)
    session.run(rename('C'))
    await settled(session)
    expect(sent.map((s) => [s.baseVersion, (s.command as { name: string }).name])).toEqual([
      [0, 'A'],
      [0, 'B'],
      [2, 'C'],
    ])
  })

  it('repeats with the same key when the answer was lost', async () => {
    const sent = answering(() => {
      throw new TypeError('network')
    })
    const session = open()
    session.run(rename('New'))
    await settled(session)
    expect(sent).toHaveLength(2)
    expect(sent[0]!.idempotencyKey).toBe(sent[1]!.idempotencyKey)
    expect(session.snapshot().storing).toBe('stored')
  })

  it('says why something isn’t stored, until it is', async () => {
    answering(() => Response.json({ code: 'disk-full', message: 'There is no room left.' }, { status: 507 }))
    const session = open()
    session.run(rename('New'))
    for (let i = 0; i < 100 && session.snapshot().storing === 'storing'; i++) await new Promise((done) => setTimeout(done, 10))
    expect(session.snapshot()).toMatchObject({ storing: 'waiting', reason: 'There is no room left.' })
    session.run(rename('Newer'))
    expect(session.snapshot()).toMatchObject({ storing: 'waiting', reason: 'There is no room left.' })
    await settled(session)
    expect(session.snapshot()).toMatchObject({ storing: 'stored', reason: null, document: { name: 'Newer' } })
  })

  it('reports when another tab was first, and shows the stored state', async () => {
    answering(() => Response.json({ code: 'conflict', message: 'Changed in another tab.' }, { status: 409 }))
    const told: string[] = []
    const session = open((m) => told.push(m))
    session.run(rename('Mine'))
    await settled(session)
    expect(told).toEqual(['Changed in another tab.'])
    expect(session.snapshot().document.name).toBe('From the server')
  })

  it('undoes and redoes, and names the change', async () => {
    const sent = answering()
    const session = open()
    session.run(rename('New'))
    expect(undoName(session.snapshot().stacks)).toBe('rename the site')
    session.undo()
    expect(session.snapshot().document.name).toBe('Old')
    expect([undoName(session.snapshot().stacks), redoName(session.snapshot().stacks)]).toEqual([null, 'rename the site'])
    session.redo()
    expect(session.snapshot().document.name).toBe('New')
    await settled(session)
    expect(sent.map((s) => s.undoes)).toEqual([null, 1, 2])
  })

  it('reports why a command doesn’t fit, and leaves the site', () => {
    answering()
    const told: string[] = []
    const session = open((m) => told.push(m))
    expect(session.run({ type: 'travel/smooth', page: 'none', smooth: true })).toBe(false)
    expect(told[0]).toContain('no page')
    expect(session.snapshot().document).toBe(site)
  })

  it('reports when the site is gone, and takes no more changes', async () => {
    const told: string[] = []
    const session = open((m) => told.push(m))
    globalThis.fetch = jest.fn(async () =>
      Response.json({ code: 'no-site', message: 'There is no such site.' }, { status: 404 }),
    ) as unknown as typeof fetch
    session.run(rename('Mine'))
    for (let i = 0; i < 100 && session.snapshot().storing !== 'gone'; i++) await moment()
    expect(session.snapshot()).toMatchObject({ storing: 'gone', reason: 'There is no such site.' })
    expect(session.run(rename('More'))).toBe(false)
    expect(new Set(told)).toEqual(new Set(['There is no such site.']))
  })

  it('takes in another tab’s changes, only new ones', async () => {
    answering()
    const session = open()
    session.follow(0)
    await moment()
    expect(session.snapshot().document.name).toBe('Old')
    session.follow(7)
    await moment()
    expect(session.snapshot().document.name).toBe('From the server')
  })

  it('catches up after its own change if a later version was announced meanwhile', async () => {
    answering()
    const session = open()
    session.run(rename('Mine'))
    session.follow(5)
    expect(session.snapshot().document.name).toBe('Mine')
    await settled(session)
    await moment()
    expect(session.snapshot().document.name).toBe('From the server')
  })

  it('catches up when another tab’s change came in between, with more of its own to send', async () => {
    const sent = answering(
      () => Response.json({ version: 4 }),
      () => Response.json({ version: 5 }),
    )
    const session = open()
    session.run(rename('A'))
    session.run(rename('B'))
    await settled(session)
    await moment()
    // The server knows which changes were this tab's own.
    expect(sent.map((x) => x.baseVersion)).toEqual([0, 0])
    expect(session.snapshot().document.name).toBe('From the server')
  })

  it('waits until all is stored before going back, and reports why it couldn’t', async () => {
    const urls: string[] = []
    const sent = answering()
    const answer = globalThis.fetch
    globalThis.fetch = jest.fn(async (url: string, init?: RequestInit) => {
      urls.push(url)
      return url.endsWith('/back')
        ? Response.json({ code: 'no-version', message: 'As it was already.' }, { status: 404 })
        : answer(url, init)
    }) as unknown as typeof fetch
    const told: string[] = []
    const session = open((m) => told.push(m))
    session.run(rename('Mine'))
    session.backTo(1)
    await settled(session)
    expect([sent.length, urls.filter((u) => u.includes('changes') || u.includes('back'))]).toEqual([
      1,
      ['/api/sites/k/changes', '/api/sites/k/back'],
    ])
    expect(told).toEqual(['As it was already.'])
  })
})
