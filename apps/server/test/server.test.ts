import 'reflect-metadata'
import type { NestExpressApplication } from '@nestjs/platform-express'
import { STACK_PAGE, type Change, type Command, type Site, type Stacks } from '@waybell/core'
import { execFileSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import request from 'supertest'
import { DataSource } from 'typeorm'
import { createApplication } from '../src/application.ts'
import { ContentRow, FileRow, SiteRow } from '../src/db/entities.ts'

const page =
  '<!doctype html>\r\n<html><head><meta charset=windows-1252><link rel=stylesheet href="css/look.css"></head><body><nav><a href="#">Work</a><a href="#">Us</a></nav><section><h2>Work</h2><p>caf\xe9</p></section><section><h2>Us</h2><img src="img/us.png"></section></body></html>'
const bytes = Buffer.from(page, 'latin1')

let app: NestExpressApplication
let db: DataSource
let host: string

beforeAll(async () => {
  const data = mkdtempSync(join(tmpdir(), 'waybell-test-'))
  writeFileSync(join(data, 'demo-made'), '')
  app = await createApplication({ data, port: 0 })
  await app.listen(0, '127.0.0.1')
  host = `127.0.0.1:${(app.getHttpServer().address() as { port: number }).port}`
  db = app.get(DataSource)
})
afterAll(() => app.close())

const http = () => request(`http://${host}`)
const live = (key: string, path: string, kind = '') =>
  http()
    .get(path)
    .set('Host', `${key}${kind}.localhost:${host.split(':')[1]}`)

async function make(
  files: [string, Buffer][] = [
    ['site/index.html', bytes],
    ['site/css/look.css', Buffer.from('a { background: url(../img/b.png) }')],
  ],
): Promise<string> {
  let post = http().post('/api/sites')
  for (const [name, content] of files) post = post.attach('files', content, name)
  const { body } = (await post.expect(201)) as { body: { key: string } }
  return body.key
}

const state = async (key: string) =>
  (await http().get(`/api/sites/${key}`).expect(200)).body as { document: Site; version: number; stacks: Stacks }
const change = (
  key: string,
  command: Command,
  baseVersion: number,
  idempotencyKey = `key-${Math.random()}`,
  undoes: number | null = null,
) => http().post(`/api/sites/${key}/changes`).send({ idempotencyKey, baseVersion, command, undoes })
const rename = (name: string): Command => ({ type: 'site/rename', name })

describe('making a site', () => {
  it('keeps the bytes, reads the page, and names missing files', async () => {
    const key = await make()
    const { body } = await http().get(`/api/sites/${key}/pages/p1`).expect(200)
    expect(body.reading.encoding).toBe('windows-1252')
    expect(body.reading.candidates.filter((c: { offered: boolean }) => c.offered).map((c: { title: string }) => c.title)).toEqual([
      'Work',
      'Us',
    ])
    expect(body.missing.sort()).toEqual(['img/b.png', 'img/us.png'])
    const { document } = await state(key)
    expect((await db.manager.findOneByOrFail(ContentRow, { hash: document.pages[0]!.source })).bytes).toEqual(bytes)
  })

  it('places a file without folder where the page looks for it', async () => {
    const key = await make([
      ['index.html', bytes],
      ['look.css', Buffer.from('a{}')],
      ['us.png', Buffer.from('p')],
    ])
    expect((await http().get(`/api/sites/${key}/pages/p1`)).body.missing).toEqual([])
    await live(key, '/css/look.css').expect(200, 'a{}')
  })

  it('takes pasted HTML', async () => {
    const { body } = await http().post('/api/sites').field('html', '<h1>Hi</h1>').field('name', 'Pasted').expect(201)
    expect((await state(body.key)).document.name).toBe('Pasted')
  })

  it.each([
    ['an empty file', Buffer.alloc(0), 'page-empty'],
    ['no HTML', Buffer.from('just text'), 'page-not-html'],
    ['markup too deep', Buffer.from('<div>'.repeat(5000)), 'page-too-deep'],
    ['too many bytes', Buffer.alloc(20 * 1024 * 1024 + 1, '<p>x'), 'page-too-big'],
  ])('refuses %s, and stores nothing', async (_, content, code) => {
    const before = [await db.manager.count(SiteRow), await db.manager.count(FileRow), await db.manager.count(ContentRow)]
    const { body, status } = await http()
      .post('/api/sites')
      .attach('files', content, 'index.html')
      .attach('files', Buffer.from('x'), 'a.png')
    expect([status, body.code]).toEqual([422, code])
    expect(body.message).toMatch(/^[A-Z].*\.$/)
    expect([await db.manager.count(SiteRow), await db.manager.count(FileRow), await db.manager.count(ContentRow)]).toEqual(before)
  })
})

describe('changes', () => {
  it('are made once, however often they’re sent', async () => {
    const key = await make()
    for (let i = 0; i < 3; i++) expect((await change(key, rename('Once'), 0, 'the-same-key').expect(200)).body).toEqual({ version: 1 })
    expect((await state(key)).version).toBe(1)
  })

  it('can be undone after a reload, by the stored inverse', async () => {
    const key = await make()
    await change(key, rename('New'), 0).expect(200)
    const { stacks } = await state(key)
    const last = stacks.undo.at(-1)!
    await change(key, last.inverse, 1, undefined, last.version).expect(200)
    const after = await state(key)
    expect([after.document.name, after.stacks.undo.length]).toEqual(['index.html', 0])
  })

  it('keeps all undo and redo, loaded in parts', async () => {
    const key = await make()
    const count = STACK_PAGE + 20
    for (let i = 0; i < count; i++) await change(key, rename(`${i}`), i).expect(200)
    let version = count
    for (let i = 0; i < count; i++) {
      const { stacks } = await state(key)
      const last = stacks.undo.at(-1)!
      await change(key, last.inverse, version, undefined, last.version).expect(200)
      version++
    }
    const { stacks, document } = await state(key)
    expect([document.name, stacks.undo.length, stacks.redo.length]).toEqual(['index.html', 0, STACK_PAGE])
    const earlier = (name: string, before: number) => http().get(`/api/sites/${key}/stacks/${name}?before=${before}`)
    const { body } = await earlier('redo', stacks.redo[0]!.version).expect(200)
    expect((body as Change[]).map((c) => c.version)).toEqual(Array.from({ length: 20 }, (_, i) => count + 1 + i))
    // What is read again leaves nothing to be made again.
    await change(key, rename('New'), version).expect(200)
    expect((await earlier('redo', 1e6).expect(200)).body).toEqual([])
    await earlier('neither', 5).expect(400)
    await earlier('undo', NaN).expect(400)
  })

  it('are undone once, and never under a later one', async () => {
    const key = await make()
    const { body: first } = await change(key, rename('First'), 0).expect(200)
    const [{ inverse }] = (await state(key)).stacks.undo as [Change]
    await change(key, { type: 'travel/breathing', page: 'p1', breathing: 40 }, 1).expect(200)
    await change(key, rename('Second'), 2).expect(200)
    expect((await change(key, inverse, 3, undefined, first.version).expect(409)).body).toMatchObject({ code: 'built-upon' })
    await change(key, rename('First'), 3, undefined, 3).expect(200)
    await change(key, inverse, 4, undefined, first.version).expect(200)
    expect((await change(key, inverse, 5, undefined, first.version).expect(409)).body).toMatchObject({ code: 'taken-back' })
    const { document, stacks } = await state(key)
    expect([document.name, stacks.undo.map((c) => c.version), stacks.redo.map((c) => c.version)]).toEqual(['index.html', [2], [4, 5]])
  })

  it('are undone and redone in turn', async () => {
    const key = await make()
    for (const [i, name] of ['A', 'B', 'C'].entries()) await change(key, rename(name), i).expect(200)
    let version = 3
    for (const stack of ['undo', 'undo', 'undo', 'redo', 'redo', 'redo'] as const) {
      const last = (await state(key)).stacks[stack].at(-1)!
      await change(key, last.inverse, version++, undefined, last.version).expect(200)
    }
    expect((await state(key)).document.name).toBe('C')
  })

  it('of the same tab don’t clash', async () => {
    const key = await make()
    const send = (name: string, tab: string) =>
      http()
        .post(`/api/sites/${key}/changes`)
        .send({ idempotencyKey: `key-of-${name}`, baseVersion: 0, tab, command: rename(name), undoes: null })
    await send('A', 'one').expect(200)
    await send('B', 'one').expect(200)
    await send('C', 'two').expect(409)
  })

  it('of two tabs are merged if independent, and refused otherwise', async () => {
    const key = await make()
    await change(key, rename('First tab'), 0).expect(200)
    await change(key, { type: 'travel/breathing', page: 'p1', breathing: 40 }, 0).expect(200)
    const { body } = await change(key, rename('Second tab'), 0).expect(409)
    expect(body.message).toContain('Another tab')
    expect((await state(key)).document).toMatchObject({ name: 'First tab', pages: [{ travel: { breathing: 40 } }] })
  })

  it.each([
    ['an unknown kind', { type: 'site/burn' }],
    ['a missing part', { type: 'travel/breathing', page: 'p1' }],
    [
      'a colour that is style',
      { type: 'header/choose', page: 'p1', header: { at: 1, keep: 'sticky', backing: 'red;} body{display:none' } },
    ],
    ['a batch with a bad one in it', { type: 'batch', label: 'x', commands: [{ type: 'site/rename', name: 5 }] }],
  ])('refuses %s', async (_, command) => {
    const key = await make()
    await change(key, command as Command, 0).expect(400)
    expect((await state(key)).version).toBe(0)
  })

  it('reports why one doesn’t fit the site', async () => {
    const key = await make()
    const { body } = await change(key, { type: 'section/drop', page: 'p1', section: 's1' }, 0).expect(422)
    expect(body.message).toContain('no section')
  })
})

it.each([
  ['a document', `UPDATE site SET document = substr(document, 1, 90)`, ''],
  ['a change', `UPDATE change SET command = 'ZZZ'`, '/log'],
  ['an inverse', `UPDATE change SET inverse = 'ZZZ'`, ''],
  ['a page', `UPDATE content SET bytes = zeroblob(length(bytes))`, '/pages/p1'],
  ['a page that is gone', `DELETE FROM content`, '/pages/p1'],
])('reports damage that SQLite doesn’t notice: %s', async (_, damage, path) => {
  const key = await make([['index.html', Buffer.from(`<h1>Damaged</h1>${Math.random()}`)]])
  await change(key, rename('New'), 0).expect(200)
  // In the end everything is as it was, for the other tests: a connection that met damage is closed, which takes it back.
  await db.query('SAVEPOINT damage')
  await db.query(damage)
  const { status, body } = await http().get(`/api/sites/${key}${path}`)
  if (db.isInitialized) await db.query('ROLLBACK TO damage').then(() => db.query('RELEASE damage'))
  expect([status, body.code]).toEqual([503, 'database-damaged'])
  expect(body.message).toContain('put a copy of it in its place')
})

describe('hosts', () => {
  it('serve a page on its own host, stamped, with a policy that blocks the network', async () => {
    const key = await make()
    const { text, headers } = await live(key, '/index.html').expect(200)
    expect(headers['content-type']).toBe('text/html; charset=windows-1252')
    expect(headers['content-security-policy']).toContain("connect-src 'none'")
    expect(text).toMatch(/<section data-wb-at="\d+">/)
    const { headers: still } = await live(key, '/', '--still').expect(200)
    expect(still['content-security-policy']).toMatch(/script-src 'nonce-[^']+';/)
  })

  it('give a page’s host nothing of the application or another site', async () => {
    const [key, other] = [
      await make(),
      await make([
        ['index.html', bytes],
        ['secret.txt', Buffer.from('s')],
      ]),
    ]
    await live(key, '/api/sites').expect(404)
    await live(key, '/secret.txt').expect(404)
    await live(other, '/secret.txt').expect(200)
    await live(key, '/..%2f..%2fetc/passwd').expect(404)
    await http().post('/api/sites').set('Host', `${key}.localhost`).expect(405)
  })

  it('sends a file once: later requests revalidate; a page is always sent', async () => {
    const key = await make()
    for (const path of ['/css/look.css', '/__waybell/agent.js']) {
      const { headers } = await live(key, path).expect(200)
      await live(key, path).set('If-None-Match', headers['etag']!).expect(304)
    }
    const { headers } = await live(key, '/index.html').expect(200)
    expect(headers['cache-control']).toBe('no-store')
    await live(key, '/index.html').set('If-None-Match', headers['etag']!).expect(200)
  })

  it('show the site’s present pages', async () => {
    const key = await make([
      ['index.html', bytes],
      ['more.html', bytes],
    ])
    const { document } = await state(key)
    const more = document.pages.findIndex((p) => p.file === 'more.html')
    const page = document.pages[more]!
    await live(key, '/more.html').expect(200)
    await change(key, { type: 'page/drop', page: page.key }, 0).expect(200)
    await live(key, '/more.html').expect(404)
    await change(key, { type: 'page/add', page, index: more }, 1).expect(200)
    await live(key, '/more.html').expect(200)
  })

  it('answer to no other name or page', async () => {
    await http().get('/api/sites').set('Host', 'rebound.example').expect(421)
    await http().post('/api/sites').set('Origin', 'http://evil.example').field('html', '<p>x').expect(403)
    await http().post('/api/sites').set('Sec-Fetch-Site', 'cross-site').field('html', '<p>x').expect(403)
  })

  it('limit what the application may frame', async () => {
    const { headers } = await http().get('/api/sites')
    expect(headers['content-security-policy']).toContain(`frame-src http://*.localhost:${host.split(':')[1]}`)
  })

  it('stores no section without an element in the page, and none with an ID that files don’t keep', async () => {
    const key = await make()
    const { body: read } = await http().get(`/api/sites/${key}/pages/p1`).expect(200)
    const at = read.reading.candidates[0].at as number
    const add = (over: object) =>
      http()
        .post(`/api/sites/${key}/changes`)
        .send({
          idempotencyKey: `key-${Math.random()}`,
          baseVersion: 0,
          command: {
            type: 'section/add',
            page: 'p1',
            section: {
              key: 's',
              at,
              point: null,
              title: 'A',
              id: 'a',
              sourceId: null,
              former: [],
              heading: null,
              depth: 0,
              toTop: false,
              ...over,
            },
          },
          undoes: null,
        })
    expect((await add({ at: at + 1 }).expect(422)).body).toMatchObject({
      code: 'no-element',
      message: expect.stringContaining(`${at + 1}`),
    })
    expect((await add({ block: at + 1 }).expect(422)).body).toMatchObject({ code: 'no-element' })
    for (const id of ['a\u0007b', 'a\u0000', '\ud800'])
      expect((await add({ id }).expect(422)).body.message).toContain('contains a character that files don’t keep')
    const { body } = await http().get(`/api/sites/${key}`).expect(200)
    expect(body.version).toBe(0)
    await add({}).expect(200)
  })

  it('reports what is too large or missing, and other hosts, always with the policies', async () => {
    const large = `{"idempotencyKey":"${'x'.repeat(25 * 1024 * 1024)}"}`
    const { body } = await http().post('/api/sites/none/changes').set('Content-Type', 'application/json').send(large).expect(413)
    expect(body).toMatchObject({ code: 'too-big', message: expect.stringContaining('smaller steps') })
    await http().post('/api/sites/none/changes').set('Content-Type', 'application/json').send('{"a":').expect(400)
    await http().get('/assets/not-there.js').expect(404)
    await http().head('/').expect(200)
    const { headers } = await http().get('/api/sites').set('Host', 'rebound.example').expect(421)
    expect(headers['content-security-policy']).toContain("default-src 'self'")
    expect(headers['x-content-type-options']).toBe('nosniff')
  })
})

describe('handover', () => {
  it('gives the page with its edits in its own character set, and a ZIP with its files', async () => {
    const key = await make()
    const { body: read } = await http().get(`/api/sites/${key}/pages/p1`)
    const at = read.reading.candidates[0].at as number
    const setUp = {
      sections: [
        { key: 's1', at, point: null, title: 'Work', id: 'work', sourceId: null, former: [], heading: null, depth: 0, toTop: true },
      ],
      menus: [],
      header: null,
      travel: { smooth: true, breathing: 10 },
      highlight: { bellOffset: 10 },
    } as const
    await change(key, { type: 'page/set-up', page: 'p1', setUp: structuredClone(setUp) as never }, 0).expect(200)
    const { body: view } = await http().get(`/api/sites/${key}/pages/p1/handover`).expect(200)
    const { body: file } = await http().post(`/api/sites/${key}/pages/p1/handover/page`).buffer(true).parse(raw).expect(200)
    expect(file.includes(Buffer.from('caf\xe9', 'latin1'))).toBe(true)
    expect(file.includes(Buffer.from('<section id="work">'))).toBe(true)
    // The script may be had small, and both sizes are told.
    const { body: small } = await http().get(`/api/sites/${key}/pages/p1/handover?script=small`).expect(200)
    expect(small.script).toEqual(view.script)
    expect(view.bytes - small.bytes).toBe(view.script.plain.bytes - view.script.small.bytes)
    expect(view.script.small.packed).toBeLessThan(view.script.plain.packed)
    await http().post(`/api/sites/${key}/pages/p1/handover/page?script=tiny`).expect(400)
    // Offsets are those of the original: what earlier edits put in comes on top.
    let shift = 0
    const parts: Buffer[] = []
    let from = 0
    for (const e of view.edits as { offset: number; removed: string; inserted: string }[]) {
      parts.push((file as Buffer).subarray(from, e.offset + shift), Buffer.from(e.removed, 'latin1'))
      from = e.offset + shift + Buffer.byteLength(e.inserted, 'latin1')
      shift += e.inserted.length - e.removed.length
    }
    const back = Buffer.concat([...parts, (file as Buffer).subarray(from)])
    expect(back).toEqual(bytes)
    // Reading never writes, and a link on somebody's page can't write either.
    for (const form of ['page', 'zip']) {
      const path = `/api/sites/${key}/pages/p1/handover/${form}`
      await http().get(path).expect(404)
      await http().head(path).expect(404)
      await http().post(path).set('Origin', 'http://example.com').expect(403)
    }
    // Looked at, it was not taken home; taken, it is remembered with its version and its IDs, and gone with its site.
    const taken = async () =>
      (await http().get(`/api/sites/${key}/pages/p1/handovers`).expect(200)).body as { version: number; ids: string[] }[]
    expect((await taken()).map(({ version, ids }) => [version, ids])).toEqual([[1, ['work']]])
    const { body: zip } = await http().post(`/api/sites/${key}/pages/p1/handover/zip`).buffer(true).parse(raw).expect(200)
    const archive = join(mkdtempSync(join(tmpdir(), 'waybell-zip-')), 'a.zip')
    writeFileSync(archive, zip as Buffer)
    expect(execFileSync('python3', ['-m', 'zipfile', '-l', archive]).toString()).toMatch(/css\/look\.css[\s\S]*/)
    expect(await taken()).toHaveLength(2)
  })
})

const raw = (response: request.Response, done: (error: Error | null, body: Buffer) => void) => {
  const res = response as unknown as NodeJS.ReadableStream
  const chunks: Buffer[] = []
  res.on('data', (c: Buffer) => chunks.push(c))
  res.on('end', () => done(null, Buffer.concat(chunks)))
}

it('lists a site with its page, open findings and last handover', async () => {
  const key = await make()
  const overview = async () => (await http().get(`/api/sites/${key}/overview`).expect(200)).body as unknown
  const summary = async () => ((await http().get('/api/sites').expect(200)).body as { key: string }[]).find((s) => s.key === key)
  expect(await summary()).toMatchObject({ file: 'index.html', pages: 1, isNew: true, screen: { key: 'laptop', width: 1280 } })
  expect(await overview()).toEqual({ findings: 0, handedOverAt: null })

  // The second section takes the ID of the first's link, and its menu's links lead nowhere yet.
  const section = {
    key: 's1',
    at: page.indexOf('<section'),
    title: 'Work',
    heading: page.indexOf('<h2'),
    id: 'work',
    point: null,
    sourceId: null,
    former: [],
    depth: 0,
    toTop: false,
  }
  const { body } = await change(key, { type: 'section/add', page: 'p1', section } as never, 0)
  expect(body).toMatchObject({ version: 1 })
  const before = Date.now()
  await http().post(`/api/sites/${key}/pages/p1/handover/page`).expect(200)
  const { findings, handedOverAt } = (await overview()) as { findings: number; handedOverAt: number }
  expect(findings).toBeGreaterThan(0)
  expect(handedOverAt).toBeGreaterThanOrEqual(before)
  expect(await summary()).toMatchObject({ isNew: false, sections: 1 })
  await http().get('/api/sites/nothere/overview').expect(404)
})

it('writes ahead, with full sync', async () => {
  expect(await db.query('PRAGMA journal_mode')).toEqual([{ journal_mode: 'wal' }])
  expect(await db.query('PRAGMA synchronous')).toEqual([{ synchronous: 2 }])
})
