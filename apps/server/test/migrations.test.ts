import 'reflect-metadata'
import { defaultRule, type Site } from '@waybell/core'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { DataSource } from 'typeorm'
import { createApplication } from '../src/application.ts'
import { entities } from '../src/db/entities.ts'
import { migrations } from '../src/db/migrations.ts'
import { ChangesService } from '../src/sites/changes.service.ts'
import { SitesService } from '../src/sites/sites.service.ts'

/** A site as the first version stored it: a title changed, an ID changed, and the first change taken back. */
const section = { key: 's9', at: 9, title: 'Work', id: 'work', heading: null, toTop: true }
const document = {
  format: 'way-bell-site',
  version: 1,
  name: 'Old',
  rule: { separator: '_', longest: 30, beforeDigit: 'n' },
  screens: [],
  pages: [
    {
      key: 'p1',
      file: 'index.html',
      source: 'a'.repeat(64),
      title: 'T',
      sections: [section],
      menus: [],
      header: null,
      bar: 'top',
      travel: { smooth: true, breathing: 24 },
      highlight: { bellOffset: 24 },
    },
  ],
}
/** As version 3 has it. */
const pageWithoutBar = Object.fromEntries(Object.entries(document.pages[0]!).filter(([name]) => name !== 'bar'))
const log = [
  [
    { type: 'section/add', page: 'p1', section },
    { type: 'section/drop', page: 'p1', section: 's9' },
  ],
  [
    { type: 'section/id', page: 'p1', section: 's9', id: 'work' },
    { type: 'section/id', page: 'p1', section: 's9', id: 'our-work' },
  ],
]

/** A database as an earlier version left it. @param count how many migrations it had run */
async function databaseAfter(count: number): Promise<{ data: string; old: DataSource }> {
  const data = mkdtempSync(join(tmpdir(), 'waybell-old-'))
  writeFileSync(join(data, 'demo-made'), '')
  const old = new DataSource({
    type: 'better-sqlite3',
    database: join(data, 'waybell.sqlite'),
    entities,
    migrations: migrations.slice(0, count),
    migrationsRun: true,
    synchronize: false,
  })
  return { data, old: await old.initialize() }
}

it('upgrades a database of the first version, with its undo', async () => {
  const { data, old } = await databaseAfter(1)
  await old.query(`INSERT INTO "site" VALUES ('oldsite', ?, 2, 1000)`, [JSON.stringify(document)])
  for (const [i, [command, inverse]] of log.entries())
    await old.query(
      `INSERT INTO "change" ("site", "version", "idempotencyKey", "command", "inverse", "undoes", "at") VALUES ('oldsite', ?, ?, ?, ?, NULL, 1000)`,
      [i + 1, `key-${i}`, JSON.stringify(command), JSON.stringify(inverse)],
    )
  await old.destroy()

  const app = await createApplication({ data, port: 0 })
  await app.init()
  const sites = app.get(SitesService)
  const { document: now, stacks } = await sites.get('oldsite')
  const full = { ...section, point: null, sourceId: null, former: [], depth: 0 }
  expect(now).toEqual({
    ...document,
    version: 4,
    rule: { ...defaultRule, ...document.rule },
    pages: [{ ...pageWithoutBar, sections: [full] }],
  } as unknown as Site)
  await app
    .get(ChangesService)
    .change('oldsite', { idempotencyKey: 'undo-1234', baseVersion: 2, tab: null, command: stacks.undo.at(-1)!.inverse, undoes: 2 })
  expect((await sites.get('oldsite')).document.pages[0]!.sections[0]).toMatchObject({ id: 'our-work', former: [] })
  await app.close()
})

