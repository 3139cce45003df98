import 'reflect-metadata'
import type { INestApplication } from '@nestjs/common'
import type { Command, Section } from '@waybell/core'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { createApplication } from '../src/application.ts'
import { readImport } from '../src/sites/import.ts'
import { ChangesService } from '../src/sites/changes.service.ts'
import { SitesService } from '../src/sites/sites.service.ts'

let app: INestApplication
const data = mkdtempSync(join(tmpdir(), 'waybell-turns-'))
beforeAll(async () => {
  app = await createApplication({ data, port: 0 })
  await app.init()
})
afterAll(() => app.close())

it('simultaneous changes are all stored or refused', async () => {
  const sites = app.get(SitesService)
  const changes = app.get(ChangesService)
  const text = `<main>${'<p>words</p>'.repeat(200)}</main>`
  const bytes = new TextEncoder().encode(text)
  const places = [...text.matchAll(/<p>/g)].map((m) => m.index)
  const { key } = await sites.create(readImport([{ name: 'index.html', bytes }]))
  const sections = Array.from({ length: 200 }, (_, n): Section => ({
    key: `s${n}`,
    at: places[n]!,
    point: { shift: 0 },
    title: '',
    id: `id-${n}`,
    sourceId: null,
    former: [],
    heading: null,
    depth: 0,
    toTop: false,
  }))
  const setUp = { sections, menus: [], header: null, travel: { smooth: true, breathing: 0 }, highlight: { bellOffset: 0 } }
  const first = await changes.change(key, {
    idempotencyKey: 'set-up-first',
    baseVersion: 0,
    tab: null,
    command: { type: 'page/set-up', page: 'p1', setUp },
    undoes: null,
  })
  const isGood = (n: number) => n % 4 !== 3
  const command = (n: number): Command =>
    isGood(n)
      ? { type: 'section/title', page: 'p1', section: `s${n}`, title: `Title ${n}` }
      : { type: 'section/drop', page: 'p1', section: 'nobody' }
  const answers = await Promise.allSettled(
    sections.flatMap((_, n) => {
      const send = () =>
        changes.change(key, {
          idempotencyKey: `change-${n}-of-200`,
          baseVersion: first.version,
          tab: null,
          command: command(n),
          undoes: null,
        })
      // Every seventh is sent again before its answer came.
      return n % 7 ? [send()] : [send(), send()]
    }),
  )
  const stored = new Set(answers.flatMap((a) => (a.status === 'fulfilled' ? a.value.version : [])))
  const { document, version } = await sites.get(key)
  expect(stored.size).toBe(150)
  expect(version).toBe(first.version + 150)
  expect(document.pages[0]!.sections.filter((s) => s.title !== '').map((s) => s.key)).toEqual(
    sections.flatMap((s, n) => (isGood(n) ? s.key : [])),
  )
  expect((await changes.log(key)).map((l) => l.version).filter((v) => stored.has(v))).toHaveLength(150)
  expect(
    answers
      .filter((a) => a.status === 'rejected')
      .map((a) => a.reason.message as string)
      .every((m) => m.includes('may have been removed')),
  ).toBe(true)
})
