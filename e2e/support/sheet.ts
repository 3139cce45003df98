/** The Sections sheet, as a designer uses it. */
import { type Page } from '@playwright/test'
import { readFileSync, writeFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { freshFolder } from './cli.ts'
import { make, openSite, stored, task, type File, type Server } from './server.ts'

export const ids = (page: Page) =>
  page.getByLabel(/^ID of section/).evaluateAll((fields) => fields.map((f) => (f as HTMLInputElement).value))
export const setId = async (page: Page, n: number, id: string) => {
  const field = page.getByLabel(`ID of section ${n}`, { exact: true })
  await field.fill(id)
  await field.press('Enter')
}

/** @param files one path, or contents */
export async function bringIn(page: Page, server: Server, files: string | File[]): Promise<void> {
  const given = typeof files === 'string' ? [{ name: basename(files), mimeType: 'text/html', buffer: readFileSync(files) }] : files
  await openSite(page, server, await make(server, given))
}

/** A page with additional CSS. */
export function styled(path: string, css: string): File[] {
  const text = readFileSync(path, 'utf8').replace('</style>', `${css}</style>`)
  return [{ name: basename(path), mimeType: 'text/html', buffer: Buffer.from(text) }]
}

export async function takeHome(page: Page): Promise<string> {
  await stored(page)
  await task(page, 'Handover')
  const [file] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: /^Download .*html$/ }).click()])
  const home = join(freshFolder(), 'index.html')
  writeFileSync(home, readFileSync(await file.path()))
  return home
}
