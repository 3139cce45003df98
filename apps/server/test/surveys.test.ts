import 'reflect-metadata'
import type { INestApplication } from '@nestjs/common'
import { layoutOf, readPage, SURVEY_FORMAT, surveyKey, type Site, type Survey } from '@waybell/core'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import request from 'supertest'
import { createApplication } from '../src/application.ts'

let app: INestApplication
beforeAll(async () => {
  app = await createApplication({ data: mkdtempSync(join(tmpdir(), 'waybell-surveys-')), port: 0 })
  await app.listen(0, '127.0.0.1')
})
afterAll(() => app.close())
const http = () => request(app.getHttpServer() as never)

const html = '<nav><a href="#a">A</a><a href="#b">B</a></nav><section id="a"><h2>A</h2></section><section id="b"><h2>B</h2></section>'
const survey = (screen: string, over: Partial<Survey> = {}): Survey => ({
  format: SURVEY_FORMAT,
  screen,
  width: 1280,
  height: 800,
  scroller: null,
  pageHeight: 3000,
  ownHeight: 3000,
  maxScroll: 2200,
  parts: [],
  header: null,
  near: [],
  bottom: 0,
  menus: [],
  pictures: [],
  estimates: [],
  padding: 0,
  smooth: false,
  built: { menus: [], headings: [], targets: [] },
  rewrites: false,
  isHeld: false,
  looks: [],
  color: 'oklch(0.2 0.05 250)',
  background: 'color(srgb 1 1 1)',
  ...over,
})

it('are stored with their conditions, returned, and used for the handover while these hold', async () => {
  const { body: made } = await http().post('/api/sites').field('html', html).expect(201)
  const path = `/api/sites/${made.key}/pages/p1`
  const { document } = (await http().get(`/api/sites/${made.key}`).expect(200)).body as { document: Site }
  const { assets } = (await http().get(path).expect(200)).body as { assets: string }
  const page = document.pages[0]!
  const reading = readPage(new TextEncoder().encode(html))
  const layout = layoutOf({ page, pages: document.pages, reading, screens: document.screens })
  const keyOf = (scripts: boolean) => surveyKey({ source: page.source, assets, screen: document.screens[0]!, scripts, layout })
  const put = (body: object) => http().put(`${path}/surveys`).send(body)
  const sound = { source: page.source, scripts: true, surveys: [{ key: keyOf(true), survey: survey('laptop') }] }

  await put(sound).expect(200)
  await put({ ...sound, scripts: false, surveys: [{ key: keyOf(false), survey: survey('laptop', { maxScroll: 9 }) }] }).expect(200)
  const { body: kept } = await http().get(`${path}/surveys`).expect(200)
  expect(kept).toHaveLength(2)
  expect(kept).toContainEqual({ key: keyOf(true), scripts: true, survey: survey('laptop') })
  expect((await http().get(`${path}/handover`).expect(200)).body.measured).toEqual(['laptop'])

  // What is no survey of this format, or holds more than lengths and colours, is not taken.
  for (const bad of [
    { ...survey('laptop'), format: 1 },
    survey('laptop', { color: 'red; } x {' }),
    { ...survey('laptop'), maxScroll: null },
  ])
    await put({ ...sound, surveys: [{ key: keyOf(true), survey: bad }] }).expect(400)

  // The page is another: the last results are still there, and are not said to be of it.
  const section = {
    key: 's',
    at: reading.candidates[0]!.at,
    point: null,
    title: 'A',
    id: 'other',
    sourceId: 'a',
    former: ['a'],
    heading: null,
    depth: 0,
    toTop: false,
  }
  await http()
    .post(`/api/sites/${made.key}/changes`)
    .send({ idempotencyKey: 'add-a-section', baseVersion: 0, command: { type: 'section/add', page: 'p1', section }, undoes: null })
    .expect(200)
  expect((await http().get(`${path}/surveys`).expect(200)).body).toHaveLength(2)
  expect((await http().get(`${path}/handover`).expect(200)).body.measured).toEqual([])
})
