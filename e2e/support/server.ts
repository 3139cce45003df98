/** The real application, on data of its own. */
import { expect, type Page } from '@playwright/test'
import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { zipSync } from 'fflate'
import { freshFolder, repository } from './cli.ts'

export class Server {
  private child: ChildProcess | null = null
  address = ''
  port = 0

  /** @param demo on its first run it makes the demo site */
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

/** Until all screens are measured, of which there are so many. */
export async function measured(page: Page, screens = 2): Promise<void> {
  const timeout = 300_000
  await expect(page.locator('iframe[data-state="ready"]')).toHaveCount(screens, { timeout })
  await expect(page.getByRole('region', { name: 'Live page' })).toHaveAttribute('data-stale', '0', { timeout })
}

export const stored = (page: Page) => expect(page.getByTestId('storing')).toHaveText('stored')

/** The pages of the demo as they came, that nothing was made for yet. */
const demo = Buffer.from(
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
)

export async function openDemo(page: Page, server: Server): Promise<void> {
  await page.goto(server.address)
  await page.getByTestId('files').setInputFiles([{ name: 'ostrey.zip', mimeType: 'application/zip', buffer: demo }])
  await measured(page)
}

export async function setUp(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Set everything up', exact: true }).click()
  await stored(page)
  await expect(page.getByRole('button', { name: 'Set everything up again' })).toBeVisible()
}

export const liveFrame = (page: Page, screen = 'laptop') => page.frameLocator(`iframe[data-screen="${screen}"]`)

export const task = (page: Page, name: string) => page.getByRole('navigation', { name: 'Tasks' }).getByRole('link', { name }).click()
