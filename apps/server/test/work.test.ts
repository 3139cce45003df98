/** Several pages, histories, new versions, and what breaks off half-way. */
import 'reflect-metadata'
import type { NestExpressApplication } from '@nestjs/platform-express'
import type { Command, Site } from '@waybell/core'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { get } from 'node:http'
import { connect } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import request from 'supertest'
import { DataSource } from 'typeorm'
import { createApplication } from '../src/application.ts'
import { ContentRow, FileRow, SiteRow } from '../src/db/entities.ts'
import { Store } from '../src/db/store.ts'
import { SitesService } from '../src/sites/sites.service.ts'

let app: NestExpressApplication
let host: string

beforeAll(async () => {
  const data = mkdtempSync(join(tmpdir(), 'waybell-test-'))
  writeFileSync(join(data, 'demo-made'), '')
  app = await createApplication({ data, port: 0 })
  await app.listen(0, '127.0.0.1')
  host = `127.0.0.1:${(app.getHttpServer().address() as { port: number }).port}`
})
afterAll(() => app.close())

const http = () => request(`http://${host}`)
const state = async (key: string) => (await http().get(`/api/sites/${key}`).expect(200)).body as { document: Site; version: number }
const change = (key: string, command: Command, baseVersion: number) =>
  http()
    .post(`/api/sites/${key}/changes`)
    .send({ idempotencyKey: `key-${Math.random()}`, baseVersion, command, undoes: null })
const first =
  '<nav><a href="#work">Work</a><a href="#team">Team</a></nav><section id=work><h2>Our work in wood</h2><p>Tables, chairs, boats.</p></section><section id=team><h2>The team</h2><p>Ada planes and Bo saws.</p></section>'
const second = first.replace('id=work', 'id=projects').replace('</nav>', '</nav><p>New words in front.</p>')

async function make(...files: [string, string | Buffer][]): Promise<string> {
  let post = http().post('/api/sites')
  for (const [name, content] of files) post = post.attach('files', Buffer.from(content), { filepath: name } as never)
  return ((await post.expect(201)).body as { key: string }).key
}

it('makes a page of each HTML file, and adds more as one change', async () => {
  const key = await make(['s/index.html', first], ['s/sub/more.html', '<img src="../i/p.png"><h1>More</h1>'], ['s/i/p.png', 'png'])
  expect((await state(key)).document.pages.map((p) => [p.key, p.file])).toEqual([
    ['p1', 'index.html'],
    ['p2', 'sub/more.html'],
  ])
  expect((await http().get(`/api/sites/${key}/pages/p2`).expect(200)).body.missing).toEqual([])
  const { body } = await http()
    .post(`/api/sites/${key}/pages/p1/files`)
    .attach('files', Buffer.from('<h1>Third</h1>'), 'third.html')
    .expect(201)
  expect(body).toEqual({ pages: ['p3'] })
  const now = await state(key)
  expect([now.version, now.document.pages.length]).toEqual([1, 3])
  await http().get('/third.html').set('Host', `${key}.localhost:1`).expect(200)
  const known = await http()
    .post(`/api/sites/${key}/pages/p1/files`)
    .attach('files', Buffer.from('<h1>Again</h1>'), 'third.html')
    .expect(409)
  expect(known.body.message).toContain('already has the page “third.html”')
  await change(key, { type: 'page/drop', page: 'p3' }, 1).expect(200)
  expect((await http().get(`/api/sites/${key}/log`).expect(200)).body.map((e: { what: string }) => e.what)).toEqual([
    'Remove a page',
    'Add a page',
  ])
})

it('names a state and goes back to it, as a change that can be undone', async () => {
  const key = await make(['index.html', first])
  for (const [i, name] of ['One', 'Two', 'Three'].entries()) await change(key, { type: 'site/rename', name }, i).expect(200)
  await http().put(`/api/sites/${key}/log/1`).send({ name: 'The first' }).expect(204)
  await http().put(`/api/sites/${key}/log/9`).send({ name: 'x' }).expect(404)
  const { body: log } = await http().get(`/api/sites/${key}/log`).expect(200)
  expect(log.map((e: { version: number; name: string | null }) => [e.version, e.name])).toEqual([
    [3, null],
    [2, null],
    [1, 'The first'],
  ])
  const back = (version: number, baseVersion: number) =>
    http()
      .post(`/api/sites/${key}/back`)
      .send({ idempotencyKey: `back-${Math.random()}`, baseVersion, version })
  expect((await back(1, 3).expect(200)).body).toEqual({ version: 4 })
  expect((await state(key)).document.name).toBe('One')
  await back(3, 4).expect(200)
  expect((await state(key)).document.name).toBe('Three')
  await back(5, 5).expect(404)
})

it('sends versions to every listener, also to a thousand', async () => {
  const key = await make(['index.html', first])
  const heard: number[][] = Array.from({ length: 1000 }, () => [])
  const pattern = new RegExp(`"site":"${key}","version":(\\d+)`, 'g')
  const streams = heard.map((own) =>
    get({ host: '127.0.0.1', port: host.split(':')[1], path: '/api/versions', agent: false }, (response) =>
      response.on('data', (chunk: Buffer) => own.push(...[...chunk.toString().matchAll(pattern)].map((m) => Number(m[1])))),
    ),
  )
  const until = async (length: number) => {
    for (let i = 0; heard.some((own) => own.length < length) && i < 1000; i++) await new Promise((done) => setTimeout(done, 10))
  }
  await until(1)
  const asked = jest.spyOn(app.get(Store), 'read')
  await change(key, { type: 'site/rename', name: 'Told' }, 0).expect(200)
  await until(2)
  // Nothing is looked up for a listener: an answer that took as long as there are tabs would hold the next edit up.
  expect(asked).not.toHaveBeenCalled()
  asked.mockRestore()
  for (const stream of streams) stream.destroy()
  expect(new Set(heard.map(String))).toEqual(new Set(['0,1']))
})

