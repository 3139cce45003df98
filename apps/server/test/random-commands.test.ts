/**
 * Random commands of every kind, drawn from the shapes that the server checks: whatever it stores, each page can still be handed over. Some here;
 * `npm run attack` sets WAYBELL_COMMANDS and tries many more.
 */
import 'reflect-metadata'
import type { NestExpressApplication } from '@nestjs/platform-express'
import { commandKinds, setUpPages, type Command, type PageReading, type Site } from '@waybell/core'
import { commandSchema } from '@waybell/core/schema'
import type { Description } from 'joi'
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import request from 'supertest'
import { createApplication } from '../src/application.ts'

const COUNT = Number(process.env.WAYBELL_COMMANDS ?? 150)
const demo = join(import.meta.dirname, '../../../demo/ostrey')

function numbers(seed: number): () => number {
  let state = seed
  return () => {
    state = (state * 1664525 + 1013904223) % 4294967296
    return state / 4294967296
  }
}

/** What a Joi schema says of itself, as far as it is read here. */
interface Shape extends Description {
  type: string
  flags?: { only?: boolean; presence?: string }
  allow?: unknown[]
  rules?: { name: string; args?: { limit?: number; regex?: string } }[]
  keys?: Record<string, Shape>
  items?: Shape[]
  matches?: { schema?: Shape; then?: Shape; switch?: { then: Shape }[] }[]
}

/** Draws values of a shape; names and places are mostly those that the site has. */
class Drawing {
  constructor(
    private readonly next: () => number,
    private readonly site: Site,
    private readonly places: readonly number[],
  ) {}

  pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.next() * list.length)]!
  }

  command(kinds: readonly Shape[]): Command {
    return this.of(this.pick(kinds), '') as Command
  }

  private of(shape: Shape, name: string): unknown {
    const allowed = (shape.allow ?? []).filter((v) => !(v && typeof v === 'object' && 'override' in v))
    if (allowed.length && (shape.flags?.only || this.next() < 0.15)) return this.pick(allowed)
    switch (shape.type) {
      case 'object':
        return Object.fromEntries(
          Object.entries(shape.keys ?? {}).flatMap(([key, of]) =>
            of.flags?.presence === 'optional' && this.next() < 0.5 ? [] : [[key, this.of(of, key)]],
          ),
        )
      case 'array':
        return Array.from({ length: Math.floor(this.next() * 4) }, () => this.of(this.pick(shape.items!), name))
      case 'alternatives': {
        const ways = shape.matches!.flatMap((m) => m.schema ?? m.then ?? m.switch?.map((s) => s.then) ?? [])
        return this.of(this.pick(ways), name)
      }
      case 'boolean':
        return this.next() < 0.5
      case 'number':
        return this.number(shape, name)
      case 'string':
        return this.text(shape, name)
      default:
        return null
    }
  }

  private number({ rules = [] }: Shape, name: string): number {
    const limit = (of: string, otherwise: number) => rules.find((r) => r.name === of)?.args?.limit ?? otherwise
    if (/^(at|heading|block|scroller|shutBy|elements|links)$/.test(name) && this.next() < 0.95) return this.pick(this.places)
    const [least, most] = [limit('min', 0), limit('max', 500)]
    const drawn = least + this.next() * (Math.min(most, 500) - least)
    return rules.some((r) => r.name === 'integer') ? Math.round(drawn) : drawn
  }

  private text({ rules = [] }: Shape, name: string): string {
    const page = this.pick(this.site.pages)
    const known: Record<string, readonly string[]> = {
      page: this.site.pages.map((p) => p.key),
      section: page.sections.map((s) => s.key),
      menu: page.menus.map((m) => m.key),
      item: page.menus.flatMap((m) => m.items.map((i) => i.key)),
      screen: this.site.screens.map((s) => s.key),
      screens: this.site.screens.map((s) => s.key),
      source: [page.source],
    }
    if (known[name]?.length && this.next() < 0.95) return this.pick(known[name])
    const words = [
      'a',
      'Work & <more>',
      'the',
      'id-1',
      '#fff000',
      '#123456',
      'https://x.example/',
      'en',
      'ease',
      'a'.repeat(64),
      'top',
      'é"',
    ]
    const fits = words.filter((w) => rules.every((r) => r.name !== 'pattern' || regexOf(r.args!.regex!).test(w)))
    return this.pick(fits.length ? fits : words)
  }
}

function regexOf(text: string): RegExp {
  const end = text.lastIndexOf('/')
  return new RegExp(text.slice(1, end), text.slice(end + 1))
}

let app: NestExpressApplication
let key: string
const http = () => request.agent(app.getHttpServer()).set('Host', '127.0.0.1')
const get = (path: string) => http().get(`/api/sites/${key}${path}`)
let sent = 0
const change = (command: Command, baseVersion: number) =>
  http()
    .post(`/api/sites/${key}/changes`)
    .send({ idempotencyKey: `random-${++sent}`, baseVersion, command, undoes: null })

beforeAll(async () => {
  const data = mkdtempSync(join(tmpdir(), 'waybell-random-'))
  writeFileSync(join(data, 'demo-made'), '')
  app = await createApplication({ data, port: 0 })
  await app.init()
  let post = http().post('/api/sites')
  for (const file of readdirSync(demo).filter((f) => /\.(html|css|js)$/.test(f)))
    post = post.attach('files', readFileSync(join(demo, file)), file)
  key = ((await post.expect(201)).body as { key: string }).key
})
afterAll(() => app.close())

it(
  'everything stored can be handed over',
  async () => {
    const next = numbers(Number(process.env.WAYBELL_SEED ?? 1))
    const all = commandSchema.describe() as Shape
    const kinds = all.matches![0]!.switch!.map((s) => s.then).filter((s) => s.keys && !('commands' in s.keys))
    expect(kinds).toHaveLength(Object.keys(commandKinds).length)
    const stored = new Map<string, number>()
    const faults: string[] = []
    let { body: now } = (await get('')) as { body: { document: Site; version: number } }
    const pages = []
    for (const { key: page } of now.document.pages)
      pages.push({ page, reading: ((await get(`/pages/${page}`)).body as { reading: PageReading }).reading, surveys: [] })
    await change(setUpPages(now.document, pages), 0).expect(200)
    now = (await get('')).body as typeof now
    const places = now.document.pages.flatMap((p) => [...readFileSync(join(demo, p.file), 'utf8').matchAll(/<[a-z]/g)].map((m) => m.index))
    for (let n = 0; n < COUNT; n++) {
      const command = new Drawing(next, now.document, places).command(kinds)
      const { status, body } = await change(command, now.version)
      if (status >= 500) faults.push(`${status} to ${JSON.stringify(command)}: ${JSON.stringify(body)}`)
      if (status !== 200) continue
      stored.set(command.type, (stored.get(command.type) ?? 0) + 1)
      now = (await get('')).body as typeof now
      for (const page of now.document.pages) {
        const answer = await get(`/pages/${page.key}/handover`)
        if (answer.status !== 200) faults.push(`the handover answers ${answer.status} after ${JSON.stringify(command).slice(0, 600)}`)
      }
      if (faults.length > 3) break
    }
    expect(faults).toEqual([])
    // What is refused proves nothing.
    expect(stored.size).toBeGreaterThan(20)
  },
  60_000 + COUNT * 1000,
)