it('upgrades a database of the second version with its menus, and undo restores a bar’s place', async () => {
  const { data, old } = await databaseAfter(3)
  const full = { ...section, point: null, own: null, former: [], depth: 0 }
  const items = [{ key: 'm1-0', label: 'Work', target: { kind: 'section', section: 's9' }, link: null }]
  const rest = { header: null, travel: { smooth: true, breathing: 24 }, highlight: { bellOffset: 24 } }
  const setUp = { sections: [full], menus: [{ key: 'm1', name: 'M', at: null, items }], bar: 'after-header', ...rest }
  const site = { ...document, version: 2, rule: defaultRule, pages: [{ ...document.pages[0], ...setUp, menus: [] }] }
  await old.query(`INSERT INTO "site" VALUES ('oldsite', ?, 2, 1000)`, [JSON.stringify(site)])
  const changes = [
    [
      { type: 'page/set-up', page: 'p1', setUp },
      { type: 'page/set-up', page: 'p1', setUp: { sections: [], menus: [], bar: 'top', ...rest } },
    ],
    [
      { type: 'menu/drop', page: 'p1', menu: 'm1' },
      { type: 'menu/add', page: 'p1', menu: setUp.menus[0], index: 0 },
    ],
  ]
  for (const [i, [command, inverse]] of changes.entries())
    await old.query(
      `INSERT INTO "change" ("site", "version", "idempotencyKey", "command", "inverse", "undoes", "at") VALUES ('oldsite', ?, ?, ?, ?, NULL, 1000)`,
      [i + 1, `key-${i}`, JSON.stringify(command), JSON.stringify(inverse)],
    )
  await old.destroy()

  const app = await createApplication({ data, port: 0 })
  await app.init()
  const sites = app.get(SitesService)
  const { stacks } = await sites.get('oldsite')
  await app
    .get(ChangesService)
    .change('oldsite', { idempotencyKey: 'undo-1234', baseVersion: 2, tab: null, command: stacks.undo.at(-1)!.inverse, undoes: 2 })
  expect((await sites.get('oldsite')).document.pages[0]!.menus).toEqual([
    {
      key: 'm1',
      name: 'M',
      form: { kind: 'bar', place: 'after-header' },
      items: [{ key: 'm1-0', label: 'Work', target: items[0]!.target, links: [] }],
    },
  ])
  await app.close()
})

it('rebuilds undo and redo from the log of an earlier version', async () => {
  const { data, old } = await databaseAfter(6)
  const site = { ...document, version: 3, rule: defaultRule, pages: [] }
  for (const key of ['undone', 'redone']) await old.query(`INSERT INTO "site" VALUES (?, ?, 5, 1000)`, [key, JSON.stringify(site)])
  const rename = JSON.stringify({ type: 'site/rename', name: 'x' })
  const logs = { undone: [null, null, 2, null, 4], redone: [null, null, 2, 1, 4] }
  for (const [key, undoes] of Object.entries(logs))
    for (const [i, version] of undoes.entries())
      await old.query(
        `INSERT INTO "change" ("site", "version", "idempotencyKey", "command", "inverse", "undoes", "at") VALUES (?, ?, ?, ?, ?, ?, 1000)`,
        [key, i + 1, `key-${i}`, rename, rename, version],
      )
  await old.destroy()

  const app = await createApplication({ data, port: 0 })
  await app.init()
  const stacks = async (key: string) => {
    const { undo, redo } = (await app.get(SitesService).get(key)).stacks
    return [undo.map((c) => c.version), redo.map((c) => c.version)]
  }
  expect(await stacks('undone')).toEqual([[1], [5]])
  expect(await stacks('redone')).toEqual([[5], [3]])
  await app.close()
})

it('upgrades the names of a third-version database, and its undo brings the page’s own offsets back', async () => {
  const { data, old } = await databaseAfter(7)
  const full = { ...section, point: null, own: 'work', former: [], depth: 0 }
  const travel = { smooth: true, breathing: 8 }
  const site = { ...document, version: 3, rule: defaultRule, pages: [{ ...pageWithoutBar, sections: [full], travel }] }
  await old.query(`INSERT INTO "site" VALUES ('oldsite', ?, 1, 1000)`, [JSON.stringify(site)])
  await old.query(
    `INSERT INTO "change" ("site", "version", "idempotencyKey", "command", "inverse", "undoes", "stack", "at") VALUES ('oldsite', 1, 'key-0', ?, ?, NULL, 'undo', 1000)`,
    [
      JSON.stringify({ type: 'travel/breathing', page: 'p1', breathing: 8 }),
      JSON.stringify({ type: 'travel/breathing', page: 'p1', breathing: 24, own: true }),
    ],
  )
  await old.destroy()

  const app = await createApplication({ data, port: 0 })
  await app.init()
  const sites = app.get(SitesService)
  const { document: now, stacks } = await sites.get('oldsite')
  expect([now.version, now.pages[0]!.sections[0]!.sourceId]).toEqual([4, 'work'])
  await app
    .get(ChangesService)
    .change('oldsite', { idempotencyKey: 'undo-1234', baseVersion: 1, tab: null, command: stacks.undo.at(-1)!.inverse, undoes: 1 })
  expect((await sites.get('oldsite')).document.pages[0]!.travel).toEqual({ smooth: true, breathing: 24, pageOffsets: true })
  await app.close()
})