it('compares a new version without changing the site, and takes it over in one step', async () => {
  const key = await make(['index.html', first])
  const { body: read } = await http().get(`/api/sites/${key}/pages/p1`).expect(200)
  const sections = read.reading.candidates
    .filter((c: { offered: boolean }) => c.offered)
    .map((c: { at: number; title: string; id: string; heading: number; depth: number }) => ({
      key: `s${c.at}`,
      at: c.at,
      point: null,
      title: c.title,
      id: c.id,
      sourceId: c.id,
      former: [],
      heading: c.heading,
      depth: 0,
      toTop: false,
    }))
  await change(
    key,
    {
      type: 'page/set-up',
      page: 'p1',
      setUp: { sections, menus: [], header: null, travel: { smooth: true, breathing: 9 }, highlight: { bellOffset: 9 } },
    },
    0,
  ).expect(200)
  const before = await state(key)
  const { body: review } = await http()
    .post(`/api/sites/${key}/pages/p1/review`)
    .attach('files', Buffer.from(second), 'index.html')
    .expect(200)
  expect(review.rows.map((r: { state: string; doubtful: boolean }) => [r.state, r.doubtful])).toEqual([
    ['changed', false],
    ['matched', false],
  ])
  expect(await state(key)).toEqual(before)
  const decisions = {
    sections: Object.fromEntries(review.rows.map((r: { section: string; to: { at: number } }) => [r.section, r.to.at])),
    added: [],
  }
  await http()
    .post(`/api/sites/${key}/pages/p1/revise`)
    .send({ idempotencyKey: 'taking-over', baseVersion: 1, source: review.source, decisions })
    .expect(200, { version: 2 })
  const after = await state(key)
  expect(after.document.pages[0]!.sections.map((s) => [s.id, s.former])).toEqual([
    ['projects', ['work']],
    ['team', []],
  ])
  expect(after.document.pages[0]!.travel.breathing).toBe(9)
  const { text } = await http().get('/').set('Host', `${key}.localhost:1`).expect(200)
  expect(text).toContain('New words in front.')
  await http().post(`/api/sites/${key}/pages/p1/review`).attach('files', Buffer.from('only words'), 'index.html').expect(422)
})

it('refuses a page without stored bytes', async () => {
  const key = await make(['index.html', first])
  const page = { ...(await state(key)).document.pages[0]!, key: 'p2', file: 'x.html', source: 'f'.repeat(64) }
  const { body } = await change(key, { type: 'page/add', page, index: 1 }, 0).expect(422)
  expect(body.code).toBe('no-source')
})

it('stores nothing of a broken upload', async () => {
  const db = app.get(DataSource).manager
  const count = async () => [await db.count(SiteRow), await db.count(FileRow), await db.count(ContentRow)]
  const before = await count()
  const boundary = 'xyz'
  const head = `--${boundary}\r\nContent-Disposition: form-data; name="files"; filename="index.html"\r\nContent-Type: text/html\r\n\r\n`
  const port = Number(host.split(':')[1])
  await new Promise<void>((done) => {
    const socket = connect(port, '127.0.0.1', () => {
      socket.write(
        `POST /api/sites HTTP/1.1\r\nHost: ${host}\r\nContent-Type: multipart/form-data; boundary=${boundary}\r\nContent-Length: 100000\r\n\r\n${head}${first}`,
      )
      setTimeout(() => {
        socket.destroy()
        done()
      }, 100)
    })
  })
  await http().get('/api/sites').expect(200)
  expect(await count()).toEqual(before)
})

it('removes unused content, and keeps what another site uses', async () => {
  const content = () => app.get(DataSource).getRepository(ContentRow).count()
  const before = await content()
  const [one, two] = [
    await make(['index.html', first + '<!-- 1 -->'], ['a.css', 'shared']),
    await make(['index.html', second + '<!-- two -->'], ['b.css', 'shared']),
  ]
  const { body: review } = await http()
    .post(`/api/sites/${one}/pages/p1/review`)
    .attach('files', Buffer.from(first + '<!-- 2 -->'), { filepath: 'index.html' } as never)
    .expect(200)
  await http()
    .post(`/api/sites/${one}/pages/p1/revise`)
    .send({ idempotencyKey: 'revise-to-clear', baseVersion: 0, source: review.source, decisions: { sections: {}, added: [] } })
    .expect(200)
  expect(await content()).toBe(before + 4)
  await http().delete(`/api/sites/${one}`).expect(204)
  expect(await content()).toBe(before + 2)
  await http().get(`/api/sites/${two}/pages/p1`).expect(200)
  // One that was handed in and never taken over goes at the next start.
  await http()
    .post(`/api/sites/${two}/pages/p1/review`)
    .attach('files', Buffer.from(second + '<!-- never -->'), { filepath: 'index.html' } as never)
    .expect(200)
  await app.get(SitesService).onApplicationBootstrap()
  expect(await content()).toBe(before + 2)
  const { body } = await http().get('/api/storage').expect(200)
  expect(body.bytes).toBeGreaterThan(10_000)
})

it('stops on request, even with open listeners', async () => {
  const data = mkdtempSync(join(tmpdir(), 'waybell-test-'))
  const other = await createApplication({ data, port: 0 })
  await other.listen(0, '127.0.0.1')
  const address = `http://127.0.0.1:${(other.getHttpServer().address() as { port: number }).port}`
  const ended = new Promise((done) =>
    get(`${address}/api/versions`, (response) =>
      response
        .resume()
        .on('close', done)
        .once('data', () => void other.close()),
    ).on('error', done),
  )
  await ended
})
