/** The real application, on its own data. */
import { expect, type Page } from '@playwright/test'
import { spawn, type ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { once } from 'node:events'
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { zipSync } from 'fflate'
import { freshFolder, repository } from './cli.ts'

export class Server {
  private child: ChildProcess | null = null
  address = ''
  port = 0

  /** @param demo makes the demo site on its first run */
  constructor(
    readonly data = freshFolder(),
    demo = false,
  ) {
    if (!demo) writeFileSync(join(data, 'demo-made'), '')
  }

  async start(port = 0): Promise<this> {
    const child = spawn(process.execPath, [join(repository, 'apps/server/dist/main.js')], {
      env: { ...process.env, WAYBELL_DATA: this.data, WAYBELL_PORT: String(port) },
    })
    this.child = child
    let out = ''
    child.stderr.on('data', (chunk: Buffer) => (out += chunk.toString()))
    await new Promise<void>((done, failed) => {
      child.stdout.on('data', (chunk: Buffer) => {
        out += chunk.toString()
        const found = /http:\/\/127\.0\.0\.1:(\d+)/.exec(out)
        if (!found) return
        this.address = found[0]
        this.port = Number(found[1])
        done()
      })
      child.on('exit', () => failed(new Error(`the server ended: ${out}`)))
    })
    return this
  }

  /** As a crash would. */
  async kill(): Promise<void> {
    const child = this.child!
    this.child = null
    child.removeAllListeners('exit')
    const gone = once(child, 'exit')
    child.kill('SIGKILL')
    await gone
  }

  async stop(): Promise<void> {
    if (this.child) await this.kill()
  }
}

/** Waits until the page is measured and shown on all screens. */
export async function measured(page: Page): Promise<void> {
  const timeout = 300_000
  const screens = page.getByRole('radiogroup', { name: 'Screen' }).getByRole('radio')
  const ready = page.locator('iframe[data-state="ready"]')
  await expect(screens.first()).toBeAttached({ timeout })
  await expect.poll(async () => (await ready.count()) - (await screens.count()), { timeout }).toBe(0)
  await expect(page.getByRole('region', { name: 'Live page' })).toHaveAttribute('data-stale', '0', { timeout })
}

export interface File {
  name: string
  mimeType: string
  buffer: Buffer
}

/** Makes a site of these files with laptop and phone only, because more screens cost time. @returns its key */
export async function make({ address }: Server, files: readonly File[]): Promise<string> {
  const form = new FormData()
  for (const { name, mimeType, buffer } of files) form.append('files', new Blob([new Uint8Array(buffer)], { type: mimeType }), name)
  const send = async <T>(to: string, init?: RequestInit): Promise<T> => {
    const answer = await fetch(`${address}/api/sites${to}`, init)
    const said = await answer.text()
    if (!answer.ok) throw new Error(said)
    return JSON.parse(said) as T
  }
  const { key } = await send<{ key: string }>('', { method: 'POST', body: form })
  const { document, version } = await send<{ document: { screens: { key: string }[] }; version: number }>(`/${key}`)
  const others = document.screens.map((s) => s.key).filter((k) => k !== 'laptop' && k !== 'phone')
  const command = { type: 'batch', label: 'Two screens', commands: others.map((screen) => ({ type: 'screen/drop', screen })) }
  const change = { idempotencyKey: randomUUID(), baseVersion: version, command, undoes: null }
  await send(`/${key}/changes`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(change) })
  return key
}

export const stored = (page: Page) => expect(page.getByTestId('storing')).toHaveText('stored')

/** The demo's pages as they came, without set-up. */
export const demo: File = {
  name: 'ostrey.zip',
  mimeType: 'application/zip',
  buffer: Buffer.from(
    zipSync(
      Object.fromEntries(
        [
          'index.html',
          'last-year.html',
          'travel.html',
          'sky-week.css',
          'sky-week.js',
          ...readdirSync(join(repository, 'demo/ostrey/img')).map((f) => `img/${f}`),
        ].map((file) => [file, readFileSync(join(repository, 'demo/ostrey', file))]),
      ),
    ),
  ),
}

/** Its first page, measured. */
export async function openSite(page: Page, server: Server, key: string): Promise<void> {
  await page.goto(`${server.address}/site/${key}/p1/sections`)
  await measured(page)
}

export async function openDemo(page: Page, server: Server): Promise<void> {
  await openSite(page, server, await make(server, [demo]))
}

export async function setUp(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Set everything up', exact: true }).click()
  await stored(page)
  await expect(page.getByRole('button', { name: 'Set everything up again' })).toBeVisible()
}

export const liveFrame = (page: Page, screen = 'laptop') => page.frameLocator(`iframe[data-screen="${screen}"]`)

export const task = (page: Page, name: string) => page.getByRole('navigation', { name: 'Tasks' }).getByRole('link', { name }).click()
